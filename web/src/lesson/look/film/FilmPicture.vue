<script setup lang="ts">
// One picture of the film, with the marks that belong to it. It comes near to what is asked for; a
// touch says where, in its pixels, and how large it was shown.
import { mdiArrowExpandAll } from '@mdi/js'
import { computed, shallowRef, useTemplateRef, watch } from 'vue'
import type { Handedness } from '@/api/client'
import type { OpenFilm } from '@/lesson/look/film/film'
import FilmFrame from '@/lesson/look/film/FilmFrame.vue'
import FilmLens from '@/lesson/look/film/FilmLens.vue'
import {
  mirrored,
  nearest,
  type Drawn,
  type Marks,
  type Place,
  type Wanted,
} from '@/lesson/look/film/marking'
import { usePane } from '@/lesson/look/film/usePane'

const props = defineProps<{
  film: OpenFilm
  frame: number
  marks: Marks
  hand: Handedness
  /** Points of this picture: their names, and where they are, golfer-neutral. */
  points: readonly (Wanted & { word: string; place: Place })[]
  /** Measures of this picture: the places they lie between, and the number. */
  drawn: readonly Drawn[]
  /** What a touch would be; null: a touch is nothing now. */
  asking: string | null
  /** Where that probably is, golfer-neutral; left out: nobody knows. */
  expected?: Place | null
  /** How wide a stretch is shown when the picture comes near, pixels; left out: it never does. */
  stretch?: number
  /** How fast the file plays; null: it stands. */
  rate: number | null
}>()
const emit = defineEmits<{
  touched: [place: Place, zoom: number]
  moved: [point: Wanted, place: Place, zoom: number]
  at: [frame: number]
  ended: []
}>()

const shownFrame = useTemplateRef<InstanceType<typeof FilmFrame>>('shownFrame')
const drawing = useTemplateRef<SVGSVGElement>('drawing')
const pane = useTemplateRef<HTMLElement>('pane')
const { room, near, comeNear, lies, isExact } = usePane(
  pane,
  () => props.film,
  () => props.stretch,
)
watch(
  () => [props.asking, props.frame, props.expected?.join(' ')] as const,
  () => {
    near.value = null
    if (props.asking !== null && props.expected) comeNear(shown(props.expected))
  },
  { immediate: true },
)

/** Where on the picture, golfer-neutral; null beside it. */
function placeOf(event: PointerEvent): Place | null {
  const matrix = drawing.value?.getScreenCTM()
  if (!matrix) return null
  const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse())
  const { width, height } = props.film
  if (at.x < 0 || at.y < 0 || at.x > width || at.y > height) return null
  return mirrored([at.x, at.y], width, props.hand)
}
/** A finger takes hold of a point this far from it, and moves it once it has gone a little way. */
const HOLD_PX = 22
const SLOP_PX = 6
const down = shallowRef<{ x: number; y: number; held: Wanted | null } | null>(null)
const moving = shallowRef<{ at: Wanted; place: Place } | null>(null)

/** Where the finger is, for the lens: in the picture, and in the pane. */
const pointed = shallowRef<{ x: number; y: number; wide: number } | null>(null)
function point(event: PointerEvent): void {
  const box = drawing.value?.getBoundingClientRect()
  if (box) {
    const { left, top, width } = box
    pointed.value = { x: event.clientX - left, y: event.clientY - top, wide: width }
  }
}
/** A touch is for the picture that is asked about, and not for the one before it. */
const isThere = () => props.rate === null && shownFrame.value?.onPage === props.frame
const zoom = () => drawing.value?.getScreenCTM()?.a ?? 1

function press(event: PointerEvent): void {
  const place = placeOf(event)
  if (!place || !event.isPrimary || !isThere()) return
  drawing.value?.setPointerCapture(event.pointerId)
  const held = nearest(props.points, place, HOLD_PX / zoom())
  down.value = { x: event.clientX, y: event.clientY, held }
  if (held || (props.asking !== null && isExact.value)) point(event)
}
function drag(event: PointerEvent): void {
  const from = down.value
  const place = placeOf(event)
  if (pointed.value) point(event)
  if (!from?.held || !place) return
  const gone = Math.hypot(event.clientX - from.x, event.clientY - from.y)
  if (moving.value || gone > SLOP_PX) moving.value = { at: from.held, place }
}
function lift(event: PointerEvent): void {
  const place = placeOf(event)
  if (moving.value) emit('moved', moving.value.at, moving.value.place, zoom())
  else if (down.value && place && props.asking !== null) put(place)
  letGo()
}
/** A touch on a small picture brings it nearer; on a near one it is the point. */
function put(place: Place): void {
  if (isExact.value) emit('touched', place, zoom())
  else comeNear(shown(place))
}
function letGo(): void {
  down.value = null
  moving.value = null
  pointed.value = null
}
/** Without a finger: a cross that arrows move, and Enter puts the point where it is. */
const cross = shallowRef<Place | null>(null)
const STEP_PX = 1
const LEAP_PX = 20
const WAYS: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
}
function keys(event: KeyboardEvent): void {
  if (props.asking === null) return
  const { width, height } = props.film
  const at = cross.value ?? near.value?.place ?? [width / 2, height / 2]
  const way = WAYS[event.key]
  if (way) {
    const far = event.shiftKey ? STEP_PX : LEAP_PX
    const kept = (value: number, most: number) => Math.min(most, Math.max(0, value))
    cross.value = [kept(at[0] + far * way[0], width), kept(at[1] + far * way[1], height)]
  } else if (event.key === 'Enter' && cross.value && isThere()) {
    put(mirrored(cross.value, width, props.hand))
  } else return
  event.preventDefault()
  event.stopPropagation()
}
watch(
  () => props.asking,
  (asked) => {
    if (asked === null) cross.value = null
  },
)
defineExpose({ source: () => shownFrame.value?.source() ?? null })
const isMoving = (p: Wanted) =>
  moving.value?.at.point === p.point && moving.value.at.event === p.event
const standing = computed(() =>
  props.points.map((p) => (isMoving(p) && moving.value ? { ...p, place: moving.value.place } : p)),
)
const path = (places: readonly Place[]) => places.map((p) => shown(p).join(' ')).join(' L ')
function shown(place: Place): Place {
  return mirrored(place, props.film.width, props.hand)
}
const line = (pair: readonly [Place, Place]) => {
  const [[x1, y1], [x2, y2]] = [shown(pair[0]), shown(pair[1])]
  return { x1, y1, x2, y2 }
}
const px = (value: number) => `${value.toFixed(2)}px`
const laid = computed(() => ({
  width: px(props.film.width * lies.value.scale),
  left: px(lies.value.left),
  top: px(lies.value.top),
}))
/** Marks are as large on the page however near the picture is. */
const unit = computed(() => 1 / Math.max(lies.value.scale, 0.01))
</script>

<template>
  <div
    ref="pane"
    class="pane"
    :data-exact="isExact"
    :style="{ '--ratio': film.width / film.height }"
  >
    <FilmFrame
      ref="shownFrame"
      class="picture"
      :style="laid"
      :film="film"
      :frame="frame"
      :rate="rate"
      stepped
      @at="(f) => emit('at', f)"
      @ended="emit('ended')"
    >
      <svg
        ref="drawing"
        :class="{ asking: asking !== null, held: points.length > 0 }"
        :viewBox="`0 0 ${film.width} ${film.height}`"
        :role="asking === null ? 'img' : 'application'"
        :tabindex="asking === null ? undefined : 0"
        :aria-label="
          asking === null
            ? `Picture ${frame + 1} of ${film.frames}`
            : `${asking} Arrows move a cross, with Shift by one pixel; Enter puts the point there.`
        "
        data-testid="film-picture"
        @pointerdown.prevent="press"
        @pointermove="drag"
        @pointerup="lift"
        @pointercancel="letGo"
        @keydown="keys"
      >
        <line v-if="marks.ground" v-bind="line(marks.ground)" class="ground" />
        <line
          v-if="marks.scale"
          v-bind="line([marks.scale.start, marks.scale.end])"
          class="scale"
        />
        <g v-for="(d, i) in drawn" :key="d.id" class="measure">
          <path :d="`M ${path(d.places)}`" />
          <text
            :x="shown(d.places.at(-1)!)[0] + (i % 2 ? -1 : 1) * 12 * unit"
            :y="shown(d.places.at(-1)!)[1] + ((i % 3) - 1) * 14 * unit"
            :text-anchor="i % 2 ? 'end' : 'start'"
            :font-size="17 * unit"
          >
            {{ d.text }}
          </text>
        </g>
        <g v-for="p in standing" :key="`${p.point} ${p.event}`" data-testid="film-point">
          <title>{{ p.word }}</title>
          <circle :cx="shown(p.place)[0]" :cy="shown(p.place)[1]" :r="6 * unit" />
        </g>
        <path
          v-if="cross"
          class="cross"
          data-testid="film-cross"
          :d="`M${cross[0] - 18 * unit} ${cross[1]}h${36 * unit}M${cross[0]} ${cross[1] - 18 * unit}v${36 * unit}`"
        />
      </svg>
    </FilmFrame>
    <FilmLens
      v-if="pointed"
      :source="shownFrame?.source() ?? null"
      :pixels="film.width"
      :at="pointed"
      :lies="lies"
      :room="room"
    />
    <v-btn
      v-if="near"
      class="whole"
      size="small"
      :prepend-icon="mdiArrowExpandAll"
      @click="near = null"
      >Whole picture</v-btn
    >
  </div>
</template>

<style scoped>
.pane {
  position: relative;
  overflow: hidden;
  background: black;
  width: min(100%, calc(var(--ratio) * var(--tall, 60vh)));
  aspect-ratio: var(--ratio);
}
.pane > .picture {
  position: absolute;
}
.whole {
  background: var(--paper);
  position: absolute;
  right: 8px;
  bottom: 8px;
  z-index: 2;
}
svg.asking {
  cursor: crosshair;
}
svg.asking,
svg.held {
  touch-action: none;
}
line {
  stroke: white;
  stroke-width: 2;
  vector-effect: non-scaling-stroke;
}
.scale {
  stroke-dasharray: 6 4;
}
path,
circle {
  fill: none;
  stroke: white;
  stroke-width: 2.5;
  vector-effect: non-scaling-stroke;
  filter: drop-shadow(0 0 2px black);
}
text {
  fill: white;
  paint-order: stroke;
  stroke: black;
  stroke-width: 0.25em;
  dominant-baseline: middle;
}
</style>
