<script setup lang="ts">
// One share: every ball before and after as a square, filled where it counts.
import { computed } from 'vue'
import type { Shape } from '@/api/client'
import MeasureRow from '@/lesson/retest/MeasureRow.vue'

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
  <MeasureRow :measure="measure" :decides="decides">
    <div class="rows" aria-hidden="true">
      <div v-for="row in rows" :key="row.when" :class="['balls', row.kind]">
        <span v-for="(ball, i) in row.balls" :key="i" :class="{ counts: ball > 0 }" />
      </div>
    </div>
    <template #numbers>
      <span v-for="row in rows" :key="row.when" :class="{ quiet: row.kind === 'first' }"
        >{{ row.when }}
        <component :is="row.kind === 'after' ? 'strong' : 'span'">{{
          of(row.balls)
        }}</component></span
      >
      <span v-if="predicted" class="quiet">predicted {{ predicted }}</span>
    </template>
  </MeasureRow>
</template>

<style scoped>
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
</style>
