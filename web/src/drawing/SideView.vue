<script setup lang="ts">
// The flights from the side, as computed; heights are drawn larger than lengths.
import { computed, useTemplateRef } from 'vue'
import type { DistanceUnit } from '@/ui/settings'
import { ringsFor } from '@/drawing/range'
import { useSize } from '@/drawing/size'
import { fromMetres, toMetres } from '@/ui/units'

const props = defineProps<{
  balls: readonly { id: string; track: readonly [number, number, number][]; apexM: number }[]
  newest: string | null
  reachM: number
  unit: DistanceUnit
}>()
defineEmits<{ chosen: [id: string] }>()

const LEFT = 60
const ROOM_RIGHT = 40
const ROOM_BELOW = 18
const svg = useTemplateRef<SVGSVGElement>('svg')
const size = useSize(svg, { width: 800, height: 84 })
const groundY = computed(() => size.value.height - ROOM_BELOW)
const highest = computed(() => Math.max(8, ...props.balls.map((b) => b.apexM)))
const x = (m: number) => LEFT + (m / (props.reachM * 1.08)) * (size.value.width - LEFT - ROOM_RIGHT)
const y = (m: number) => groundY.value - (m / highest.value) * (groundY.value - 12)
const marks = computed(() =>
  ringsFor(fromMetres(props.reachM * 1.08, props.unit)).map((d) => ({
    label: `${String(d)} ${props.unit}`,
    metres: toMetres(d, props.unit),
  })),
)
const path = (track: readonly [number, number, number][]) =>
  `M${track.map(([a, up, s]) => `${x(Math.hypot(a, s)).toFixed(1)} ${y(up).toFixed(1)}`).join('L')}`
const high = computed(() => {
  const chosen = props.balls.find((b) => b.id === props.newest)
  return chosen ? chosen.apexM : null
})
</script>

<template>
  <svg
    ref="svg"
    class="side"
    :viewBox="`0 0 ${size.width} ${size.height}`"
    role="img"
    :aria-label="`Flights of ${balls.length} balls from the side`"
    data-testid="side-view"
  >
    <line class="ground" :x1="LEFT" :y1="groundY" :x2="size.width" :y2="groundY" />
    <g v-for="mark in marks" :key="mark.label">
      <line
        class="tick"
        :x1="x(mark.metres)"
        :x2="x(mark.metres)"
        :y1="groundY"
        :y2="groundY + 6"
      />
      <text class="middle" :x="x(mark.metres)" :y="size.height - 4">{{ mark.label }}</text>
    </g>
    <path
      v-for="ball in balls"
      :key="ball.id"
      :class="['flight', { newest: ball.id === newest }]"
      :d="path(ball.track)"
      @pointerdown="$emit('chosen', ball.id)"
    />
    <text x="0" y="18">Side</text>
    <text v-if="high !== null" x="0" y="38" class="quiet" data-testid="apex">
      {{ fromMetres(high, unit).toFixed(0) }} {{ unit }} up
    </text>
  </svg>
</template>

<style scoped>
.side {
  display: block;
  width: 100%;
  height: 100%;
}
.ground,
.tick {
  stroke: var(--ink);
  stroke-width: 1.5;
}
.flight {
  fill: none;
  stroke: var(--ink);
  stroke-opacity: 0.35;
  stroke-width: 2;
  pointer-events: stroke;
  cursor: pointer;
}
.flight.newest {
  stroke-opacity: 1;
  stroke-width: 4;
}
text {
  font-size: var(--text-small);
}
.middle {
  text-anchor: middle;
}
.quiet {
  fill: var(--ink);
}
</style>
