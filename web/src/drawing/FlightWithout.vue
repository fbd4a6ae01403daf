<script setup lang="ts">
// Two ways of a ball on a small range: as it flies now, and as it should without one cause.
import { computed } from 'vue'
import type { Handedness, Shape } from '@/api/client'
import { ballAt, flightPath, toPoint, type Range } from '@/drawing/range'
import { pushSign } from '@/ui/frame'

type Seen = Shape['SeenOut']
const props = defineProps<{ hand: Handedness; now: Seen; without: Seen; label: string }>()

/** Of the expected carry, so that the drawing needs no distance. */
const FULL = 100
const range: Range = { width: 260, height: 150, reachM: FULL * 1.15 }
const ball = ballAt(range)
function drawn(seen: Seen) {
  const sign = pushSign(props.hand)
  const start = (seen.start_deg?.value ?? 0) * sign
  const curve = (seen.curve_deg?.value ?? 0) * sign
  const carry = Math.min(FULL * 1.1, Math.max(20, seen.carry_pct?.value ?? FULL))
  return {
    path: flightPath(start, curve, carry, range),
    end: toPoint(start + curve, carry, range),
  }
}
const ways = computed(() => ({ now: drawn(props.now), without: drawn(props.without) }))
</script>

<template>
  <svg
    class="flight"
    :viewBox="`0 0 ${range.width} ${range.height}`"
    role="img"
    :aria-label="label"
  >
    <line class="target" :x1="ball.x" :y1="ball.y" :x2="ball.x" y2="8" />
    <g class="now">
      <path :d="ways.now.path" />
      <circle :cx="ways.now.end.x" :cy="ways.now.end.y" r="4" />
    </g>
    <g class="without">
      <path :d="ways.without.path" />
      <circle :cx="ways.without.end.x" :cy="ways.without.end.y" r="6" />
    </g>
    <circle class="ball" :cx="ball.x" :cy="ball.y" r="4" />
  </svg>
</template>

<style scoped>
.flight {
  display: block;
  width: 100%;
  max-width: 320px;
  background: var(--turf);
  border-radius: var(--corner);
}
path,
circle {
  fill: none;
}
.target {
  stroke: var(--ink);
  stroke-width: 1.2;
  stroke-dasharray: 5 5;
}
.now {
  stroke: var(--slate);
  stroke-width: 2;
}
.without {
  stroke: var(--ink);
  stroke-width: 3;
  stroke-dasharray: 8 5;
}
.without circle {
  stroke-dasharray: none;
}
.ball {
  fill: var(--surface);
  stroke: var(--ink);
  stroke-width: 2;
}
</style>
