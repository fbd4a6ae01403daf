<script setup lang="ts">
// The club at the ball: from above its path and face, from the side its angle of attack. The wedge is
// where each lies four times in five; thin strokes are a chosen ball.
import { computed } from 'vue'
import type { Handedness } from '@/api/client'
import { LIKELY, type Doubtful } from '@/drawing/marks'
import { pushSign } from '@/ui/frame'
import { signed } from '@/ui/units'
import { sideDegrees } from '@/ui/words'

const props = defineProps<{
  hand: Handedness
  path: Doubtful | null
  face: Doubtful | null
  attack: Doubtful | null
  chosen: { path: number; face: number; attack: number } | null
}>()

const WIDTH = 330
const HEIGHT = 150
const BALL = { x: 92, y: 66 }
const SIDE = { x: 252, y: 64 }
const WIDER = 3
const sign = computed(() => pushSign(props.hand))

/** A point this far from the ball at a bearing from the target line, which is up. */
function above(deg: number, far: number): string {
  const angle = (deg * sign.value * WIDER * Math.PI) / 180
  return `${(BALL.x + far * Math.sin(angle)).toFixed(1)} ${(BALL.y - far * Math.cos(angle)).toFixed(1)}`
}
function wedge(d: Doubtful, far: number, turn = 0): string {
  const half = LIKELY * d.se
  const [a, b] = [d.value - half + turn, d.value + half + turn]
  return `M${BALL.x} ${BALL.y}L${above(a, far)}L${above(b, far)}Z`
}
/** The face stands across: its line at a right angle, drawn as wide as its bearing. */
function across(deg: number, half: number): string {
  const angle = (deg * sign.value * WIDER * Math.PI) / 180
  const dx = half * Math.cos(angle)
  const dy = half * Math.sin(angle)
  return `M${(BALL.x - dx).toFixed(1)} ${(BALL.y - dy).toFixed(1)}L${(BALL.x + dx).toFixed(1)} ${(BALL.y + dy).toFixed(1)}`
}
function acrossWedge(d: Doubtful): string {
  const half = LIKELY * d.se
  const ends = [d.value - half, d.value + half].map((deg) => {
    const angle = (deg * sign.value * WIDER * Math.PI) / 180
    return { dx: 46 * Math.cos(angle), dy: 46 * Math.sin(angle) }
  })
  const [a, b] = ends as [{ dx: number; dy: number }, { dx: number; dy: number }]
  const at = (dx: number, dy: number) => `${(BALL.x + dx).toFixed(1)} ${(BALL.y + dy).toFixed(1)}`
  return `M${BALL.x} ${BALL.y}L${at(a.dx, a.dy)}L${at(b.dx, b.dy)}ZM${BALL.x} ${BALL.y}L${at(-a.dx, -a.dy)}L${at(-b.dx, -b.dy)}Z`
}
function down(deg: number, far: number): string {
  const angle = (deg * WIDER * Math.PI) / 180
  return `${(SIDE.x + far * Math.cos(angle)).toFixed(1)} ${(SIDE.y - far * Math.sin(angle)).toFixed(1)}`
}
function attackWedge(d: Doubtful): string {
  const half = LIKELY * d.se
  return `M${SIDE.x} ${SIDE.y}L${down(d.value - half, -64)}L${down(d.value + half, -64)}Z`
}
</script>

<template>
  <svg
    class="delivery"
    :viewBox="`0 0 ${WIDTH} ${HEIGHT}`"
    role="img"
    aria-label="Delivery: path, face and attack at the ball"
    data-testid="delivery"
  >
    <line class="target" :x1="BALL.x" y1="4" :x2="BALL.x" y2="118" />
    <g v-if="path">
      <path class="doubt" :d="wedge(path, 60)" />
      <path class="doubt" :d="wedge(path, -52)" />
      <path class="path" :d="`M${above(path.value, -52)}L${above(path.value, 60)}`" />
    </g>
    <g v-if="face">
      <path class="doubt face-doubt" :d="acrossWedge(face)" />
      <path class="face" :d="across(face.value, 46)" />
    </g>
    <g v-if="chosen" class="chosen">
      <path v-if="path" :d="`M${above(chosen.path, -52)}L${above(chosen.path, 60)}`" />
      <path v-if="face" :d="across(chosen.face, 46)" />
      <path v-if="attack" :d="`M${down(chosen.attack, -64)}L${down(chosen.attack, 40)}`" />
    </g>
    <circle class="ball" :cx="BALL.x" :cy="BALL.y" r="7" />
    <text x="2" y="134" data-testid="path-says">
      path
      <tspan class="value">{{ path ? sideDegrees(path, hand) : 'not known' }}</tspan>
    </text>
    <text x="2" y="149" data-testid="face-says">
      face
      <tspan class="value">{{ face ? sideDegrees(face, hand) : 'not known' }}</tspan>
    </text>
    <line class="target" :x1="SIDE.x - 66" :x2="SIDE.x + 66" :y1="SIDE.y + 8" :y2="SIDE.y + 8" />
    <g v-if="attack">
      <path class="doubt" :d="attackWedge(attack)" />
      <path class="path" :d="`M${down(attack.value, -64)}L${down(attack.value, 40)}`" />
    </g>
    <circle class="ball" :cx="SIDE.x" :cy="SIDE.y" r="7" />
    <text x="186" y="134" data-testid="attack-says">
      attack
      <tspan class="value">
        {{ attack ? `${signed(attack.value, 1)}° ± ${attack.se.toFixed(1)}` : 'not known' }}
      </tspan>
    </text>
  </svg>
</template>

<style scoped>
.delivery {
  display: block;
  width: 100%;
  height: 100%;
}
.target {
  stroke: var(--ink);
  stroke-opacity: 0.5;
  stroke-dasharray: 5 6;
}
.doubt {
  fill: var(--slate);
  fill-opacity: 0.24;
}
.path {
  stroke: var(--ink);
  stroke-width: 4;
  stroke-linecap: round;
}
.face {
  stroke: var(--ink);
  stroke-width: 7;
}
.chosen path {
  stroke: var(--slate);
  stroke-width: 2;
}
.ball {
  fill: var(--surface);
  stroke: var(--ink);
  stroke-width: 2;
}
text {
  font-size: var(--text-small);
}
.value {
  font-weight: var(--strong);
}
</style>
