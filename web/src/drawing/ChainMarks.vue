<script setup lang="ts">
// The chain on the plan: a number and an arrow at each link, the club's way and the face at the ball.
import { computed } from 'vue'
import { GROUND, MOVES, type Lit } from '@/drawing/chain'

const props = defineProps<{ lit: Lit[]; chain: readonly string[]; left: boolean }>()

const ARROW_PX = 30
const mirrored = (x: number) => (props.left ? GROUND.width - x : x)
const side = computed(() => (props.left ? -1 : 1))
const { ball } = GROUND

/** The club's way through the ball, drawn twice as slanted as it is. */
const path = computed(() => {
  const slant = props.chain.includes('path_minus') ? -1 : props.chain.includes('path_plus') ? 1 : 0
  if (slant === 0) return null
  const dx = 34 * slant * side.value
  const x = mirrored(ball.x)
  return { x1: x - dx, y1: ball.y + 96, x2: x + dx, y2: ball.y - 92 }
})
const face = computed(() => {
  const open = props.chain.includes('face_open') ? 1 : props.chain.includes('face_shut') ? -1 : 0
  if (open === 0) return null
  const tilt = 12 * open * side.value
  const x = mirrored(ball.x)
  return { x1: x - 26, y1: ball.y + 14 - tilt, x2: x + 26, y2: ball.y + 14 + tilt }
})
const arrows = computed(() =>
  props.lit.flatMap((link) => {
    const move = MOVES[link.moves]
    if (move === null) return []
    const x = mirrored(link.x)
    const dx = move.dx * side.value
    return [
      {
        key: link.number,
        x1: x + dx * 14,
        y1: link.y + move.dy * 14,
        x2: x + dx * (14 + ARROW_PX),
        y2: link.y + move.dy * (14 + ARROW_PX),
      },
    ]
  }),
)
</script>

<template>
  <g class="chain" data-testid="chain">
    <defs>
      <marker
        id="tip"
        viewBox="0 0 10 10"
        refX="8"
        refY="5"
        markerWidth="4.2"
        markerHeight="4.2"
        orient="auto-start-reverse"
      >
        <path class="tip" d="M0 0L10 5L0 10Z" />
      </marker>
    </defs>
    <line v-if="path" class="way" v-bind="path" marker-end="url(#tip)" />
    <line v-if="face" class="face" v-bind="face" />
    <line
      v-for="arrow in arrows"
      :key="arrow.key"
      class="arrow"
      :x1="arrow.x1"
      :y1="arrow.y1"
      :x2="arrow.x2"
      :y2="arrow.y2"
      marker-end="url(#tip)"
    />
    <g
      v-for="link in lit"
      :key="link.number"
      :transform="`translate(${mirrored(link.x)} ${link.y})`"
    >
      <circle r="12" />
      <text y="5">{{ link.number }}</text>
    </g>
  </g>
</template>

<style scoped>
.chain {
  pointer-events: none;
}
.tip {
  fill: var(--clay);
}
.way,
.face,
.arrow {
  stroke: var(--clay);
  stroke-width: 4;
  stroke-linecap: round;
}
.face {
  stroke-width: 6;
}
circle {
  fill: var(--clay);
  stroke: var(--paper);
  stroke-width: 2;
}
text {
  fill: var(--surface);
  font-size: var(--text-small);
  font-weight: var(--strong);
  text-anchor: middle;
}
</style>
