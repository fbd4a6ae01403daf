<script setup lang="ts">
// The range from above: press where the ball started, let go where it came down. The landing of a
// chosen ball can be dragged. While balls are read, a touch chooses the nearest one. By keyboard:
// arrows left and right aim the start, with Shift the landing, up and down the carry; Enter logs it.
import { computed, ref, useTemplateRef } from 'vue'
import type { Handedness, LoggedShot } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import { flightOf, nearest, type FlightMark, type Touch } from '@/drawing/marks'
import { inDrawing, keepDrag, pageMoves, Swipe } from '@/drawing/pointer'
import {
  arcPath,
  ballAt,
  flightPath,
  fromPoint,
  RING_DEG,
  ringsFor,
  toPoint,
  trackPath,
  type Point,
  type Range,
  type Track,
} from '@/drawing/range'
import { useSize } from '@/drawing/size'
import { pushSign } from '@/ui/frame'
import type { DistanceUnit } from '@/ui/settings'
import { fromMetres, toMetres } from '@/ui/units'

const known = useKnowledge()
const props = defineProps<{
  hand: Handedness
  shots: LoggedShot[]
  newest: string | null
  changing: string | null
  expectedM: number
  unit: DistanceUnit
  way: { start_deg: number; curve_deg: number } | null
  predicted: FlightMark | null
  reading: boolean
  /** On a phone: a quick swipe straight up or down that begins in the upper half scrolls the page. */
  scrollsAbove?: boolean
  /** Balls of the lesson before, laid under. */
  under?: readonly LoggedShot[]
  tracks: ReadonlyMap<string, Track>
  wild: ReadonlySet<string>
}>()
const emit = defineEmits<{
  chosen: [id: string]
  touched: [flight: Touch]
}>()

const TAP_PX = 14
const NEAR_PX = 40
const HANDLE_PX = 28
const svg = useTemplateRef<SVGSVGElement>('svg')
const pressed = ref<Point | null>(null)
const dragged = ref<Point | null>(null)

const sign = computed(() => pushSign(props.hand))
const flights = computed(() =>
  props.shots.flatMap((shot) => {
    const mark = flightOf(shot, known.all.noting)
    return mark ? [{ id: shot.id, ...mark, track: props.tracks.get(shot.id) ?? null }] : []
  }),
)
const before = computed(() =>
  (props.under ?? []).flatMap((shot) => flightOf(shot, known.all.noting) ?? []),
)
/** How far beyond the expected carry the range reaches; farther balls are drawn at its rim. */
const BEYOND = 1.25
const ROUND = 5
const size = useSize(svg, { width: 780, height: 300 })
// fixed while balls are hit: what one place of the range means must not depend on the balls
const range = computed<Range>(() => ({ ...size.value, reachM: props.expectedM * BEYOND }))
const ball = computed(() => ballAt(range.value))
const rings = computed(() =>
  ringsFor(fromMetres(range.value.reachM, props.unit)).map((d) => ({
    label: `${String(d)} ${props.unit}`,
    metres: toMetres(d, props.unit),
  })),
)
const zones = computed(() =>
  [-9, -4, 4, 9].map((deg) => {
    const { x, y } = toPoint(deg, range.value.reachM * 1.09, range.value)
    return { deg, x: Math.max(HALF_WORD_PX, Math.min(range.value.width - HALF_WORD_PX, x)), y }
  }),
)
/** Half of the longest of these words: on a narrow range they stand inside its edge. */
const HALF_WORD_PX = 30
const ZONE_WORDS = ['far left', 'left', 'right', 'far right']
const edges = computed(() =>
  [-6, -2, 2, 6].map((deg) => toPoint(deg, range.value.reachM * 1.04, range.value)),
)

/** A ball past the rim is drawn at it. */
function drawnCarry(carryM: number | null): number {
  return Math.min(carryM ?? props.expectedM, range.value.reachM)
}
function isBeyond(carryM: number | null): boolean {
  return carryM !== null && carryM > range.value.reachM
}
function inUnit(metres: number): string {
  return `${fromMetres(metres, props.unit).toFixed(0)} ${props.unit}`
}
/** What a touch can tell: whole fives of the unit that is read, no farther than the rim. */
function roundedM(metres: number): number {
  const most = range.value.reachM
  const fives = Math.round(fromMetres(Math.min(metres, most), props.unit) / ROUND) * ROUND
  return toMetres(Math.max(ROUND, fives), props.unit)
}
function path(flight: {
  startDeg: number
  curveDeg: number | null
  carryM: number | null
}): string {
  const carry = drawnCarry(flight.carryM)
  return flightPath(
    flight.startDeg * sign.value,
    (flight.curveDeg ?? 0) * sign.value,
    carry,
    range.value,
  )
}
function end(flight: { startDeg: number; curveDeg: number | null; carryM: number | null }): Point {
  const carry = drawnCarry(flight.carryM)
  return toPoint((flight.startDeg + (flight.curveDeg ?? 0)) * sign.value, carry, range.value)
}
const wayPath = computed(() =>
  props.way
    ? flightPath(
        props.way.start_deg * sign.value,
        props.way.curve_deg * sign.value,
        props.expectedM,
        range.value,
      )
    : null,
)

function press(event: PointerEvent): void {
  if (svg.value === null || event.button !== 0 || pageMoves()) return
  if (props.reading) {
    choose(inDrawing(event, svg.value))
    return
  }
  svg.value.setPointerCapture(event.pointerId)
  const at = inDrawing(event, svg.value)
  const moving = landingAt(at)
  pressed.value = moving ?? at
  dragged.value = at
  const above = at.y < size.value.height / 2
  swipe = props.scrollsAbove && above && moving === null ? new Swipe(event) : null
}
/** What may yet turn out to be a swipe of the page; null: it is the drawing's. */
let swipe: Swipe | null = null
/** Pressed on the landing of the ball that is changed: its flight is held by its start. */
function landingAt(at: Point): Point | null {
  const flight = flights.value.find((f) => f.id === props.changing)
  if (flight?.curveDeg == null) return null
  const { x, y } = end(flight)
  if (Math.hypot(x - at.x, y - at.y) > HANDLE_PX) return null
  return toPoint(flight.startDeg * sign.value, drawnCarry(flight.carryM), range.value)
}
/** The ball whose landing is nearest to the touch. */
function choose(at: Point): void {
  const ends = flights.value.map((f) => ({ id: f.id, ...end(f) }))
  const id = nearest(ends, at, NEAR_PX)
  if (id !== null) emit('chosen', id)
}
function drag(event: PointerEvent): void {
  if (swipe?.moves(event)) {
    cancel()
    return
  }
  if (pressed.value !== null && svg.value !== null) dragged.value = inDrawing(event, svg.value)
}
function release(event: PointerEvent): void {
  if (swipe?.moves(event)) cancel()
  swipe = null
  if (pressed.value === null || svg.value === null) return
  const start = fromPoint(pressed.value, range.value)
  const at = inDrawing(event, svg.value)
  const landing = fromPoint(at, range.value)
  const moved = Math.hypot(at.x - pressed.value.x, at.y - pressed.value.y) > TAP_PX
  const startDeg = clamp(start.bearingDeg) * sign.value
  emit('touched', {
    startDeg,
    curveDeg: moved ? clamp(landing.bearingDeg) * sign.value - startDeg : null,
    carryM: moved ? roundedM(landing.carryM) : null,
    tapM: moved ? null : roundedM(landing.carryM),
  })
  cancel()
}
function cancelled(): void {
  swipe = null
  cancel()
}
function cancel(): void {
  pressed.value = null
  dragged.value = null
}
function clamp(deg: number): number {
  return Math.max(-WIDEST_DEG, Math.min(WIDEST_DEG, deg))
}
/** Keys stay the lesson's after a press on the range; a field that was typed into is left. */
function letGoOfField(): void {
  const typed = document.activeElement
  if (typed instanceof HTMLElement || typed instanceof SVGElement) typed.blur()
}
/** A ball being aimed by keyboard, on real sides. */
const aim = ref<{ start: number; landing: number; carryM: number } | null>(null)
const TURN_DEG = 2
const WIDEST_DEG = 40
function aimed(event: KeyboardEvent): void {
  if (event.ctrlKey || event.metaKey || event.altKey) return
  const from = aim.value ?? { start: 0, landing: 0, carryM: roundedM(props.expectedM) }
  const aside = { ArrowLeft: -TURN_DEG, ArrowRight: TURN_DEG }[event.key]
  const along = { ArrowUp: ROUND, ArrowDown: -ROUND }[event.key]
  if (event.key === 'Enter' && aim.value) logAimed(aim.value)
  else if (event.key === 'Escape' && aim.value) aim.value = null
  else if (props.reading && aside) chooseBeside(Math.sign(aside))
  else if (props.reading) return
  else if (along)
    aim.value = { ...from, carryM: roundedM(from.carryM + toMetres(along, props.unit)) }
  else if (aside && event.shiftKey) aim.value = { ...from, landing: clamp(from.landing + aside) }
  else if (aside)
    // the landing goes with the start until it is aimed by itself
    aim.value = {
      ...from,
      start: clamp(from.start + aside),
      landing: clamp(from.landing + aside),
    }
  else return
  event.preventDefault()
  event.stopPropagation()
}
function logAimed({ start, landing, carryM }: NonNullable<typeof aim.value>): void {
  aim.value = null
  const curveDeg = (landing - start) * sign.value
  emit('touched', { startDeg: start * sign.value, curveDeg, carryM, tapM: null })
}
function chooseBeside(by: number): void {
  const at = flights.value.findIndex((f) => f.id === props.newest)
  const next = flights.value[Math.max(0, Math.min(flights.value.length - 1, at + by))]
  if (next) emit('chosen', next.id)
}
/** The ball that is aimed, else the newest, on real sides. */
const now = computed(() => {
  if (aim.value) return aim.value
  const last = flights.value.find((f) => f.id === props.newest) ?? flights.value.at(-1)
  if (!last) return null
  const start = last.startDeg * sign.value
  const landing = last.curveDeg === null ? null : start + last.curveDeg * sign.value
  return { start, landing, carryM: last.carryM }
})
const nowInWords = computed(() => {
  const balls = flights.value.length
  const so = balls === 1 ? '1 ball' : `${String(balls)} balls`
  if (now.value === null) return so
  const { start, landing, carryM } = now.value
  const carry = carryM === null ? '' : `, ${inUnit(carryM)}`
  const ends = landing === null ? '' : `, ends ${bearing(landing)}`
  return `${so}. ${aim.value ? 'Aimed' : 'The last'}: starts ${bearing(start)}${ends}${carry}`
})
function bearing(deg: number): string {
  const size = Math.round(Math.abs(deg))
  return size === 0 ? 'straight' : `${String(size)}° ${deg < 0 ? 'left' : 'right'}`
}

const draft = computed(() => {
  if (aim.value) {
    const { start, landing, carryM } = aim.value
    return flightPath(start, landing - start, carryM, range.value)
  }
  if (pressed.value === null || dragged.value === null) return null
  const start = fromPoint(pressed.value, range.value)
  const landing = fromPoint(dragged.value, range.value)
  return flightPath(
    start.bearingDeg,
    landing.bearingDeg - start.bearingDeg,
    landing.carryM,
    range.value,
  )
})
</script>

<template>
  <svg
    ref="svg"
    :class="['range', { reading }]"
    :viewBox="`0 0 ${size.width} ${size.height}`"
    role="slider"
    tabindex="0"
    aria-label="Range: where the ball starts and lands"
    :aria-valuemin="-WIDEST_DEG"
    :aria-valuemax="WIDEST_DEG"
    :aria-valuenow="Math.round(now?.start ?? 0)"
    :aria-valuetext="nowInWords"
    data-testid="range"
    @mousedown.prevent="letGoOfField"
    @keydown="aimed"
    @blur="aim = null"
    @pointerdown="press"
    @pointermove="drag"
    @pointerup="release"
    @pointercancel="cancelled"
    @touchmove="keepDrag"
  >
    <line
      v-for="(p, i) in edges"
      :key="i"
      class="edge"
      :x1="ball.x"
      :y1="ball.y"
      :x2="p.x"
      :y2="p.y"
    />
    <g v-for="ring in rings" :key="ring.metres">
      <path class="ring" :d="arcPath(ring.metres, RING_DEG, range)" />
      <text
        class="small label"
        :x="Math.min(toPoint(RING_DEG + 0.5, ring.metres, range).x + 8, size.width - 52)"
        :y="toPoint(RING_DEG + 0.5, ring.metres, range).y + 4"
      >
        {{ ring.label }}
      </text>
    </g>
    <line class="target" :x1="ball.x" :y1="ball.y" :x2="ball.x" y2="24" />
    <path class="flag" :d="`M${ball.x} 28V6l18 6-18 6`" />
    <text v-for="(zone, i) in zones" :key="zone.deg" class="small zone" :x="zone.x" :y="zone.y">
      {{ ZONE_WORDS[i] }}
    </text>
    <path v-if="wayPath" class="way" :d="wayPath" data-testid="ball-way" />
    <g v-if="before.length" class="before" data-testid="range-before">
      <circle
        v-for="(flight, i) in before"
        :key="i"
        :cx="end(flight).x"
        :cy="end(flight).y"
        r="6"
      />
    </g>
    <g
      v-for="flight in flights"
      :key="flight.id"
      :class="['flight', { newest: flight.id === newest, wild: wild.has(flight.id) }]"
    >
      <path
        :class="{ guessed: flight.curveDeg === null }"
        :d="flight.track ? trackPath(flight.track, flight, sign, range) : path(flight)"
      />
      <circle
        v-if="flight.curveDeg !== null"
        :cx="end(flight).x"
        :cy="end(flight).y"
        :r="flight.id === newest ? 8 : 4.5"
      />
      <circle
        v-if="flight.curveDeg !== null && flight.id === changing"
        class="handle"
        :cx="end(flight).x"
        :cy="end(flight).y"
        r="18"
      />
      <text
        v-if="isBeyond(flight.carryM)"
        class="small beyond"
        :x="end(flight).x"
        :y="end(flight).y + 24"
      >
        past the net, {{ inUnit(flight.carryM ?? 0) }}
      </text>
    </g>
    <g v-if="predicted" class="predicted" data-testid="predicted-flight">
      <path :d="path(predicted)" />
      <circle :cx="end(predicted).x" :cy="end(predicted).y" r="9" />
    </g>
    <path v-if="draft" class="draft" :d="draft" />
    <circle class="ball" :cx="ball.x" :cy="ball.y" r="5" />
  </svg>
</template>

<style scoped>
.range {
  display: block;
  width: 100%;
  height: 100%;
  touch-action: none;
  cursor: crosshair;
}
.range.reading {
  cursor: pointer;
}
.edge {
  stroke: var(--line);
  stroke-opacity: 0.35;
}
.ring {
  fill: none;
  stroke: var(--line);
  stroke-width: 1.5;
}
.target {
  stroke: var(--ink);
  stroke-width: 2;
  stroke-dasharray: 7 7;
}
.flag {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 2;
}
.small {
  font-size: var(--text-small);
}
.zone,
.beyond {
  text-anchor: middle;
}
.flight path {
  fill: none;
  stroke: var(--ink);
  stroke-opacity: 0.4;
  stroke-width: 2;
}
.flight path.guessed {
  stroke-dasharray: 3 5;
}
.flight circle {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 2;
}
.flight.newest path {
  stroke-opacity: 1;
  stroke-width: 5;
}
.flight.newest circle {
  fill: var(--ink);
}
.flight.newest .handle {
  fill: transparent;
  stroke: var(--slate);
  stroke-width: 3;
}
.flight.wild circle {
  stroke-dasharray: 2 2.5;
}
.way {
  fill: none;
  stroke: var(--clay);
  stroke-width: 10;
  stroke-opacity: 0.45;
  stroke-linecap: round;
}
.predicted path,
.predicted circle {
  fill: none;
  stroke: var(--slate);
  stroke-width: 4;
  stroke-dasharray: 10 6;
}
.draft {
  fill: none;
  stroke: var(--ink);
  stroke-width: 3;
  stroke-dasharray: 6 6;
}
.ball {
  fill: var(--surface);
  stroke: var(--ink);
  stroke-width: 2;
}
.before circle {
  fill: none;
  stroke: var(--line);
  stroke-width: 1.5;
  stroke-dasharray: 2 2;
}
</style>
