<script setup lang="ts">
// Both shoes from above with the centre of pressure wandering between them; the ball is to the
// right of a right-hander's toes. Each foot's load is told by number and by the size of its disc.
import { computed } from 'vue'
import type { Handedness } from '@/api/client'
import { centreAt, valueAt, type Read } from '@/drawing/pressure'
import ShoePrint from '@/drawing/ShoePrint.vue'

const props = defineProps<{
  read: Read
  now: number
  hand: Handedness
  footWords: { lead: string; trail: string }
}>()

const WIDTH = 250
const HEIGHT = 300
const FEET = { lead: { x: 128, y: 70 }, trail: { x: 128, y: 226 } } as const
const HEEL_X = 74
const TOE_X = 182

const left = computed(() => props.hand === 'left')
const flip = computed(() => (left.value ? `translate(${String(WIDTH)} 0) scale(-1 1)` : ''))
const mirrored = (x: number) => (left.value ? WIDTH - x : x)
const acrossX = (toe: number | null) => HEEL_X + ((toe ?? 50) / 100) * (TOE_X - HEEL_X)
const alongY = (lead: number) => FEET.trail.y + (lead / 100) * (FEET.lead.y - FEET.trail.y)

const swing = computed(() => ({
  from: props.read.events.address.t_s,
  to: props.read.events.impact.t_s,
}))
const way = computed(() => {
  const { t_s: times } = props.read.curve
  const points = times.filter((t) => t >= swing.value.from && t <= swing.value.to)
  return points
    .map((t, i) => {
      const { lead, toe } = centreAt(props.read.curve, t)
      return `${i ? 'L' : 'M'}${acrossX(toe).toFixed(1)} ${alongY(lead).toFixed(1)}`
    })
    .join('')
})
const here = computed(() => {
  const { lead, toe } = centreAt(props.read.curve, props.now)
  return { x: acrossX(toe), y: alongY(lead), lead, toe }
})
const feet = computed(() =>
  (['lead', 'trail'] as const).map((foot) => {
    const load = foot === 'lead' ? here.value.lead : 100 - here.value.lead
    const values = props.read.curve[foot === 'lead' ? 'lead_toe_pct' : 'trail_toe_pct']
    const toe = valueAt(props.read.curve, values, props.now)
    return { foot, load, toe, x: acrossX(toe), y: FEET[foot].y, r: 4 + 15 * Math.sqrt(load / 100) }
  }),
)
const loop = computed(() => {
  const found = props.read.measures.loop
  return found ? { x: acrossX(found.toe_pct), y: alongY(found.lead_pct) } : null
})
</script>

<template>
  <svg
    class="footprints"
    :viewBox="`0 0 ${WIDTH} ${HEIGHT}`"
    role="img"
    :aria-label="`${here.lead.toFixed(0)} % on the lead foot`"
    data-testid="footprints"
  >
    <g :transform="flip">
      <ShoePrint v-bind="FEET.lead" which="lead" :lit="new Set()" :turn="-10" />
      <ShoePrint v-bind="FEET.trail" which="trail" :lit="new Set()" :turn="2" />
      <circle
        v-for="f in feet"
        :key="f.foot"
        class="load"
        :cx="f.x"
        :cy="f.y"
        :r="f.r"
        :data-testid="`load-${f.foot}`"
      />
      <path class="way" :d="way" data-testid="way" />
      <circle v-if="loop" class="loop" :cx="loop.x" :cy="loop.y" r="11" />
      <circle class="here" :cx="here.x" :cy="here.y" r="8" data-testid="here" />
      <circle class="ball" cx="238" cy="148" r="8" />
    </g>
    <g v-for="f in feet" :key="f.foot" class="numbers">
      <text
        :class="left ? 'end' : 'start'"
        :x="mirrored(4)"
        :y="f.foot === 'lead' ? 22 : HEIGHT - 8"
      >
        {{ footWords[f.foot] }} {{ f.load.toFixed(0) }} %
        <tspan v-if="f.toe !== null" class="quiet">· toe {{ f.toe.toFixed(0) }} %</tspan>
      </text>
    </g>
    <text
      v-if="here.toe === null"
      :class="['quiet', 'small', left ? 'end' : 'start']"
      :x="mirrored(4)"
      :y="HEIGHT - 28"
    >
      heel and toe not recorded
    </text>
  </svg>
</template>

<style scoped>
.footprints {
  display: block;
  width: 100%;
  height: 100%;
}
.load {
  fill: var(--slate);
  fill-opacity: 0.3;
  stroke: var(--slate);
}
.way {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
  stroke-linejoin: round;
}
.here {
  fill: var(--ink);
  stroke: var(--surface);
  stroke-width: 2.5;
}
.loop {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.5;
  stroke-dasharray: 3 3;
}
.ball {
  fill: var(--surface);
  stroke: var(--ink);
  stroke-width: 2;
}
.numbers text {
  font-size: var(--text-body);
  font-weight: var(--strong);
}
.small {
  font-size: var(--text-small);
}
.end {
  text-anchor: end;
}
</style>
