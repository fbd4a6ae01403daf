<script setup lang="ts">
// One picture of the film, with the marks that belong to it; a touch says where, in its pixels.
import { computed, onMounted, ref, shallowRef, useTemplateRef, watch } from 'vue'
import type { Handedness } from '@/api/client'
import { seek, type OpenFilm } from '@/lesson/look/film/openFilm'
import { mirrored, nearest, type Marks, type Place, type Wanted } from '@/lesson/look/film/marking'

const props = defineProps<{
  film: OpenFilm
  frame: number
  marks: Marks
  hand: Handedness
  /** Points of this picture: their names, and where they are, golfer-neutral. */
  points: readonly (Wanted & { word: string; place: Place })[]
  /** Measures of this picture: the places they lie between, and the number. */
  drawn: readonly { id: string; places: readonly Place[]; text: string }[]
  /** What a touch would be; null: a touch is nothing now. */
  asking: string | null
}>()
const emit = defineEmits<{ touched: [place: Place]; moved: [point: Wanted, place: Place] }>()

const video = useTemplateRef<HTMLVideoElement>('video')
const drawing = useTemplateRef<SVGSVGElement>('drawing')
const ready = ref(false)

let busy = false
/** The newest wanted picture; those asked for meanwhile are passed over. */
async function show(): Promise<void> {
  if (busy || !video.value || !ready.value) return
  busy = true
  let at = -1
  while (at !== props.frame) {
    at = props.frame
    await seek(video.value, at, props.film.plays)
  }
  busy = false
}
watch(
  () => props.frame,
  () => void show(),
)
onMounted(() => {
  video.value?.addEventListener('loadeddata', () => {
    ready.value = true
    void show()
  })
})

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

function press(event: PointerEvent): void {
  const place = placeOf(event)
  const scale = drawing.value?.getScreenCTM()?.a ?? 1
  if (!place || !event.isPrimary) return
  drawing.value?.setPointerCapture(event.pointerId)
  const held = nearest(props.points, place, HOLD_PX / scale)
  down.value = { x: event.clientX, y: event.clientY, held }
}
function drag(event: PointerEvent): void {
  const from = down.value
  const place = placeOf(event)
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
}
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
  <div class="picture" :style="{ aspectRatio: `${film.width} / ${film.height}` }">
    <video ref="video" :src="film.url" muted playsinline preload="auto" />
    <svg
      ref="drawing"
      :class="{ asking: asking !== null, held: points.length > 0 }"
      :viewBox="`0 0 ${film.width} ${film.height}`"
      role="img"
      :aria-label="asking ?? `Picture ${frame + 1} of ${film.frames}`"
      data-testid="film-picture"
      @pointerdown.prevent="press"
      @pointermove="drag"
      @pointerup="lift"
      @pointercancel="letGo"
    >
      <line v-if="marks.ground" v-bind="line(marks.ground)" class="ground" />
      <line v-if="marks.scale" v-bind="line([marks.scale.start, marks.scale.end])" class="scale" />
      <g v-for="(d, i) in drawn" :key="d.id" class="measure">
        <path :d="`M ${path(d.places)}`" />
        <text
          :x="shown(d.places.at(-1)!)[0] + (i % 2 ? -1 : 1) * (film.height / 60)"
          :y="shown(d.places.at(-1)!)[1]"
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
    </svg>
  </div>
</template>

<style scoped>
.picture {
  position: relative;
  width: 100%;
  max-height: 100%;
  background: black;
}
video,
svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
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
