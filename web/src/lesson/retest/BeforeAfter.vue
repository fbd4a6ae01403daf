<script setup lang="ts">
// One measure: every ball before and after on one line, both means, and where it was predicted.
import { computed } from 'vue'
import type { Shape } from '@/api/client'
import MeasureRow from '@/lesson/retest/MeasureRow.vue'
import { useLessonContext } from '@/lesson/lessonContext'
import type { DistanceUnit } from '@/ui/settings'
import { fromMetres, signed } from '@/ui/units'
import { measureWord } from '@/lesson/retest/measureWords'

const props = defineProps<{
  measure: Shape['ComparedOut']
  /** Whether the retest is decided by it. */
  decides: boolean
  unit: DistanceUnit
}>()
const { hand } = useLessonContext()

const WIDTH = 460
const EDGE = 24
const all = computed(() => [
  ...props.measure.before,
  ...props.measure.after,
  ...props.measure.first,
  ...(props.measure.predicted === null ? [] : [props.measure.predicted]),
])
const ends = computed(() => {
  const [low, high] = [Math.min(...all.value), Math.max(...all.value)]
  const room = Math.max((high - low) * 0.08, 0.5)
  return { low: low - room, high: high + room }
})
const mirrored = computed(() => hand.value === 'left' && props.measure.name.endsWith('_deg'))
function x(value: number): number {
  const part = (value - ends.value.low) / (ends.value.high - ends.value.low)
  return EDGE + (mirrored.value ? 1 - part : part) * (WIDTH - 2 * EDGE)
}
const about = computed(() => (props.measure.about ? 'about ' : ''))
const mean = (values: readonly number[]) => values.reduce((a, b) => a + b, 0) / values.length
/** As it is read everywhere else. */
const was = computed(() => props.measure.shown_before ?? mean(props.measure.before))
const is = computed(() => props.measure.shown_after ?? mean(props.measure.after))
const say = (value: number) => measureWord(props.measure.name, value, hand.value, props.unit)
/** The size of the change with its standard error, as seen from behind the student. */
const by = computed(() => {
  const found = props.measure.change
  if (!found) return ''
  const flip = mirrored.value ? -1 : 1
  const unit = { deg: '°', mm: ' mm', cm: ' cm' }[props.measure.name.split('_').at(-1) ?? '']
  const size = (v: number) => (unit === undefined ? fromMetres(v, props.unit) : v)
  if (props.measure.about) return ''
  return `by ${signed(size(flip * (is.value - was.value)))} ± ${size(found.se).toFixed(0)}${unit ?? ` ${props.unit}`}`
})
</script>

<template>
  <MeasureRow :measure="measure" :decides="decides" :by="by">
    <svg :viewBox="`0 0 ${WIDTH} 62`" role="img" :aria-label="measure.word">
      <line class="axis" :x1="EDGE" :x2="WIDTH - EDGE" y1="31" y2="31" />
      <circle
        v-for="(v, i) in measure.first"
        :key="`f${i}`"
        class="first"
        :cx="x(v)"
        cy="8"
        r="3"
      />
      <circle
        v-for="(v, i) in measure.before"
        :key="`b${i}`"
        class="before"
        :cx="x(v)"
        cy="18"
        r="6"
      />
      <circle
        v-for="(v, i) in measure.after"
        :key="`a${i}`"
        class="after"
        :cx="x(v)"
        cy="44"
        r="6"
      />
      <line
        v-if="measure.before.length"
        class="mean before"
        :x1="x(was)"
        :x2="x(was)"
        y1="6"
        y2="30"
      />
      <line
        v-if="measure.after.length"
        class="mean after"
        :x1="x(is)"
        :x2="x(is)"
        y1="32"
        y2="56"
      />
      <path
        v-if="measure.predicted !== null"
        class="predicted"
        :d="`M${x(measure.predicted)} 31l-6 -7h12z`"
      />
    </svg>
    <template #numbers>
      <span v-if="measure.first.length" class="quiet"
        >first lesson {{ say(mean(measure.first)) }}</span
      >
      <span>before {{ about }}{{ say(was) }}</span>
      <strong v-if="measure.after.length">after {{ about }}{{ say(is) }}</strong>
      <span v-if="measure.predicted !== null" class="quiet"
        >predicted {{ say(measure.predicted) }}</span
      >
    </template>
  </MeasureRow>
</template>

<style scoped>
svg {
  width: 100%;
}
.axis {
  stroke: var(--line);
}
circle.before {
  fill: none;
  stroke: var(--slate);
  stroke-width: 2;
}
circle.first {
  fill: none;
  stroke: var(--quiet);
}
circle.after {
  fill: var(--ink);
}
.mean {
  stroke-width: 4;
}
.mean.before {
  stroke: var(--slate);
  stroke-dasharray: 5 3;
}
.mean.after {
  stroke: var(--ink);
}
.predicted {
  fill: var(--clay);
}
</style>
