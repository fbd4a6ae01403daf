<script setup lang="ts">
// Before and after: two films of one side at the same moment, at one scale and level, what they
// measure, and whether the change is more than their doubt.
import { computed, ref, useTemplateRef, watch } from 'vue'
import { useSize } from '@/drawing/size'
import { ask, client } from '@/api/client'
import FilmFrame from '@/lesson/look/film/FilmFrame.vue'
import { layOn, lieOf, STAGE, styleOf, type Laid } from '@/lesson/look/film/laying'
import type { Marks, SwingEvent } from '@/lesson/look/film/marking'
import OtherFilm from '@/lesson/look/film/OtherFilm.vue'
import { outlineOf } from '@/lesson/look/film/outline'
import { sharedEvents } from '@/lesson/look/film/tying'
import type { useFilm } from '@/lesson/look/film/useFilm'
import type { useOtherFilm } from '@/lesson/look/film/useOtherFilm'
import { useOfLesson } from '@/lesson/ofLesson'
import { useOpenLesson } from '@/lesson/openLesson'
import ChooseOne from '@/ui/ChooseOne.vue'
import OneOf from '@/ui/OneOf.vue'
import { count } from '@/ui/words'

const props = defineProps<{
  ruler: ReturnType<typeof useFilm>
  other: ReturnType<typeof useOtherFilm>
}>()
const { open, lesson } = useOpenLesson()
const { film, marks, id } = props.ruler
const hand = computed(() => lesson.value.student.handedness)

/** Whether the film under the ruler is the later one, as their days and places say. */
const mineIsAfter = computed(() => {
  const all = props.other.all.value.map((f) => f.id)
  const its = props.other.chosen.value?.id
  return its === undefined || all.indexOf(id.value) < all.indexOf(its)
})
const pair = computed(() => {
  const its = props.other.chosen.value
  if (its?.marks.view !== marks.value?.view || !its) return null
  return mineIsAfter.value
    ? { before: its.id, after: id.value }
    : { before: id.value, after: its.id }
})
const compared = useOfLesson(
  open,
  'beside',
  (_params, { before, after }) =>
    ask(
      client.GET('/api/films/{before_id}/beside', {
        params: { path: { before_id: before }, query: { after } },
      }),
    ),
  () => pair.value,
)
const all = computed(() => compared.found.value?.changes ?? [])
const changed = computed(() => all.value.filter((c) => c.beyond_doubt))
const same = computed(() => all.value.filter((c) => !c.beyond_doubt))

const events = computed(() =>
  marks.value && props.other.marks.value
    ? sharedEvents([marks.value, props.other.marks.value])
    : [],
)
const wanted = ref<SwingEvent>('impact')
const event = computed(
  () => events.value.find((e) => e.id === wanted.value)?.id ?? events.value.at(-1)?.id ?? null,
)
const stage = useTemplateRef<HTMLDivElement>('stage')
const size = useSize(stage, { width: 640, height: 400 })
const width = computed(() => size.value.width)
const HOW = [
  { id: 'beside', word: 'Side by side' },
  { id: 'outlines', word: 'Outlines, one upon the other' },
] as const
const how = ref<(typeof HOW)[number]['id']>('beside')

const sides = computed(() => {
  const found = compared.found.value
  const second = props.other.film.value
  const its = props.other.marks.value
  if (!found || !second || !its || !film.value || !marks.value || !event.value) return []
  const at = event.value
  const mine = { film: film.value, marks: marks.value }
  const theirs = { film: second, marks: its }
  const [first, last] = mineIsAfter.value ? [theirs, mine] : [mine, theirs]
  return [laidAs('Before', first, found.before, at), laidAs('After', last, found.after, at)]
})
function laidAs(
  word: string,
  one: { film: NonNullable<typeof film.value>; marks: Marks },
  laid: Laid,
  at: SwingEvent,
) {
  const wide = how.value === 'beside' ? (width.value - GAP_PX) / 2 : width.value
  const lie = lieOf(laid, Math.max(1, wide), one.film.width, hand.value)
  return { word, film: one.film, frame: one.marks.events?.[at] ?? 0, lie }
}
const GAP_PX = 10

const frames = useTemplateRef<InstanceType<typeof FilmFrame>[]>('frames')
const canvases = useTemplateRef<HTMLCanvasElement[]>('canvases')
/** The outlines of both pictures, each on a sheet of its own. */
function trace(i: number): void {
  const [video, sheet, side] = [frames.value?.[i]?.video, canvases.value?.[i], sides.value[i]]
  if (how.value !== 'outlines' || !video || !sheet || !side) return
  const wide = Math.round(width.value)
  const high = Math.round((wide * STAGE.high) / STAGE.wide)
  if (wide < 3) return
  sheet.width = wide
  sheet.height = high
  const pen = sheet.getContext('2d', { willReadFrequently: true })
  if (pen === null) return
  layOn(pen, side.lie)
  pen.drawImage(video, 0, 0)
  pen.resetTransform()
  const picture = pen.getImageData(0, 0, wide, high)
  const shows = outlineOf(picture.data, wide)
  const [red, green, blue] = inkOf(sheet)
  for (let p = 0; p < shows.length; p++) {
    picture.data.set([red, green, blue, shows[p] ?? 0], 4 * p)
  }
  pen.putImageData(picture, 0, 0)
}
/** The sheet's own colour, which follows the light. */
function inkOf(sheet: HTMLElement): [number, number, number] {
  const [red = 0, green = 0, blue = 0] = (getComputedStyle(sheet).color.match(/[\d.]+/g) ?? []).map(
    Number,
  )
  return [red, green, blue]
}
watch([how, width], () => {
  if (how.value === 'outlines') sides.value.forEach((_, i) => { trace(i) }) // prettier-ignore
}, { flush: 'post' }) // prettier-ignore
</script>

<template>
  <div class="compared">
    <div class="row">
      <OtherFilm :other="other" :view="marks?.view ?? null" name="Compared with" />
      <ChooseOne
        v-if="event"
        name="Moment"
        :options="events"
        :on="event"
        class="moment"
        @chosen="(e) => (wanted = e)"
      />
      <OneOf name="How they lie" :words="HOW" :on="how" @chosen="(h) => (how = h)" />
    </div>
    <p v-if="compared.problem.value" role="alert" class="problem">
      {{ compared.problem.value.message }} {{ compared.problem.value.hint }}
    </p>
    <div class="found">
      <div ref="stage" class="stage" :class="how">
        <figure v-for="(side, i) in sides" :key="side.word" :class="side.word.toLowerCase()">
          <figcaption>{{ side.word }}</figcaption>
          <div class="window" :style="{ aspectRatio: `${STAGE.wide} / ${STAGE.high}` }">
            <FilmFrame
              ref="frames"
              :film="side.film"
              :frame="side.frame"
              class="laid"
              :style="{
                width: `${side.film.width}px`,
                height: `${side.film.height}px`,
                transform: styleOf(side.lie),
              }"
              @shown="trace(i)"
            />
            <canvas v-if="how === 'outlines'" ref="canvases" />
          </div>
        </figure>
      </div>
      <section v-if="all.length" aria-labelledby="film-changes" class="changes">
        <h2 id="film-changes">What changed by more than its doubt</h2>
        <p v-if="changed.length === 0">Nothing that these two films could show.</p>
        <ul data-testid="film-changes">
          <li v-for="c in changed" :key="c.measure" class="strong">{{ c.text }}</li>
        </ul>
        <details v-if="same.length">
          <summary>{{ count(same.length, 'other measure') }}</summary>
          <ul>
            <li v-for="c in same" :key="c.measure">{{ c.text }}</li>
          </ul>
        </details>
      </section>
    </div>
  </div>
</template>

<style scoped>
.compared {
  grid-column: 1 / -1;
  display: grid;
  gap: 10px;
  align-content: start;
}
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: start;
  gap: 8px 14px;
}
.row > :first-child {
  flex: 1 1 280px;
}
.moment {
  min-width: 170px;
}
.stage {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
  flex: 3 1 460px;
  max-width: 600px;
}
.stage.outlines {
  grid-template-columns: 1fr;
  max-width: 350px;
}
.found {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 20px;
}
.changes {
  flex: 2 1 230px;
}
figure {
  margin: 0;
  min-width: 0;
}
.window {
  position: relative;
  overflow: hidden;
  background: black;
}
.window .laid {
  position: absolute;
  inset: 0 auto auto 0;
  max-height: none;
  transform-origin: 0 0;
}
canvas {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
/* two sheets of outlines, one upon the other: the pictures themselves are not seen */
.outlines figure {
  grid-area: 1 / 1;
}
.outlines .window {
  background: var(--surface);
}
.outlines .laid {
  visibility: hidden;
}
.outlines .after .window {
  background: none;
}
.before canvas {
  color: var(--clay);
}
.after canvas {
  color: var(--ink);
}
.outlines .after figcaption {
  text-align: right;
}
.outlines .before figcaption {
  color: var(--clay);
}
ul {
  padding-left: 20px;
}
summary {
  min-height: 48px;
  display: list-item;
  line-height: 48px;
  cursor: pointer;
}
</style>
