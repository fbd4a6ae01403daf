<script setup lang="ts">
// One picture of the film, with the marks that belong to it; a touch says where, in its pixels.
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
  /** How fast the file plays; null: it stands. */
  rate: number | null
}>()
const emit = defineEmits<{
  touched: [place: Place]
  moved: [point: Wanted, place: Place]
  at: [frame: number]
  ended: []
}>()

const shownFrame = useTemplateRef<InstanceType<typeof FilmFrame>>('shownFrame')
const drawing = useTemplateRef<SVGSVGElement>('drawing')

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

/** Where the finger is, for the lens. */
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

function press(event: PointerEvent): void {
  const place = placeOf(event)
  const scale = drawing.value?.getScreenCTM()?.a ?? 1
  if (!place || !event.isPrimary || !isThere()) return
  drawing.value?.setPointerCapture(event.pointerId)
  const held = nearest(props.points, place, HOLD_PX / scale)
  down.value = { x: event.clientX, y: event.clientY, held }
  if (held || props.asking !== null) point(event)
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
  if (moving.value) emit('moved', moving.value.at, moving.value.place)
  else if (down.value && place && props.asking !== null) emit('touched', place)
  letGo()
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
  const at = cross.value ?? [width / 2, height / 2]
  const way = WAYS[event.key]
  if (way) {
    const far = event.shiftKey ? STEP_PX : LEAP_PX
    const kept = (value: number, most: number) => Math.min(most, Math.max(0, value))
    cross.value = [kept(at[0] + far * way[0], width), kept(at[1] + far * way[1], height)]
  } else if (event.key === 'Enter' && cross.value && isThere()) {
    emit('touched', mirrored(cross.value, width, props.hand))
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
defineExpose({ video: () => shownFrame.value?.video ?? null })
const isMoving = (p: Wanted) =>
  moving.value?.at.point === p.point && moving.value.at.event === p.event
const standing = computed(() =>
  props.points.map((p) => (isMoving(p) && moving.value ? { ...p, place: moving.value.place } : p)),
)
const path = (places: readonly Place[]) => places.map((p) => shown(p).join(' ')).join(' L ')
const shown = (place: Place) => mirrored(place, props.film.width, props.hand)
const line = (pair: readonly [Place, Place]) => {
  const [[x1, y1], [x2, y2]] = [shown(pair[0]), shown(pair[1])]
  return { x1, y1, x2, y2 }
}
</script>

<template>
  <FilmFrame
    ref="shownFrame"
    class="picture"
    :film="film"
    :frame="frame"
    :rate="rate"
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
      <line v-if="marks.scale" v-bind="line([marks.scale.start, marks.scale.end])" class="scale" />
      <g v-for="(d, i) in drawn" :key="d.id" class="measure">
        <path :d="`M ${path(d.places)}`" />
        <text
          :x="shown(d.places.at(-1)!)[0] + (i % 2 ? -1 : 1) * (film.height / 60)"
          :y="shown(d.places.at(-1)!)[1] + ((i % 3) - 1) * (film.height / 60)"
          :text-anchor="i % 2 ? 'end' : 'start'"
          :font-size="film.height / 36"
        >
          {{ d.text }}
        </text>
      </g>
      <g v-for="p in standing" :key="`${p.point} ${p.event}`" data-testid="film-point">
        <title>{{ p.word }}</title>
        <circle :cx="shown(p.place)[0]" :cy="shown(p.place)[1]" :r="film.height / 130" />
      </g>
      <path
        v-if="cross"
        class="cross"
        data-testid="film-cross"
        :d="`M${cross[0] - 30} ${cross[1]}h60M${cross[0]} ${cross[1] - 30}v60`"
      />
    </svg>
    <FilmLens v-if="pointed" :video="shownFrame?.video ?? null" :at="pointed" />
  </FilmFrame>
</template>

<style scoped>
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
