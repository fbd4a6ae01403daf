<script setup lang="ts">
// What was worked on, along time: every lesson's balls as dots, their middle with its doubt, and
// what was decided. Drawn by a plotting library that only this page loads.
import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import type { Shape } from '@/api/client'
import { LIKELY } from '@/drawing/marks'
import { dayWord } from '@/ui/dates'

const props = defineProps<{
  steps: readonly Shape['StepOut'][]
  cause: (id: string | null) => string
}>()

interface Kind {
  id: string
  word: string
  unit: string
  /** Ends of the scale in words, below and above the line at zero. */
  ends?: readonly [string, string]
}
const KINDS: readonly Kind[] = [
  { id: 'low_point_cm', word: 'Low point', unit: 'cm', ends: ['behind the ball', 'ahead'] },
  { id: 'heel_toe_mm', word: 'Strike', unit: 'mm', ends: ['heel', 'toe'] },
  { id: 'face_to_path_deg', word: 'Face to path', unit: '°', ends: ['shut', 'open'] },
  { id: 'dispersion_deg', word: 'Dispersion', unit: '°' },
  { id: 'lead_at_impact_pct', word: 'Lead share at impact', unit: '%' },
]
const WIDTH = 1040
const HEIGHT = 120
const plot = shallowRef<typeof import('@observablehq/plot') | null>(null)
onMounted(async () => {
  plot.value = await import('@observablehq/plot')
})

const strips = computed(() =>
  KINDS.flatMap((kind) => {
    const points = props.steps.flatMap((s) => {
      const strip = s.strips[kind.id]
      return strip ? [{ at: new Date(s.started_at), ...strip }] : []
    })
    return points.length > 1 ? [{ ...kind, points }] : []
  }),
)
/** In a sentence, for those who do not see the drawing. */
function told({ word, unit, points }: (typeof strips.value)[number]): string {
  const said = points.map((p) => `${dayWord(p.at.toISOString())} ${p.value.toFixed(0)} ${unit}`)
  return `${word} along time: ${said.join(', ')}`
}

const boxes = ref<HTMLElement[]>([])
function draw(): void {
  const Plot = plot.value
  if (Plot === null) return
  const dates = props.steps.map((s) => new Date(s.started_at))
  const decided = props.steps.filter((s) => s.cause !== null)
  strips.value.forEach((strip, i) => {
    const balls = strip.points.flatMap((p) => p.balls.map((value) => ({ at: p.at, value })))
    const doubtful = strip.points.filter((p) => p.se !== null)
    const first = i === 0
    const figure = Plot.plot({
      width: WIDTH,
      height: HEIGHT + (first ? 44 : 0),
      marginLeft: 70,
      marginRight: 90,
      marginTop: first ? 52 : 12,
      marginBottom: 26,
      style: { background: 'transparent', fontSize: '14px', fontFamily: 'inherit' },
      x: {
        type: 'time',
        domain: spanOf(dates),
        label: null,
        ticks: dates,
        tickFormat: (at: Date) => dayWord(at.toISOString()),
      },
      y: { label: null, ticks: 4, grid: true, nice: true },
      marks: [
        strip.ends ? Plot.ruleY([0], { strokeDasharray: '4 4' }) : null,
        Plot.ruleX(decided, {
          x: (s: Shape['StepOut']) => new Date(s.started_at),
          strokeOpacity: 0.25,
        }),
        first
          ? Plot.text(decided, {
              x: (s: Shape['StepOut']) => new Date(s.started_at),
              frameAnchor: 'top',
              dy: -34,
              text: (s: Shape['StepOut']) =>
                `${props.cause(s.cause)}${s.verdict ? `\n${s.verdict}` : ''}`,
            })
          : null,
        Plot.dot(balls, { x: 'at', y: 'value', r: 3, fillOpacity: 0.3, fill: 'currentColor' }),
        Plot.line(strip.points, { x: 'at', y: 'value', strokeOpacity: 0.5 }),
        Plot.ruleX(doubtful, {
          x: 'at',
          y1: (p: (typeof doubtful)[number]) => p.value - LIKELY * (p.se ?? 0),
          y2: (p: (typeof doubtful)[number]) => p.value + LIKELY * (p.se ?? 0),
          strokeWidth: 3,
        }),
        Plot.dot(strip.points, { x: 'at', y: 'value', r: 6, fill: 'currentColor' }),
      ],
    })
    figure.setAttribute('role', 'img')
    figure.setAttribute('aria-label', told(strip))
    boxes.value[i]?.replaceChildren(figure)
  })
}
/** A little room before the first lesson and after the last. */
function spanOf(dates: readonly Date[]): [Date, Date] {
  const [first, last] = [dates[0]?.getTime() ?? 0, dates.at(-1)?.getTime() ?? 0]
  const room = Math.max(24 * 3600 * 1000, (last - first) * 0.06)
  return [new Date(first - room), new Date(last + room)]
}
watch([plot, strips], draw, { flush: 'post' })
</script>

<template>
  <div v-if="strips.length" class="strips" data-testid="strips">
    <figure v-for="(s, i) in strips" :key="s.id">
      <figcaption>
        <strong>{{ s.word }}</strong>, {{ s.unit }}
        <span v-if="s.ends" class="quiet">· above 0 {{ s.ends[1] }}, below {{ s.ends[0] }}</span>
      </figcaption>
      <div :ref="(el) => (boxes[i] = el as HTMLElement)" class="box" />
    </figure>
    <p class="quiet note">
      Small dots are balls, a large one the middle of the lesson; its line is where it lies four
      times in five.
    </p>
  </div>
</template>

<style scoped>
.strips {
  color: var(--ink);
}
figcaption {
  font-size: var(--text-small);
}
.box {
  min-height: 120px;
  overflow-x: auto;
}
.note {
  font-size: var(--text-small);
}
</style>
