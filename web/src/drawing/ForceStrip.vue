<script setup lang="ts">
// The forces of both feet through the swing, under the curve of the shares and on its time: toward
// the target, turning, up. Each on its own scale, from nothing to its peak.
import { computed, useTemplateRef } from 'vue'
import { pathOf, type Read } from '@/drawing/pressure'
import { useSize } from '@/drawing/size'
import { useSwingTime } from '@/drawing/swingTime'

const props = defineProps<{ read: Read; now: number }>()

const LEFT = 46
const RIGHT = 12
const TOP = 20
const BELOW = 6
const LETTER_WIDTH = 8.4
const APART = 14
const FORCES = [
  { id: 'sideways', column: 'lateral_pct_bw', word: 'sideways', unit: '%' },
  { id: 'turning', column: 'torque_nm', word: 'turning', unit: 'N m' },
  { id: 'up', column: 'vertical_pct_bw', word: 'up', unit: '%' },
] as const

const svg = useTemplateRef<SVGSVGElement>('svg')
const size = useSize(svg, { width: 560, height: 96 })
const { x, from, to } = useSwingTime(() => props.read.events, size, LEFT, RIGHT)
const floor = computed(() => size.value.height - BELOW)

const drawn = computed(() =>
  FORCES.flatMap((force) => {
    const values = props.read.curve[force.column]
    const peak = props.read.measures.peaks.find((p) => p.force === force.id)
    if (!values || !peak) return []
    const known = values.flatMap((v) => v ?? [])
    const [least, most] = [Math.min(0, ...known), Math.max(peak.value, ...known)]
    const y = (value: number) =>
      floor.value - ((value - least) / (most - least || 1)) * (floor.value - TOP)
    const path = pathOf(props.read.curve.t_s, values, x, y, from.value, to.value)
    return [{ ...force, path, at: { x: x(peak.t_s), y: y(peak.value) }, peak }]
  }),
)
/** Names over the peaks, from left to right, none upon another or beyond the strip. */
const names = computed(() => {
  let free = LEFT
  const placed = [...drawn.value]
    .sort((a, b) => a.at.x - b.at.x)
    .map((force) => {
      const word = `${force.word} ${force.peak.value.toFixed(0)} ${force.unit}`
      const wide = LETTER_WIDTH * word.length
      const left = Math.max(free, force.at.x - wide / 2)
      free = left + wide + APART
      return { id: force.id, word, left }
    })
  const over = Math.max(0, free - APART - size.value.width)
  return placed.map((name) => ({ ...name, left: Math.max(LEFT, name.left - over) }))
})
</script>

<template>
  <svg
    v-if="drawn.length"
    ref="svg"
    class="forces"
    :viewBox="`0 0 ${size.width} ${size.height}`"
    role="img"
    aria-label="Forces of both feet through the swing"
    data-testid="forces"
  >
    <rect
      :x="LEFT"
      :y="TOP"
      :width="size.width - LEFT - RIGHT"
      :height="floor - TOP"
      class="field"
    />
    <line
      class="ball"
      :x1="x(read.events.impact.t_s)"
      :x2="x(read.events.impact.t_s)"
      :y1="TOP"
      :y2="floor"
    />
    <g v-for="force in drawn" :key="force.id">
      <path :class="['force', force.id]" :d="force.path" />
      <circle class="peak" :cx="force.at.x" :cy="force.at.y" r="4" />
    </g>
    <text v-for="name in names" :key="name.id" :x="name.left" :y="14">{{ name.word }}</text>
    <line class="now" :x1="x(now)" :x2="x(now)" :y1="TOP" :y2="floor" />
  </svg>
</template>

<style scoped>
.forces {
  display: block;
  width: 100%;
  height: 96px;
  flex: none;
}
.field {
  fill: var(--surface);
  stroke: var(--line);
}
.ball {
  stroke: var(--line);
}
.force {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
.force.turning {
  stroke-dasharray: 2 3;
}
.force.up {
  stroke-dasharray: 9 3 2 3;
}
.peak {
  fill: var(--surface);
  stroke: var(--ink);
  stroke-width: 2;
}
text {
  font-size: var(--text-small);
}
.now {
  stroke: var(--slate);
  stroke-width: 3;
}
</style>
