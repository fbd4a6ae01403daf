<script setup lang="ts">
// The flights from the side, as computed; heights are drawn larger than lengths.
import { computed } from 'vue'
import type { DistanceUnit } from '@/ui/settings'
import { ringsFor } from '@/drawing/range'
import { fromMetres, toMetres } from '@/ui/units'

const props = defineProps<{
  balls: readonly { id: string; track: readonly [number, number, number][]; apexM: number }[]
  newest: string | null
  reachM: number
  unit: DistanceUnit
}>()
defineEmits<{ chosen: [id: string] }>()

const WIDTH = 800
const HEIGHT = 84
const GROUND_Y = 66
const LEFT = 60
const highest = computed(() => Math.max(8, ...props.balls.map((b) => b.apexM)))
const x = (m: number) => LEFT + (m / (props.reachM * 1.08)) * (WIDTH - LEFT - 40)
const y = (m: number) => GROUND_Y - (m / highest.value) * (GROUND_Y - 12)
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
    class="side"
    :viewBox="`0 0 ${WIDTH} ${HEIGHT}`"
    role="img"
    :aria-label="`Flights of ${balls.length} balls from the side`"
    data-testid="side-view"
  >
    <line class="ground" :x1="LEFT" :y1="GROUND_Y" :x2="WIDTH" :y2="GROUND_Y" />
    <g v-for="mark in marks" :key="mark.label">
      <line class="tick" :x1="x(mark.metres)" :x2="x(mark.metres)" :y1="GROUND_Y" y2="72" />
      <text class="middle" :x="x(mark.metres)" y="83">{{ mark.label }}</text>
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
  stroke: rgb(var(--v-theme-ink));
  stroke-width: 1.5;
}
.flight {
  fill: none;
  stroke: rgb(var(--v-theme-ink));
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
  font-size: 14px;
}
.middle {
  text-anchor: middle;
}
.quiet {
  fill: rgb(var(--v-theme-ink));
}
</style>
