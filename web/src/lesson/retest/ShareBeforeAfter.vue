<script setup lang="ts">
// One share: every ball before and after as a square, filled where it counts.
import { computed } from 'vue'
import type { Shape } from '@/api/client'
import { changeWord } from '@/lesson/retest/measureWords'

const props = defineProps<{
  measure: Shape['ComparedOut']
  /** Whether the retest is decided by it. */
  decides: boolean
}>()

const of = (balls: readonly number[]) =>
  `${String(balls.filter((ball) => ball > 0).length)} of ${String(balls.length)}`
const rows = computed(() =>
  [
    { when: 'first lesson', balls: props.measure.first, kind: 'first' },
    { when: 'before', balls: props.measure.before, kind: 'before' },
    { when: 'after', balls: props.measure.after, kind: 'after' },
  ].filter((row) => row.balls.length > 0),
)
const predicted = computed(() => {
  const { predicted: share, before } = props.measure
  return share === null
    ? ''
    : `about ${String(Math.round(share * before.length))} of ${String(before.length)}`
})
</script>

<template>
  <div :class="['measure', { primary: decides }]" :data-testid="`measure-${measure.name}`">
    <p>
      <strong>{{ measure.word }}</strong><span v-if="decides" class="quiet"> decides</span><br />
      <span class="quiet">{{ changeWord(measure) }}</span>
    </p>
    <div class="rows" aria-hidden="true">
      <div v-for="row in rows" :key="row.when" :class="['balls', row.kind]">
        <span v-for="(ball, i) in row.balls" :key="i" :class="{ counts: ball > 0 }" />
      </div>
    </div>
    <p class="numbers">
      <span v-for="row in rows" :key="row.when" :class="{ quiet: row.kind === 'first' }"
        >{{ row.when }}
        <component :is="row.kind === 'after' ? 'strong' : 'span'">{{
          of(row.balls)
        }}</component></span
      >
      <span v-if="predicted" class="quiet">predicted {{ predicted }}</span>
    </p>
  </div>
</template>

<style scoped>
.measure {
  display: grid;
  grid-template-columns: 144px minmax(0, 1fr) 200px;
  gap: 14px;
  align-items: center;
  padding: 4px 10px;
  border-left: 4px solid transparent;
}
.primary {
  border-left-color: var(--ink);
  background: var(--panel);
}
.rows {
  display: grid;
  gap: 6px;
}
.balls {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
.balls span {
  width: 14px;
  height: 14px;
  border: 2px solid var(--slate);
}
.balls.after span {
  border-color: var(--ink);
}
.balls.first span {
  width: 9px;
  height: 9px;
  border-color: var(--quiet);
}
.balls.before .counts {
  background: var(--slate);
}
.balls.after .counts {
  background: var(--ink);
}
.balls.first .counts {
  background: var(--quiet);
}
.numbers {
  display: grid;
}
@media (max-width: 700px) {
  .measure {
    grid-template-columns: 1fr;
  }
}
</style>
