<script setup lang="ts">
// What stands beside the posed figure: sticks, a bottle, pads, an arrow for what moves.
import type { Shape } from '@/api/client'

export type Thing = Shape['Thing']
defineProps<{ things: readonly Thing[] }>()

const HEAD = 7
/** The two strokes of an arrow's head. */
function head(thing: Thing): string {
  const [tx, ty] = [thing.to_x ?? thing.x, thing.to_y ?? thing.y]
  const angle = Math.atan2(ty - thing.y, tx - thing.x)
  const wing = (by: number) =>
    `${(tx - HEAD * Math.cos(angle + by)).toFixed(1)} ${(ty - HEAD * Math.sin(angle + by)).toFixed(1)}`
  return `M${wing(0.5)}L${String(tx)} ${String(ty)}L${wing(-0.5)}`
}
</script>

<template>
  <g v-for="(t, i) in things" :key="i" :class="['thing', t.kind]">
    <template v-if="t.to_x != null">
      <line :x1="t.x" :y1="t.y" :x2="t.to_x ?? 0" :y2="t.to_y ?? 0" />
      <path v-if="t.kind === 'arrow'" :d="head(t)" />
    </template>
    <g v-else :transform="`translate(${t.x} ${t.y}) rotate(${t.tilt})`">
      <path v-if="t.kind === 'bottle'" d="M-4 0V-17Q-4-20-1.5-22V-28H1.5V-22Q4-20 4-17V0Z" />
      <path v-else-if="t.kind === 'chair'" d="M-2-62V0M-2-34H-20V0" />
      <rect v-else-if="t.kind === 'cushion'" x="-38" y="-20" width="76" height="40" rx="16" />
      <rect v-else-if="t.kind === 'pad'" x="-9" y="-13" width="18" height="26" rx="4" />
      <circle v-else-if="t.kind === 'half_ball'" r="9" />
      <ellipse v-else-if="t.kind === 'divot'" rx="6" ry="10" />
      <circle v-else class="ball" r="3.5" />
    </g>
  </g>
</template>

<style scoped>
.thing {
  fill: none;
  stroke: var(--slate);
  stroke-width: 3;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.club {
  stroke: var(--ink);
  stroke-width: 2;
}
.slope,
.line {
  stroke: var(--line);
}
.arrow {
  stroke-width: 2.5;
}
.cushion,
.pad,
.half_ball,
.divot {
  stroke-width: 2;
  stroke-dasharray: 4 3;
}
.ball {
  fill: var(--surface);
  stroke: var(--ink);
  stroke-width: 1.5;
}
</style>
