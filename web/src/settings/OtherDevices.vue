<script setup lang="ts">
// On the machine itself: a code for a tablet, and which devices come in. Elsewhere: how it stands.
import { computed, onScopeDispose, ref, shallowRef, watch } from 'vue'
import { ask, client, type Shape } from '@/api/client'
import { useAttempt } from '@/api/useAttempt'
import ChooseOne from '@/ui/ChooseOne.vue'
import { dayWord } from '@/ui/dates'
import { usePairing } from '@/settings/usePairing'
import { useInstructors } from '@/ui/useProfile'

const { data: known } = useInstructors()
/** Whose a device may be; one instructor alone is not asked about. */
const whose = computed(() => {
  const all = known.value?.all ?? []
  return all.length > 1 ? all.map((i) => ({ id: i.id, word: i.name || 'Without a name' })) : []
})
const chosen = ref<string | null>(null)
/** Whose the next device is: of who works here, unless somebody else is chosen. */
const forWhom = computed(() => chosen.value ?? known.value?.mine?.id ?? null)
const { data: standing, refetch } = usePairing()
const offer = shallowRef<Shape['OfferOut'] | null>(null)
const seconds = ref(0)
const { problem, attempt } = useAttempt()

const timer = setInterval(() => {
  if (offer.value === null) return
  seconds.value -= 1
  if (seconds.value % 3 === 0) void refetch() // a device may have come in
  if (seconds.value <= 0) offer.value = null
}, 1000)
onScopeDispose(() => {
  clearInterval(timer)
})
/** A code is good once: it goes when a device has come in by it. */
watch(
  () => standing.value?.devices.length ?? 0,
  (now, before) => {
    if (now > before) offer.value = null
  },
)

const show = () =>
  attempt(async () => {
    const body = { instructor_id: forWhom.value }
    offer.value = await ask(client.POST('/api/pairing/offer', { body }))
    seconds.value = offer.value.seconds
  })
function rename(id: string, was: string, input: HTMLInputElement): void {
  const name = input.value.trim()
  if (name === '') {
    input.value = was // a device without a name could not be told from another
    return
  }
  void change(id, { name })
}
const change = (id: string, body: Shape['DeviceChange']) =>
  attempt(async () => {
    const params = { path: { device_id: id } }
    await ask(client.PATCH('/api/devices/{device_id}', { params, body }))
    await refetch()
  })
function offerTo(id: string): void {
  chosen.value = id
  offer.value = null // the code that is shown would bring it in for another
}
const sendAway = (id: string) =>
  attempt(async () => {
    await ask(client.DELETE('/api/devices/{device_id}', { params: { path: { device_id: id } } }))
    await refetch()
  })
</script>

<template>
  <section v-if="standing" class="stack" aria-labelledby="other-devices">
    <h2 id="other-devices">Other devices</h2>
    <p v-if="!standing.here" class="quiet">
      This device is paired. Devices are added and sent away on the machine itself.
    </p>
    <p v-else-if="!standing.address" class="quiet">
      Only this machine can open the application. To use a tablet on the same Wi-Fi, start it with
      <code>firm-footing serve --network</code>.
    </p>
    <template v-else>
      <p>
        Other devices find it at <strong>{{ standing.address }}</strong> once they are paired.
      </p>
      <p v-if="!standing.encrypted" class="quiet">
        Without a certificate others on the same network could listen, and the page does not open
        without a connection.
      </p>
      <div v-if="offer" class="offer">
        <img :src="offer.picture" alt="The address with the code, for the tablet's camera" />
        <div>
          <p class="quiet">Code, good once and for {{ seconds }} s</p>
          <p class="code" data-testid="code">{{ offer.code }}</p>
        </div>
      </div>
      <ChooseOne
        v-if="whose.length"
        name="The next device is used by"
        :options="whose"
        :on="forWhom"
        class="wide"
        @chosen="offerTo"
      />
      <v-btn @click="show">{{ offer ? 'Show another code' : 'Show a code' }}</v-btn>
      <ul v-if="standing.devices.length" class="devices">
        <li v-for="d in standing.devices" :key="d.id">
          <input
            class="name"
            :value="d.name"
            maxlength="80"
            :aria-label="`Name of ${d.name}`"
            @change="(e) => rename(d.id, d.name, e.target as HTMLInputElement)"
          />
          <ChooseOne
            v-if="whose.length"
            :name="`${d.name} is used by`"
            unlabelled
            :options="whose"
            :on="d.instructor_id ?? known?.mine?.id ?? null"
            @chosen="(instructor_id) => change(d.id, { instructor_id })"
          />
          <span class="quiet">since {{ dayWord(d.paired_at) }}</span>
          <v-btn variant="text" @click="sendAway(d.id)">Send away</v-btn>
        </li>
      </ul>
      <p v-else class="quiet">No device is paired.</p>
    </template>
    <p v-if="problem" role="alert" class="problem">{{ problem.message }} {{ problem.hint }}</p>
  </section>
</template>

<style scoped>
.offer {
  display: flex;
  align-items: center;
  gap: 20px;
}
.offer img {
  width: 200px;
  background: white; /* cameras want it so, in either light */
}
.code {
  font-size: var(--text-head);
  font-weight: var(--strong);
  letter-spacing: 0.15em;
}
.devices {
  display: grid;
  gap: 4px;
  width: 100%;
  list-style: none;
}
.wide {
  min-width: 280px;
}
.devices li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 12px;
}
.name {
  min-height: 44px;
  min-width: 220px;
  padding: 0 10px;
  border: 1px solid var(--line);
  border-radius: var(--corner-small);
}
</style>
