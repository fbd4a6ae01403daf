<script setup lang="ts">
// Swings on the mat before and after, laid over each other at impact, each with its spread.
import { computed, useTemplateRef } from 'vue'
import type { Shape } from '@/api/client'
import { pathOf, type EventName } from '@/drawing/pressure'
import { useSize } from '@/drawing/size'
import { useSwingTime } from '@/drawing/swingTime'

const props = defineProps<{
  compared: Shape['TracesComparedOut']
  footWords: { lead: string; trail: string }
}>()

const [LEFT, RIGHT, TOP, BELOW] = [36, 10, 20, 22]
const NAMED: readonly [EventName, string][] = [
  ['address', 'Address'],
  ['top', 'Top'],
  ['impact', 'Impact'],
]
const svg = useTemplateRef<SVGSVGElement>('svg')
const size = useSize(svg, { width: 480, height: 220 })
const events = computed(() => {
  const named = Object.entries(props.compared.events).map(([name, t]) => [name, { t_s: t }])
  return Object.fromEntries(named) as Record<EventName, { t_s: number }>
})
const { x, from, to } = useSwingTime(() => events.value, size, LEFT, RIGHT)
const floor = computed(() => size.value.height - BELOW)
const y = (pct: number) => floor.value - (pct / 100) * (floor.value - TOP)
const times = computed(() =>
  (['before', 'after'] as const).map((id) => {
    const laid = props.compared[id]
    const edge = (sign: number) => laid.sd_pct.map((sd, i) => (laid.lead_pct[i] ?? 0) + sign * sd)
    const up = pathOf(laid.t_s, edge(1), x, y, from.value, to.value)
    const down = pathOf([...laid.t_s].reverse(), edge(-1).reverse(), x, y, from.value, to.value)
    return {
      id,
      line: pathOf(laid.t_s, laid.lead_pct, x, y, from.value, to.value),
      spread: up && down ? `${up}${down.replace(/^M/, 'L')}Z` : '',
    }
  }),
)
</script>

<template>
  <svg
    ref="svg"
    class="laid"
    :viewBox="`0 0 ${size.width} ${size.height}`"
    role="img"
    :aria-label="`${footWords.lead} foot's share before and after`"
    data-testid="traces-laid"
  >
    <g v-for="pct in [0, 50, 100]" :key="pct">
      <line class="grid" :x1="LEFT" :x2="size.width - RIGHT" :y1="y(pct)" :y2="y(pct)" />
      <text class="small" :x="4" :y="y(pct) + 4">{{ pct }}</text>
    </g>
    <g v-for="[name, word] in NAMED" :key="name">
      <line
        class="grid"
        :x1="x(compared.events[name] ?? 0)"
        :x2="x(compared.events[name] ?? 0)"
        :y1="TOP"
        :y2="floor"
      />
      <text class="small middle" :x="x(compared.events[name] ?? 0)" :y="size.height - 6">
        {{ word }}
      </text>
    </g>
    <g v-for="t in times" :key="t.id" :class="t.id">
      <path class="spread" :d="t.spread" />
      <path class="line" :d="t.line" />
    </g>
    <text class="small" :x="LEFT + 4" y="13">{{ footWords.lead }} foot %</text>
  </svg>
</template>

<style scoped>
.laid {
  display: block;
  width: 100%;
  height: 100%;
}
.grid {
  stroke: var(--line);
  stroke-opacity: 0.5;
}
.small {
  font-size: var(--text-tiny);
}
.middle {
  text-anchor: middle;
}
.line {
  fill: none;
  stroke-width: 3;
}
.before .line {
  stroke: var(--slate);
  stroke-dasharray: 7 4;
}
.after .line {
  stroke: var(--ink);
}
.spread {
  fill-opacity: 0.14;
}
.before .spread {
  fill: var(--slate);
}
.after .spread {
  fill: var(--ink);
}
</style>
