<script setup lang="ts">
// The lead foot's share through the swing: the school's corridor, events that can be dragged, signs
// where they happen. The downswing is drawn wider than the rest.
import { computed, ref, useTemplateRef } from 'vue'
import { EVENTS, pathOf, valueAt, type EventName, type Read } from '@/drawing/pressure'
import { inDrawing, keepDrag } from '@/drawing/pointer'
import { useSize } from '@/drawing/size'
import { useSwingTime } from '@/drawing/swingTime'

const props = defineProps<{
  read: Read
  now: number
  under: { t_s: number[]; lead_pct: (number | null)[]; sd_pct?: number[]; word: string } | null
  footWords: { lead: string; trail: string }
}>()
const emit = defineEmits<{ moved: [event: EventName, t: number]; scrubbed: [t: number] }>()

const LEFT = 46
const RIGHT = 12
const TOP = 46
const BELOW = 22
const LETTER_WIDTH = 7.4
const ROW = 19
const NUDGE_S = 0.005
const LEAST_APART_S = 0.005
const NAMES: Record<EventName, string> = {
  address: 'Address',
  shaft_level_back: 'Shaft level',
  lead_arm_level_back: 'Arm level',
  top: 'Top',
  lead_arm_level_down: 'Arm level',
  shaft_level_down: 'Shaft level',
  impact: 'Impact',
  finish: 'Finish',
}
const SECOND_ROW = new Set<EventName>(['lead_arm_level_back', 'shaft_level_down', 'finish'])

const svg = useTemplateRef<SVGSVGElement>('svg')
const size = useSize(svg, { width: 560, height: 320 })
const dragged = ref<{ name: EventName; t: number } | null>(null)
const scrubbing = ref(false)

const { x, tAt, from: start, to: end } = useSwingTime(() => props.read.events, size, LEFT, RIGHT)
const floor = computed(() => size.value.height - BELOW)
const y = (pct: number) => floor.value - (pct / 100) * (floor.value - TOP)
const drawn = (values: (number | null)[], t = props.read.curve.t_s) =>
  pathOf(t, values, x, y, start.value, end.value)

const events = computed(() =>
  EVENTS.map((name) => {
    const event = props.read.events[name]
    const t = dragged.value?.name === name ? dragged.value.t : event.t_s
    return { name, t, how: event.how, sd: event.sd_s, word: NAMES[name] }
  }),
)
/** The corridor from event to event. */
const corridor = computed(() => {
  const within = events.value.flatMap(({ name, t }) => {
    const ends = props.read.corridor[name]
    return ends ? [{ x: x(t), low: y(ends.low), high: y(ends.high) }] : []
  })
  const up = within.map((p) => `${p.x.toFixed(1)} ${p.high.toFixed(1)}`)
  const down = [...within].reverse().map((p) => `${p.x.toFixed(1)} ${p.low.toFixed(1)}`)
  return `M${[...up, ...down].join('L')}Z`
})
const spread = computed(() => {
  const under = props.under
  if (!under?.sd_pct) return ''
  const edge = (sign: number) =>
    under.t_s.map((_, i) => (under.lead_pct[i] ?? 0) + sign * (under.sd_pct?.[i] ?? 0))
  const up = pathOf(under.t_s, edge(1), x, y, start.value, end.value)
  const back = pathOf(
    [...under.t_s].reverse(),
    edge(-1).reverse(),
    x,
    y,
    start.value,
    end.value,
  ).replace(/^M/, 'L')
  return up === '' ? '' : `${up}${back}Z`
})
const signs = computed(() => {
  const there = props.read.signs.filter((s) => s.there && s.id !== 'messy')
  const taken: { left: number; right: number; y: number }[] = []
  return there.map((sign) => {
    const at = x(sign.t_s)
    const share = y(valueAt(props.read.curve, props.read.curve.lead_pct, sign.t_s) ?? 50)
    const wide = LETTER_WIDTH * sign.words.length
    const most = size.value.width - RIGHT - wide
    const left = Math.max(LEFT + 4, Math.min(at > most ? at - wide - 10 : at + 10, most))
    const right = left + wide
    // the nearest row above or below its place where no other sign's words stand
    const free = (row: number) =>
      row > TOP + 16 &&
      row < floor.value - 6 &&
      taken.every((t) => t.right < left || right < t.left || Math.abs(t.y - row) >= ROW)
    const rows = Array.from({ length: 20 }, (_, i) => [share - 14 - ROW * i, share + 26 + ROW * i])
    const labelY = rows.flat().find(free) ?? share - 14
    taken.push({ left, right, y: labelY })
    return { ...sign, x: at, y: share, labelX: left, labelY }
  })
})
const keyLine = computed(() => {
  const toes = props.read.curve.lead_toe_pct
  const { lead, trail } = props.footWords
  const fine = `fine: ${lead.toLowerCase()} toe, dotted: ${trail.toLowerCase()} toe`
  return [`${lead} foot %`, ...(toes ? [fine] : [])].join(' · ')
})
const ticks = [0, 25, 50, 75, 100]

function grab(event: PointerEvent, name: EventName): void {
  if (event.button !== 0) return
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  dragged.value = { name, t: props.read.events[name].t_s }
}
function drag(event: PointerEvent): void {
  if (svg.value === null || dragged.value === null) return
  const { name } = dragged.value
  dragged.value = { name, t: bounded(name, tAt(inDrawing(event, svg.value).x)) }
}
function drop(): void {
  const last = dragged.value
  dragged.value = null
  if (last && Math.abs(last.t - props.read.events[last.name].t_s) >= 0.001)
    emit('moved', last.name, Math.round(last.t * 1000) / 1000)
}
/** An event stays between its neighbours that are not estimated, and on the trace. */
function bounded(name: EventName, t: number): number {
  const i = EVENTS.indexOf(name)
  const fixed = (n: EventName) => props.read.events[n].how !== 'estimated'
  const before = EVENTS.slice(0, i).filter(fixed).at(-1)
  const after = EVENTS.slice(i + 1).find(fixed)
  const times = props.read.curve.t_s
  const low = before ? props.read.events[before].t_s + LEAST_APART_S : (times[0] ?? t)
  const high = after ? props.read.events[after].t_s - LEAST_APART_S : (times.at(-1) ?? t)
  return Math.min(Math.max(t, low), high)
}
function nudge(event: KeyboardEvent, name: EventName): void {
  const by = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0
  if (by === 0) return
  event.preventDefault()
  event.stopPropagation()
  const t = bounded(name, props.read.events[name].t_s + by * NUDGE_S)
  emit('moved', name, Math.round(t * 1000) / 1000)
}
function scrub(event: PointerEvent, begin = false): void {
  if (svg.value === null || event.button > 0) return
  if (begin) {
    scrubbing.value = true
    svg.value.setPointerCapture(event.pointerId)
  }
  if (!scrubbing.value) return
  const t = tAt(inDrawing(event, svg.value).x)
  emit('scrubbed', Math.min(Math.max(t, start.value), end.value))
}
</script>

<template>
  <svg
    ref="svg"
    class="curve"
    :viewBox="`0 0 ${size.width} ${size.height}`"
    role="group"
    aria-label="Share of the lead foot through the swing"
    data-testid="pressure-curve"
    @pointerdown="(e) => scrub(e, true)"
    @pointermove="(e) => scrub(e)"
    @pointerup="scrubbing = false"
    @pointercancel="scrubbing = false"
    @touchmove="keepDrag"
  >
    <rect
      :x="LEFT"
      :y="TOP"
      :width="size.width - LEFT - RIGHT"
      :height="floor - TOP"
      class="field"
    />
    <g v-for="tick in ticks" :key="tick">
      <line class="grid" :x1="LEFT" :x2="size.width - RIGHT" :y1="y(tick)" :y2="y(tick)" />
      <text class="end quiet" :x="LEFT - 6" :y="y(tick) + 5">{{ tick }}</text>
    </g>
    <path class="corridor" :d="corridor" data-testid="corridor" />
    <path v-if="spread" class="spread" :d="spread" />
    <path
      v-if="read.curve.lead_toe_pct"
      class="fine lead-toe"
      :d="drawn(read.curve.lead_toe_pct)"
    />
    <path
      v-if="read.curve.trail_toe_pct"
      class="fine trail-toe"
      :d="drawn(read.curve.trail_toe_pct)"
    />
    <path v-if="under" class="under" :d="drawn(under.lead_pct, under.t_s)" data-testid="under" />
    <path class="lead" :d="drawn(read.curve.lead_pct)" data-testid="lead-curve" />
    <g v-for="event in events" :key="event.name" :class="['event', event.how]">
      <rect
        v-if="event.how === 'estimated'"
        class="doubt"
        :x="x(event.t - event.sd)"
        :width="Math.max(0, x(event.t + event.sd) - x(event.t - event.sd))"
        :y="TOP"
        height="5"
      />
      <line class="at" :x1="x(event.t)" :x2="x(event.t)" :y1="TOP" :y2="floor" />
      <text
        :class="event.name === 'finish' ? 'end' : 'middle'"
        :x="event.name === 'finish' ? size.width - 2 : x(event.t)"
        :y="SECOND_ROW.has(event.name) ? 34 : 16"
      >
        {{ event.how === 'estimated' ? '≈ ' : '' }}{{ event.word }}
      </text>
      <rect
        class="handle"
        :x="x(event.t) - 12"
        width="24"
        :y="TOP"
        :height="floor - TOP"
        tabindex="0"
        role="slider"
        :aria-label="`${event.word}, ${event.how}`"
        :aria-valuenow="event.t"
        :aria-valuemin="start"
        :aria-valuemax="end"
        :aria-valuetext="`${event.t.toFixed(2)} seconds`"
        :data-testid="`event-${event.name}`"
        @pointerdown.stop="(e) => grab(e, event.name)"
        @pointermove.stop="drag"
        @pointerup.stop="drop"
        @pointercancel="dragged = null"
        @keydown="(e) => nudge(e, event.name)"
      />
    </g>
    <line class="now" :x1="x(now)" :x2="x(now)" :y1="TOP - 4" :y2="floor + 6" data-testid="now" />
    <g v-for="sign in signs" :key="sign.id" class="sign">
      <circle :cx="sign.x" :cy="sign.y" r="6" />
      <text :x="sign.labelX" :y="sign.labelY">{{ sign.words }}</text>
    </g>
    <text :x="LEFT" :y="size.height - 4" class="quiet key-line">
      {{ keyLine }}
    </text>
    <text v-if="dragged" class="end" :x="size.width - RIGHT" :y="size.height - 4">
      {{ dragged.t.toFixed(3) }} s
    </text>
  </svg>
</template>

<style scoped>
.curve {
  display: block;
  width: 100%;
  height: 100%;
  touch-action: none;
}
.field {
  fill: var(--surface);
  stroke: var(--line);
}
.grid {
  stroke: var(--line);
  stroke-opacity: 0.35;
}
.corridor {
  fill: var(--turf);
  stroke: var(--line);
  stroke-width: 1;
}
.spread {
  fill: var(--slate);
  fill-opacity: 0.16;
}
.lead {
  fill: none;
  stroke: var(--ink);
  stroke-width: 3.5;
  stroke-linejoin: round;
}
.under {
  fill: none;
  stroke: var(--slate);
  stroke-width: 2;
  stroke-dasharray: 7 5;
}
.fine {
  fill: none;
  stroke: var(--quiet);
  stroke-width: 1.2;
}
.trail-toe {
  stroke-dasharray: 2 3;
}
.event text {
  font-size: var(--text-small);
}
.at {
  stroke: var(--ink);
  stroke-width: 1.2;
}
.estimated .at {
  stroke-dasharray: 3 4;
}
.doubt {
  fill: var(--line);
  fill-opacity: 0.6;
}
.handle {
  fill: transparent;
  cursor: ew-resize;
}
.now {
  stroke: var(--slate);
  stroke-width: 3;
  pointer-events: none;
}
.sign circle {
  fill: var(--surface);
  stroke: var(--ink);
  stroke-width: 2.5;
}
.sign text {
  font-size: var(--text-small);
  font-weight: var(--strong);
  paint-order: stroke;
  stroke: var(--surface);
  stroke-width: 5px;
}
.sign {
  pointer-events: none;
}
.middle {
  text-anchor: middle;
}
.end {
  text-anchor: end;
}
.key-line {
  font-size: var(--text-small);
}
</style>
