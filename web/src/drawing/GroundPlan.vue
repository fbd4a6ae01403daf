<script setup lang="ts">
// The ground from above: both shoes, the ball, the turf ruler; the chosen cause's chain lit on it. The
// divot of a chosen ball can be dragged.
import { computed, ref, useTemplateRef } from 'vue'
import type { Handedness, LoggedShot } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import ChainMarks from '@/drawing/ChainMarks.vue'
import { GROUND, litOnPlan, shoeParts, SHOES } from '@/drawing/chain'
import { divotOf, LIKELY, type DivotMark, type Doubtful } from '@/drawing/marks'
import { inDrawing, keepDrag, pageMoves } from '@/drawing/pointer'
import type { Point } from '@/drawing/range'
import ShoePrint from '@/drawing/ShoePrint.vue'
import { pushSign } from '@/ui/frame'
import { signed } from '@/ui/units'

const props = defineProps<{
  hand: Handedness
  shots: LoggedShot[]
  /** Divots of the lesson before, laid under. */
  under?: readonly LoggedShot[]
  newest: string | null
  changing: string | null
  chain: readonly string[]
  footWords: { lead: string; trail: string }
  predictedLowCm: number | null
  lowPoint: Doubtful | null
}>()
const known = useKnowledge()
const emit = defineEmits<{
  touched: [divot: { startCm: number; lengthCm: number | null; directionDeg: number | null }]
}>()

const DRAG_CM = 4
const HANDLE_PX = 12
const svg = useTemplateRef<SVGSVGElement>('svg')
const from = ref<Point | null>(null)
const to = ref<Point | null>(null)
/** The divot that is moved as a whole; null while a new one is drawn. */
const moved = ref<DivotMark | null>(null)
const held = ref(0)

const left = computed(() => props.hand === 'left')
const flip = computed(() => (left.value ? `translate(${String(GROUND.width)} 0) scale(-1 1)` : ''))
const mirrored = (x: number) => (left.value ? GROUND.width - x : x)
const lit = computed(() => litOnPlan(props.chain, known.all))
const parts = computed(() => shoeParts(lit.value))
const divots = computed(() =>
  props.shots.flatMap((shot) => {
    const divot = divotOf(shot, known.all.noting)
    return divot ? [{ id: shot.id, ...divot }] : []
  }),
)
const before = computed(() =>
  (props.under ?? []).flatMap((shot) => divotOf(shot, known.all.noting) ?? []),
)
const TICKS = [10, 5, 0, -5, -10]

/** A divot as a line; the plan is mirrored as a whole, so push is to the right here. */
function line(divot: DivotMark): { x1: number; y1: number; x2: number; y2: number } {
  const { ball, pxPerCm } = GROUND
  const angle = (divot.directionDeg * Math.PI) / 180
  const y1 = ball.y - divot.startCm * pxPerCm
  const length = divot.lengthCm * pxPerCm
  const x1 = ball.x - (length / 2) * Math.sin(angle)
  return { x1, y1, x2: x1 + length * Math.sin(angle), y2: y1 - length * Math.cos(angle) }
}

function press(event: PointerEvent): void {
  if (svg.value === null || event.button !== 0 || pageMoves()) return
  const at = inDrawing(event, svg.value)
  const x = mirrored(at.x)
  if (x < GROUND.turf.x || x > GROUND.turf.x + GROUND.turf.width) return
  svg.value.setPointerCapture(event.pointerId)
  const mark = divots.value.find((d) => d.id === props.changing)
  const { ball, pxPerCm } = GROUND
  const near = (d: DivotMark) => {
    const { x1, y1, x2, y2 } = line(d)
    const [left, right] = [Math.min(x1, x2) - HANDLE_PX, Math.max(x1, x2) + HANDLE_PX]
    return x >= left && x <= right && at.y >= y2 - HANDLE_PX && at.y <= y1 + HANDLE_PX
  }
  moved.value = mark && near(mark) ? mark : null
  // held where it is pressed: the start moves as the finger does
  const lag = moved.value ? at.y - (ball.y - moved.value.startCm * pxPerCm) : 0
  from.value = { x: at.x, y: at.y - lag }
  to.value = { x: at.x, y: at.y - lag }
  held.value = lag
}
function drag(event: PointerEvent): void {
  if (from.value === null || svg.value === null) return
  const at = inDrawing(event, svg.value)
  to.value = { x: at.x, y: at.y - held.value }
}
const cmAhead = (y: number) => (GROUND.ball.y - y) / GROUND.pxPerCm
function release(event: PointerEvent): void {
  if (from.value === null || svg.value === null) return
  const at = inDrawing(event, svg.value)
  if (moved.value !== null) {
    const { observed } = props.shots.find((s) => s.id === props.changing) ?? {}
    emit('touched', {
      startCm: Math.round(cmAhead(at.y - held.value)),
      lengthCm: observed?.divot_length_cm ?? null,
      directionDeg: observed?.divot_direction_deg ?? null,
    })
    cancel()
    return
  }
  const ahead = cmAhead(at.y) - cmAhead(from.value.y)
  const sideways = ((at.x - from.value.x) / GROUND.pxPerCm) * pushSign(props.hand)
  const drawn = Math.hypot(ahead, sideways) >= DRAG_CM && ahead > 0
  emit('touched', {
    startCm: Math.round(cmAhead(from.value.y)),
    lengthCm: drawn ? Math.round(Math.hypot(ahead, sideways)) : null,
    directionDeg: drawn ? Math.round((Math.atan2(sideways, ahead) * 180) / Math.PI) : null,
  })
  cancel()
}
function cancel(): void {
  from.value = null
  to.value = null
  moved.value = null
}
const draft = computed(() => {
  if (from.value === null || to.value === null) return null
  if (moved.value !== null) return line({ ...moved.value, startCm: cmAhead(to.value.y) })
  const [a, b] = [from.value, to.value]
  return { x1: mirrored(a.x), y1: a.y, x2: mirrored(b.x), y2: b.y }
})
</script>

<template>
  <svg
    ref="svg"
    class="ground"
    :viewBox="`0 0 ${GROUND.width} ${GROUND.height}`"
    role="img"
    :aria-label="`Ground from above with ${divots.length} divots`"
    data-testid="ground"
    @pointerdown="press"
    @pointermove="drag"
    @pointerup="release"
    @pointercancel="cancel"
    @touchmove="keepDrag"
  >
    <g :transform="flip">
      <rect
        class="turf"
        :x="GROUND.turf.x"
        y="4"
        :width="GROUND.turf.width"
        :height="GROUND.height - 8"
        rx="10"
        data-testid="turf"
      />
      <line class="target" :x1="GROUND.ball.x" y1="8" :x2="GROUND.ball.x" :y2="GROUND.height - 8" />
      <ShoePrint v-bind="SHOES.lead" which="lead" :lit="parts" :turn="-14" />
      <ShoePrint v-bind="SHOES.trail" which="trail" :lit="parts" :turn="4" />
      <clipPath id="turf">
        <rect :x="GROUND.turf.x" y="4" :width="GROUND.turf.width" :height="GROUND.height - 8" />
      </clipPath>
      <line
        v-for="(divot, i) in before"
        :key="`before-${i}`"
        class="before"
        v-bind="line(divot)"
        clip-path="url(#turf)"
      />
      <line
        v-for="divot in divots"
        :key="divot.id"
        :class="['divot', { newest: divot.id === newest, changing: divot.id === changing }]"
        v-bind="line(divot)"
        clip-path="url(#turf)"
      />
      <line v-if="draft" class="divot draft" v-bind="draft" clip-path="url(#turf)" />
      <g v-if="lowPoint" clip-path="url(#turf)" data-testid="low-band">
        <rect
          class="low"
          :x="GROUND.turf.x"
          :width="GROUND.turf.width"
          :y="GROUND.ball.y - (lowPoint.value + LIKELY * lowPoint.se) * GROUND.pxPerCm"
          :height="2 * LIKELY * lowPoint.se * GROUND.pxPerCm"
        />
      </g>
      <circle class="ball" :cx="GROUND.ball.x" :cy="GROUND.ball.y" r="9" />
      <line
        v-if="predictedLowCm !== null"
        class="predicted"
        :x1="GROUND.turf.x + 8"
        :x2="GROUND.turf.x + GROUND.turf.width - 8"
        :y1="GROUND.ball.y - predictedLowCm * GROUND.pxPerCm"
        :y2="GROUND.ball.y - predictedLowCm * GROUND.pxPerCm"
        clip-path="url(#turf)"
        data-testid="predicted-low"
      />
    </g>
    <g class="labels">
      <text :class="left ? 'start' : 'end'" :x="mirrored(68)" :y="SHOES.lead.y + 6">
        {{ footWords.lead }}
      </text>
      <text :class="left ? 'start' : 'end'" :x="mirrored(68)" :y="SHOES.trail.y + 6">
        {{ footWords.trail }}
      </text>
      <g v-for="cm in TICKS" :key="cm">
        <text
          class="tick"
          :x="mirrored(GROUND.turf.x - 20)"
          :y="GROUND.ball.y - cm * GROUND.pxPerCm + 5"
        >
          {{ cm === 0 ? 'ball' : signed(cm) }}
        </text>
      </g>
    </g>
    <ChainMarks :lit="lit" :chain="chain" :left="left" />
  </svg>
</template>

<style scoped>
.ground {
  display: block;
  width: 100%;
  height: 100%;
  touch-action: none;
}
.turf {
  fill: var(--turf);
  cursor: crosshair;
}
.target {
  stroke: var(--ink);
  stroke-opacity: 0.5;
  stroke-dasharray: 5 6;
  pointer-events: none;
}
.divot {
  stroke: var(--ink);
  stroke-opacity: 0.32;
  stroke-width: 5;
  stroke-linecap: round;
  pointer-events: none;
}
.divot.newest {
  stroke-opacity: 1;
  stroke-width: 8;
}
.divot.changing,
.divot.draft {
  stroke: var(--slate);
  stroke-opacity: 1;
}
.predicted {
  stroke: var(--slate);
  stroke-width: 4;
  stroke-dasharray: 10 6;
  pointer-events: none;
}
.low {
  fill: var(--slate);
  fill-opacity: 0.28;
  pointer-events: none;
}
.ball {
  fill: var(--surface);
  stroke: var(--ink);
  stroke-width: 2.5;
  pointer-events: none;
}
.labels text {
  font-size: var(--text-body);
  text-anchor: middle;
  font-weight: var(--strong);
  pointer-events: none;
}
.labels .start {
  text-anchor: start;
}
.labels .end {
  text-anchor: end;
}
.labels .tick {
  font-weight: 400;
  font-size: var(--text-body);
}
.before {
  stroke: var(--line);
  stroke-width: 2;
  stroke-dasharray: 3 3;
}
</style>
