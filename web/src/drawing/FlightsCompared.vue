<script setup lang="ts">
// Balls before and after on one range, and the way that was predicted without the cause.
import { computed, useTemplateRef } from 'vue'
import type { Handedness, LoggedShot } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import { flightOf, type FlightMark } from '@/drawing/marks'
import { arcPath, ballAt, flightPath, ringsFor, toPoint, type Range } from '@/drawing/range'
import { useSize } from '@/drawing/size'
import { pushSign } from '@/ui/frame'
import type { DistanceUnit } from '@/ui/settings'
import { fromMetres, toMetres } from '@/ui/units'

const known = useKnowledge()
const props = defineProps<{
  hand: Handedness
  before: LoggedShot[]
  after: LoggedShot[]
  predicted: FlightMark | null
  expectedM: number
  unit: DistanceUnit
}>()

const svg = useTemplateRef<SVGSVGElement>('svg')
const size = useSize(svg, { width: 400, height: 300 })
const sign = computed(() => pushSign(props.hand))
const marks = (shots: LoggedShot[]) => shots.flatMap((s) => flightOf(s, known.all.noting) ?? [])
const times = computed(() => [
  { id: 'before', flights: marks(props.before) },
  { id: 'after', flights: marks(props.after) },
])
const range = computed<Range>(() => {
  const carries = times.value.flatMap((t) => t.flights.map((f) => f.carryM ?? 0))
  return { ...size.value, reachM: Math.max(props.expectedM, ...carries) * 1.12 }
})
const ball = computed(() => ballAt(range.value))
const rings = computed(() =>
  ringsFor(fromMetres(range.value.reachM, props.unit)).map((d) => ({
    label: `${String(d)} ${props.unit}`,
    metres: toMetres(d, props.unit),
  })),
)
function drawn(f: FlightMark) {
  const carry = f.carryM ?? props.expectedM
  const [start, curve] = [f.startDeg * sign.value, (f.curveDeg ?? 0) * sign.value]
  return {
    path: flightPath(start, curve, carry, range.value),
    end: toPoint(start + curve, carry, range.value),
  }
}
</script>

<template>
  <svg
    ref="svg"
    class="flights"
    :viewBox="`0 0 ${size.width} ${size.height}`"
    role="img"
    :aria-label="`${before.length} balls before, ${after.length} after`"
    data-testid="flights-compared"
  >
    <g v-for="ring in rings" :key="ring.metres">
      <path class="ring" :d="arcPath(ring.metres, 11, range)" />
      <text class="small" :x="6" :y="toPoint(-11, ring.metres, range).y + 4">{{ ring.label }}</text>
    </g>
    <line class="target" :x1="ball.x" :y1="ball.y" :x2="ball.x" y2="12" />
    <g v-for="t in times" :key="t.id" :class="t.id">
      <template v-for="(f, i) in t.flights" :key="i">
        <path :d="drawn(f).path" />
        <circle v-if="f.curveDeg !== null" :cx="drawn(f).end.x" :cy="drawn(f).end.y" r="5" />
      </template>
    </g>
    <g v-if="predicted" class="predicted" data-testid="predicted-flight">
      <path :d="drawn(predicted).path" />
      <circle :cx="drawn(predicted).end.x" :cy="drawn(predicted).end.y" r="10" />
    </g>
    <circle class="ball" :cx="ball.x" :cy="ball.y" r="5" />
  </svg>
</template>

<style scoped>
.flights {
  display: block;
  width: 100%;
  height: 100%;
}
path,
circle {
  fill: none;
}
.ring {
  stroke: var(--line);
  stroke-opacity: 0.6;
}
.small {
  font-size: var(--text-tiny);
}
.target {
  stroke: var(--ink);
  stroke-width: 1.5;
  stroke-dasharray: 6 6;
}
.before {
  stroke: var(--slate);
  stroke-width: 1.5;
}
.before path {
  stroke-opacity: 0.45;
  stroke-dasharray: 5 4;
}
.after {
  stroke: var(--ink);
  stroke-width: 2.5;
}
.after circle {
  fill: var(--ink);
}
.predicted {
  stroke: var(--clay);
  stroke-width: 4;
}
.predicted path {
  stroke-opacity: 0.55;
}
.ball {
  fill: var(--surface);
  stroke: var(--ink);
  stroke-width: 2;
}
</style>
