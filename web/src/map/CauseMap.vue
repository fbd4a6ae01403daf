<script setup lang="ts">
// The picture one would chalk on a wall: what acts when, what brings about what, and which miss it
// makes. A miss lights what makes it, thicker where it makes more; a cause lights its chain.
import { computed } from 'vue'
import type { Shape } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import {
  BALL,
  BOX,
  chainAbout,
  columnX,
  lineBetween,
  missPlaces,
  PHASES,
  placed,
  SIZE,
  type Placed,
} from '@/map/layout'

const props = defineProps<{
  made: readonly Shape['MadeBy'][]
  cause: string | null
  miss: string | null
  found: ReadonlySet<string> | null
  words: (text: string) => string
}>()
const known = useKnowledge()
const emit = defineEmits<{ cause: [id: string]; miss: [id: string] }>()

const causes = computed(() => known.all.causes)
const places = computed(() => placed(causes.value))
const misses = computed(() => missPlaces(known.all.misses.map((m) => m.id)))
const links = computed(() =>
  causes.value.flatMap((c) =>
    (c.upstream_of ?? []).flatMap((to) => {
      const [a, b] = [places.value.get(c.id), places.value.get(to)]
      return a && b ? [{ from: c.id, to, path: lineBetween(a, b, places.value.values()) }] : []
    }),
  ),
)
const makers = computed(() => props.made.find((m) => m.miss === props.miss)?.causes ?? {})
const chain = computed(() => (props.cause ? chainAbout(props.cause, causes.value) : null))
/** What is lit; null: nothing is chosen, all stands alike. */
const lit = computed<ReadonlySet<string> | null>(() => {
  if (chain.value) return chain.value
  if (props.miss) return new Set(Object.keys(makers.value))
  return props.found
})
const strokes = computed(() => {
  const end = props.miss ? misses.value.get(props.miss) : undefined
  if (!end) return []
  return Object.entries(makers.value).flatMap(([id, share]) => {
    const from = places.value.get(id)
    return from
      ? [{ id, path: lineBetween(from, end, places.value.values()), width: 1.5 + 8 * share }]
      : []
  })
})
/** Misses that the chosen cause makes, with how much. */
const makes = computed(
  () =>
    new Map(
      props.made.flatMap((m) => {
        const share = props.cause ? m.causes[props.cause] : undefined
        return share ? [[m.miss, share] as const] : []
      }),
    ),
)
const fromCause = computed(() => {
  const from = props.cause ? places.value.get(props.cause) : undefined
  if (!from) return []
  return [...makes.value].flatMap(([id, share]) => {
    const to = misses.value.get(id)
    return to
      ? [{ id, path: lineBetween(from, to, places.value.values()), width: 1.5 + 8 * share }]
      : []
  })
})
const isLink = (from: string, to: string) => chain.value?.has(from) && chain.value.has(to)
const at = (box: Placed | undefined) => `translate(${box?.x ?? 0} ${box?.y ?? 0})`
/** Of one chosen it is not said again. */
function key(event: KeyboardEvent, act: () => void): void {
  if (event.key !== 'Enter' && event.key !== ' ') return
  event.preventDefault()
  act()
}
</script>

<template>
  <svg
    class="map"
    :viewBox="`0 0 ${SIZE.width} ${SIZE.height}`"
    role="group"
    aria-label="Map of causes, from the set-up to the ball"
    data-testid="cause-map"
  >
    <text v-for="(p, i) in PHASES" :key="p.id" class="phase" :x="columnX(i)" y="26">
      {{ p.word }}
    </text>
    <text class="phase" :x="BALL.x" y="26">Ball</text>
    <path
      v-for="l in links"
      :key="`${l.from}-${l.to}`"
      :class="['link', { lit: isLink(l.from, l.to), dim: lit && !isLink(l.from, l.to) }]"
      :d="l.path"
    />
    <path
      v-for="s in [...strokes, ...fromCause]"
      :key="s.id"
      class="makes"
      :d="s.path"
      :stroke-width="s.width"
    />
    <g
      v-for="c in causes"
      :key="c.id"
      :class="['box', { on: c.id === cause, dim: lit && !lit.has(c.id) }]"
      :transform="at(places.get(c.id))"
      role="button"
      tabindex="0"
      :aria-pressed="c.id === cause"
      :data-cause="c.id"
      @click="emit('cause', c.id)"
      @keydown="(e) => key(e, () => emit('cause', c.id))"
    >
      <rect :width="BOX.width" :height="BOX.height" rx="9" />
      <text :x="12" :y="26">{{ words(c.label) }}</text>
    </g>
    <g
      v-for="m in known.all.misses"
      :key="m.id"
      :class="[
        'box',
        'miss',
        { on: m.id === miss, dim: (miss && m.id !== miss) || (cause && !makes.has(m.id)) },
      ]"
      :transform="at(misses.get(m.id))"
      role="button"
      tabindex="0"
      :aria-pressed="m.id === miss"
      :data-miss="m.id"
      @click="emit('miss', m.id)"
      @keydown="(e) => key(e, () => emit('miss', m.id))"
    >
      <rect :width="BALL.width" :height="BOX.height" rx="20" />
      <text :x="18" :y="26">{{ m.name }}</text>
    </g>
  </svg>
</template>

<style scoped>
.map {
  display: block;
  width: 100%;
  min-width: 860px;
}
.phase {
  font-size: var(--text-lead);
  font-weight: var(--strong);
}
.link {
  fill: none;
  stroke: var(--line);
  stroke-width: 1.5;
}
.link.lit {
  stroke: var(--ink);
  stroke-width: 3;
}
.link.dim {
  stroke-opacity: 0.25;
}
.makes {
  fill: none;
  stroke: var(--clay);
  stroke-opacity: 0.7;
  stroke-linecap: round;
}
.box {
  cursor: pointer;
}
.box rect {
  fill: var(--surface);
  stroke: var(--ink);
  stroke-width: 1.5;
}
.box text {
  font-size: var(--text-body);
}
.box.dim {
  opacity: 0.35;
}
.box.on rect {
  fill: var(--ink);
}
.box.on text {
  fill: var(--surface);
  font-weight: var(--strong);
}
.box:focus-visible {
  outline: none;
}
.box:focus-visible rect {
  stroke: var(--slate);
  stroke-width: 4;
}
</style>
