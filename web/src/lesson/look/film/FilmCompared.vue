<script setup lang="ts">
// Before and after: two films of one side at the same moment, at one scale and level, what they
// measure, and whether the change is more than their doubt.
import { computed, ref, useTemplateRef } from 'vue'
import { useSize } from '@/drawing/size'
import { ask, client } from '@/api/client'
import LaidPicture from '@/lesson/look/film/LaidPicture.vue'
import { lieOf, type Laid } from '@/lesson/look/film/laying'
import type { Marks, SwingEvent } from '@/lesson/look/film/marking'
import OtherFilm from '@/lesson/look/film/OtherFilm.vue'
import { sharedEvents } from '@/lesson/look/film/syncFilms'
import type { useFilm } from '@/lesson/look/film/useFilm'
import type { useOtherFilm } from '@/lesson/look/film/useOtherFilm'
import { useLessonQuery } from '@/lesson/useLessonQuery'
import { useLessonContext } from '@/lesson/lessonContext'
import ChooseOne from '@/ui/ChooseOne.vue'
import OneOf from '@/ui/OneOf.vue'
import { count } from '@/ui/words'

const props = defineProps<{
  ruler: ReturnType<typeof useFilm>
  other: ReturnType<typeof useOtherFilm>
}>()
const { open, lesson } = useLessonContext()
const { film, marks, id } = props.ruler
const hand = computed(() => lesson.value.student.handedness)

/** Whether the film under the ruler is the later one, as their days and places say. */
const mineIsAfter = computed(() => {
  const all = props.other.all.value.map((f) => f.id)
  const its = props.other.chosen.value?.id
  return its === undefined || all.indexOf(id.value) < all.indexOf(its)
})
/** A film is known to the lesson once something is marked in it. */
const isMarked = computed(() => props.ruler.read.value !== null)
const pair = computed(() => {
  const its = props.other.chosen.value
  if (its?.marks.view !== marks.value?.view || !its || !isMarked.value) return null
  return mineIsAfter.value
    ? { before: its.id, after: id.value }
    : { before: id.value, after: its.id }
})
const compared = useLessonQuery(
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
const changed = computed(() => all.value.filter((c) => c.beyond_chance))
const same = computed(() => all.value.filter((c) => !c.beyond_chance))

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
</script>

<template>
  <div class="compared">
    <div class="choices">
      <OtherFilm :other="other" :view="marks?.view ?? null" name="Compared with" />
      <ChooseOne
        v-if="event"
        name="Moment"
        :options="events"
        :on="event"
        class="moment"
        @chosen="(e) => (wanted = e)"
      />
      <OneOf
        v-if="sides.length"
        name="How they lie"
        :words="HOW"
        :on="how"
        @chosen="(h) => (how = h)"
      />
    </div>
    <p v-if="!isMarked">
      Mark this film first, under Measure: its events, a scale, and the points.
    </p>
    <p v-else-if="compared.problem.value" role="alert" class="problem">
      {{ compared.problem.value.message }} {{ compared.problem.value.hint }}
    </p>
    <div class="found">
      <div ref="stage" class="stage" :class="how">
        <figure v-for="side in sides" :key="side.word" :class="side.word.toLowerCase()">
          <figcaption>{{ side.word }}</figcaption>
          <LaidPicture
            :film="side.film"
            :frame="side.frame"
            :lie="side.lie"
            :wide="width"
            :outlines="how === 'outlines'"
          />
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
/* two sheets of outlines, one upon the other */
.outlines figure {
  grid-area: 1 / 1;
}
.outlines .before {
  color: var(--clay);
  background: var(--surface);
}
.outlines .after figcaption {
  text-align: right;
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
