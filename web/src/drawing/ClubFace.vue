<script setup lang="ts">
// The club face, drawn large: touch where the ball met it, or drag the chosen ball's mark. A touch off
// the face is asked about. While balls are read, a touch chooses one.
import { computed, ref, useTemplateRef } from 'vue'
import type { Handedness, LoggedShot } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import { nearest, strikeOf, type Doubtful } from '@/drawing/marks'
import { inDrawing, keepDrag, pageMoves } from '@/drawing/pointer'
import type { Point } from '@/drawing/range'

const known = useKnowledge()
const props = defineProps<{
  hand: Handedness
  shots: LoggedShot[]
  /** Strikes of the lesson before, laid under. */
  under?: readonly LoggedShot[]
  newest: string | null
  kind: string
  seen: 'front' | 'player'
  lit: 'heel' | 'toe' | null
  predictedMm: number | null
  reading: boolean
  middle: Doubtful | null
  scatterMm: { heelToe: number; lowHigh: number } | null
}>()
const emit = defineEmits<{
  touched: [strike: { heelToeMm: number; lowHighMm: number }]
  missed: []
  chosen: [id: string]
}>()

const WIDTH = 330
const HEIGHT = 262
const CENTRE = { x: 165, y: 142 }
const PX_PER_MM = 3.5
const NEAR_PX = 30
/** Drawn with the heel on the right. */
const IRON =
  'M52 222C30 200 26 120 50 70C58 50 84 46 104 54L262 112C284 120 296 138 294 168L288 206C286 218 278 224 264 224Z'
const WOOD =
  'M40 150C40 84 96 52 166 52C236 52 292 84 292 144C292 200 240 226 166 226C92 226 40 206 40 150Z'
const svg = useTemplateRef<SVGSVGElement>('svg')
const outline = useTemplateRef<SVGPathElement>('outline')
const held = ref<Point | null>(null)

const heelRight = computed(() => (props.hand === 'right') === (props.seen === 'front'))
const mirrored = (x: number) => (heelRight.value ? x : WIDTH - x)
const isWood = computed(() => props.kind === 'driver' || props.kind === 'wood')
const marks = computed(() => placed(props.shots))
const before = computed(() => placed(props.under ?? []))
function placed(shots: readonly LoggedShot[]) {
  return shots.flatMap((shot) => {
    const strike = strikeOf(shot, known.all.noting)
    if (strike === null) return []
    const x = mirrored(CENTRE.x - strike.heelToeMm * PX_PER_MM)
    return [{ id: shot.id, x, y: CENTRE.y - strike.lowHighMm * PX_PER_MM }]
  })
}

function press(event: PointerEvent): void {
  if (svg.value === null || event.button !== 0 || pageMoves()) return
  const at = inDrawing(event, svg.value)
  if (props.reading) {
    choose(at)
    return
  }
  svg.value.setPointerCapture(event.pointerId)
  held.value = at
}
function drag(event: PointerEvent): void {
  if (held.value !== null && svg.value !== null) held.value = inDrawing(event, svg.value)
}
function release(event: PointerEvent): void {
  if (held.value === null || svg.value === null || outline.value === null) return
  const at = inDrawing(event, svg.value)
  held.value = null
  const x = mirrored(at.x)
  if (!outline.value.isPointInFill(new DOMPoint(x, at.y))) {
    emit('missed')
    return
  }
  emit('touched', {
    heelToeMm: Math.round((CENTRE.x - x) / PX_PER_MM),
    lowHighMm: Math.round((CENTRE.y - at.y) / PX_PER_MM),
  })
}
function choose(at: { x: number; y: number }): void {
  const id = nearest(marks.value, at, NEAR_PX)
  if (id !== null) emit('chosen', id)
}
/** Where most of the balls met the face: one standard deviation about their middle. */
const spread = computed(() => {
  if (props.middle === null || props.scatterMm === null || marks.value.length < 3) return null
  return {
    cx: mirrored(CENTRE.x - props.middle.value * PX_PER_MM),
    cy: marks.value.reduce((sum, m) => sum + m.y, 0) / marks.value.length,
    rx: props.scatterMm.heelToe * PX_PER_MM,
    ry: Math.max(4, props.scatterMm.lowHigh * PX_PER_MM),
  }
})
</script>

<template>
  <svg
    ref="svg"
    class="club"
    :viewBox="`0 0 ${WIDTH} ${HEIGHT}`"
    role="img"
    :aria-label="`Club face with ${marks.length} strikes`"
    data-testid="face"
    @pointerdown="press"
    @pointermove="drag"
    @pointerup="release"
    @pointercancel="held = null"
    @touchmove="keepDrag"
  >
    <rect class="touchable" :width="WIDTH" :height="HEIGHT" />
    <g :transform="heelRight ? '' : `translate(${WIDTH} 0) scale(-1 1)`">
      <path
        class="hosel"
        :d="isWood ? 'M262 76L286 14L314 22L288 96Z' : 'M262 112L292 22L322 32L294 150Z'"
      />
      <clipPath id="head"><path :d="isWood ? WOOD : IRON" /></clipPath>
      <path class="head" :d="isWood ? WOOD : IRON" />
      <g clip-path="url(#head)">
        <rect v-if="lit === 'heel'" class="lit" x="206" y="40" width="120" height="190" />
        <rect v-if="lit === 'toe'" class="lit" x="20" y="40" width="96" height="190" />
        <line
          v-for="i in 6"
          :key="i"
          class="groove"
          x1="92"
          x2="238"
          :y1="92 + i * 19"
          :y2="92 + i * 19"
        />
      </g>
      <path ref="outline" class="outline" :d="isWood ? WOOD : IRON" />
    </g>
    <path class="cross" :d="`M${CENTRE.x - 9} ${CENTRE.y}h18M${CENTRE.x} ${CENTRE.y - 9}v18`" />
    <ellipse v-if="spread" class="spread" v-bind="spread" data-testid="strike-spread" />
    <circle
      v-for="mark in before"
      :key="`before-${mark.id}`"
      class="before"
      :cx="mark.x"
      :cy="mark.y"
      r="7"
    />
    <circle
      v-for="mark in marks"
      :key="mark.id"
      :class="['mark', { newest: mark.id === newest }]"
      :cx="mark.x"
      :cy="mark.y"
      :r="mark.id === newest ? 11 : 7"
    />
    <circle
      v-if="predictedMm !== null"
      class="predicted"
      :cx="mirrored(CENTRE.x - predictedMm * PX_PER_MM)"
      :cy="CENTRE.y"
      r="20"
      data-testid="predicted-strike"
    />
    <circle v-if="held" class="mark held" :cx="held.x" :cy="held.y" r="11" />
    <text :x="mirrored(58)" y="252">toe</text>
    <text :x="mirrored(278)" y="252">heel</text>
  </svg>
</template>

<style scoped>
.club {
  display: block;
  width: 100%;
  height: 100%;
  touch-action: none;
  cursor: crosshair;
}
.touchable {
  fill: transparent;
}
.head {
  fill: var(--surface);
}
.outline {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.5;
}
.hosel {
  fill: var(--panel);
  stroke: var(--ink);
  stroke-width: 2.5;
}
.groove {
  stroke: var(--line);
  stroke-width: 1.6;
}
.lit {
  fill: var(--clay);
  fill-opacity: 0.35;
}
.cross {
  stroke: var(--ink);
  stroke-width: 2;
}
.predicted {
  fill: none;
  stroke: var(--slate);
  stroke-width: 4;
  stroke-dasharray: 8 5;
}
.spread {
  fill: var(--slate);
  fill-opacity: 0.16;
  stroke: var(--slate);
  stroke-width: 1.5;
}
.mark {
  fill: var(--ink);
  fill-opacity: 0.35;
}
.mark.held {
  fill: var(--slate);
}
.mark.newest {
  fill-opacity: 1;
}
text {
  font-size: var(--text-body);
  text-anchor: middle;
}
.before {
  fill: none;
  stroke: var(--line);
  stroke-width: 1.5;
  stroke-dasharray: 2 2;
}
</style>
