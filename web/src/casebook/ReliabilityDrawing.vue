<script setup lang="ts">
// What was said, to the right, and what came true, upward: on the line it was as sure as it should be.
import { computed } from 'vue'
import type { Shape } from '@/api/client'

const props = defineProps<{ bands: Shape['BandOut'][] }>()
const SIZE = 230
const LEFT = 62
const BELOW = 40
const TICKS = [0, 0.25, 0.5, 0.75, 1]
const x = (p: number) => LEFT + SIZE * p
const y = (p: number) => 8 + SIZE * (1 - p)
const percent = (p: number) => `${String(Math.round(100 * p))}%`
const marks = computed(() =>
  props.bands.map(({ said, share, low, high }) => ({
    at: x(said),
    came: y(share.came / share.of),
    top: y(share.high),
    bottom: y(share.low),
    of: share.of,
    words: `When it said ${percent(low)} to ${percent(high)}, ${String(share.came)} of ${String(share.of)} came true; between ${percent(share.low)} and ${percent(share.high)}.`,
  })),
)
</script>

<template>
  <figure>
    <svg
      :width="LEFT + SIZE + 22"
      :height="8 + SIZE + BELOW"
      role="img"
      aria-label="What was said, and what came true"
    >
      <rect :x="LEFT" y="8" :width="SIZE" :height="SIZE" class="frame" />
      <line :x1="x(0)" :y1="y(0)" :x2="x(1)" :y2="y(1)" class="even" />
      <g v-for="t in TICKS" :key="t" class="tick">
        <text :x="x(t)" :y="8 + SIZE + 17" text-anchor="middle">{{ percent(t) }}</text>
        <text :x="LEFT - 6" :y="y(t) + 4" text-anchor="end">{{ percent(t) }}</text>
      </g>
      <text :x="x(0.5)" :y="8 + SIZE + 35" text-anchor="middle" class="tick">
        it was said to be the start
      </text>
      <text :transform="`translate(12 ${y(0.5)}) rotate(-90)`" text-anchor="middle" class="tick">
        it came true
      </text>
      <g v-for="m in marks" :key="m.at">
        <line :x1="m.at" :x2="m.at" :y1="m.top" :y2="m.bottom" class="band" />
        <circle :cx="m.at" :cy="m.came" r="6" class="mark" />
      </g>
    </svg>
    <figcaption>
      <p v-for="m in marks" :key="m.at">{{ m.words }}</p>
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  display: grid;
  gap: 8px;
  max-width: 330px;
}
figcaption {
  font-size: var(--text-small);
}
.frame {
  fill: none;
  stroke: var(--line);
}
.even {
  stroke: var(--quiet);
  stroke-dasharray: 4 4;
}
.tick,
.tick text {
  font-size: var(--text-tiny);
  fill: var(--quiet);
}
.band {
  stroke: var(--slate);
  stroke-width: 9;
  stroke-linecap: round;
  opacity: 0.35;
}
.mark {
  fill: var(--ink);
}
</style>
