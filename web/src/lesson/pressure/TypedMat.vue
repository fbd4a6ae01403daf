<script setup lang="ts">
// Numbers read off a mat's own screen, in one row: judged by the same corridor as a trace.
import { newId } from '@/sync/page'
import { computed, ref } from 'vue'
import { useLessonContext } from '@/lesson/lessonContext'
import { typedNumber } from '@/ui/units'

const { open, words } = useLessonContext()
const MOMENTS = [
  { id: 'address', word: 'Address' },
  { id: 'top', word: 'Top' },
  { id: 'lead_arm_level_down', word: 'Lead arm level down' },
  { id: 'shaft_level_down', word: 'Delivery' },
  { id: 'impact', word: 'Impact' },
] as const
type Moment = (typeof MOMENTS)[number]['id']
const LEAST = 3
const asking = ref(false)
const typed = ref<Partial<Record<Moment, string>>>({})
const shares = computed(() =>
  MOMENTS.flatMap(({ id }) => {
    const value = typedNumber(typed.value[id] ?? '')
    return typeof value === 'number' && value >= 0 && value <= 100 ? [[id, value] as const] : []
  }),
)
const wrong = computed(() =>
  MOMENTS.filter(({ id }) => {
    const text = (typed.value[id] ?? '').trim()
    return text !== '' && !shares.value.some(([given]) => given === id)
  }),
)
const enough = computed(
  () =>
    wrong.value.length === 0 &&
    shares.value.length >= LEAST &&
    shares.value.some(([id]) => id === 'impact'),
)

function keep(): void {
  if (!enough.value) return
  open.putTrace(newId(), {
    recorded: { typed_pct: Object.fromEntries(shares.value) },
    block_id: null,
    name: 'Typed',
  } as Parameters<typeof open.putTrace>[1])
  typed.value = {}
  asking.value = false
}
</script>

<template>
  <v-btn :aria-expanded="asking" @click="asking = !asking">Type the numbers</v-btn>
  <form v-if="asking" class="typed" data-testid="typed-mat" @submit.prevent="keep">
    <p class="quiet">{{ words('Share on the lead foot, in per cent, as the mat shows it.') }}</p>
    <v-text-field
      v-for="m in MOMENTS"
      :key="m.id"
      v-model="typed[m.id]"
      :label="words(m.word)"
      inputmode="numeric"
      suffix="%"
    />
    <v-btn type="submit" color="primary" variant="flat" :disabled="!enough">Judge them</v-btn>
    <p v-if="wrong.length" role="alert">
      {{ wrong.map((m) => words(m.word)).join(', ') }}: give a number from 0 to 100.
    </p>
    <p v-else-if="!enough" class="quiet">It takes the share at impact and two more.</p>
  </form>
</template>

<style scoped>
.typed {
  flex-basis: 100%;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
}
.typed p {
  flex-basis: 100%;
}
.typed :deep(.v-input) {
  flex: 0 1 150px;
}
</style>
