<script setup lang="ts">
// What the time brought: looks by what they told for each minute, looks never taken, drills, stages.
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { ask, client, type Shape } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import ShareBar from '@/casebook/ShareBar.vue'
import { STAGES } from '@/lesson/stages'
import WhenLoaded from '@/ui/WhenLoaded.vue'
import { capital, count } from '@/ui/words'

const known = useKnowledge()
const {
  data: pays,
  error,
  refetch,
} = useQuery({
  queryKey: ['casebook-pays'],
  queryFn: () => ask(client.GET('/api/casebook/pays')),
})
/** Bits for each minute that the look takes. */
const aMinute = (look: Shape['LookPays']) => (60 * look.bits) / look.seconds
const most = computed(() =>
  Math.max(...[...(pays.value?.looks ?? []), ...(pays.value?.never ?? [])].map(aMinute), 0.1),
)
const width = (look: Shape['LookPays']) => `${String((100 * aMinute(look)) / most.value)}%`
const called = (look: Shape['LookPays']) => capital(known.check(look.check)?.label ?? look.check)
const lists = computed(() => [
  {
    title: 'Looks, by what they told for a minute',
    list: pays.value?.looks ?? [],
    times: (n: number) => `in ${count(n, 'lesson')}`,
    none: 'No look has been studied yet.',
  },
  {
    title: 'Never taken, by what they would have told',
    list: pays.value?.never ?? [],
    times: (n: number) => `proposed in ${count(n, 'lesson')}`,
    none: 'Every look that was proposed has been taken at some time.',
  },
])
const stages = computed(() =>
  STAGES.flatMap((s) => {
    const minutes = pays.value?.minutes[s.id]
    return minutes === undefined ? [] : [{ word: s.word, minutes }]
  }),
)
const longest = computed(() => Math.max(...stages.value.map((s) => s.minutes), 1))
</script>

<template>
  <WhenLoaded
    v-slot="{ data }"
    :data="pays"
    :error="error"
    :empty="
      pays?.lessons === 0
        ? {
            title: 'No decision yet.',
            hint: 'Once lessons have come to a decision, this says which looks and drills were worth their time.',
          }
        : null
    "
    @retry="refetch"
  >
    <section aria-label="What pays">
      <div class="two">
        <div v-for="l in lists" :key="l.title">
          <h2>{{ l.title }}</h2>
          <p v-if="!l.list.length" class="quiet">{{ l.none }}</p>
          <ul v-else>
            <li v-for="look in l.list" :key="look.check">
              <span class="bar" aria-hidden="true"><span :style="{ width: width(look) }" /></span>
              <span>{{ called(look) }}</span>
              <span class="quiet"
                >{{ aMinute(look).toFixed(1) }} bits a minute, {{ l.times(look.lessons) }}</span
              >
            </li>
          </ul>
        </div>
      </div>
      <p class="quiet">
        A bit halves what is open. A look that only says again what was known tells nothing.
      </p>
      <div class="two">
        <div>
          <h2>Drills, and whether the cause was confirmed</h2>
          <p v-if="!data.drills.length" class="quiet">Of no lesson with a drill is it known yet.</p>
          <div v-else class="bars">
            <ShareBar
              v-for="d in data.drills"
              :key="d.drill"
              :word="known.drill(d.drill)?.name ?? d.drill"
              :share="d.share"
            />
          </div>
        </div>
        <div v-if="stages.length">
          <h2>Minutes, on average</h2>
          <ul>
            <li v-for="s in stages" :key="s.word">
              <span class="bar" aria-hidden="true"
                ><span :style="{ width: `${(100 * s.minutes) / longest}%` }"
              /></span>
              <span>{{ s.word }}</span>
              <span class="quiet">{{ s.minutes.toFixed(1) }} min</span>
            </li>
          </ul>
        </div>
      </div>
    </section>
  </WhenLoaded>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(420px, 100%), 1fr));
  gap: 8px 40px;
}
.bars {
  display: grid;
  gap: 8px;
}
.bars :deep(.share) {
  grid-template-columns: 1fr;
  gap: 2px;
}
ul {
  list-style: none;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 70px 1fr auto;
  align-items: baseline;
  gap: 10px;
  min-height: 30px;
}
@media (max-width: 700px) {
  li {
    grid-template-columns: 46px 1fr;
    gap: 0 10px;
  }
  li > .quiet {
    grid-column: 2;
    margin-bottom: 6px;
  }
}
.bar {
  height: 8px;
}
.bar span {
  display: block;
  height: 100%;
  min-width: 3px;
  border-radius: 2px;
  background: var(--slate);
}
</style>
