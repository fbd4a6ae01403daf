<script setup lang="ts">
// A film read inside the lesson: picture by picture, eight events, a scale, and the few points that
// the looks need. It stays on this device.
import { mdiChevronLeft, mdiChevronRight } from '@mdi/js'
import { computed, toRef } from 'vue'
import { useKnowledge } from '@/api/knowledge'
import FilmBegin from '@/lesson/look/film/FilmBegin.vue'
import FilmPicture from '@/lesson/look/film/FilmPicture.vue'
import FilmMeasures from '@/lesson/look/film/FilmMeasures.vue'
import { EVENTS, wantedBy, type Place, type SwingEvent } from '@/lesson/look/film/marking'
import { useFilm } from '@/lesson/look/film/useFilm'
import { useOpenLesson } from '@/lesson/openLesson'
import ChooseOne from '@/ui/ChooseOne.vue'
import { typedNumber } from '@/ui/units'

const props = defineProps<{ blockId: string | null }>()
const known = useKnowledge()
const { open, lesson } = useOpenLesson()
const ruler = useFilm(open, toRef(props, 'blockId'))
const { film, marks, frame, problem, finding, ends, scaleBy, scaleCm, asking } = ruler

const scales = computed(() => known.all.film.scales.map((s) => ({ id: s.id, word: s.name })))
const needsLength = computed(() => scaleBy.value === 'known' || scaleBy.value === 'club')
const points = computed(() => {
  const at = Object.entries(marks.value?.events ?? {}).filter(([, f]) => f === frame.value)
  return known.all.film.points.flatMap((p) =>
    at.flatMap(([event]) => {
      const place = marks.value?.points?.[p.id]?.[event]
      const at = { point: p.id, event: event as SwingEvent }
      return place ? [{ ...at, word: p.name, place: place as Place }] : []
    }),
  )
})
/** What is measured on this picture, as the line or corner that it is. */
const drawn = computed(() => {
  const { events = {}, points: places = {} } = marks.value ?? {}
  return (ruler.read.value?.measures ?? []).flatMap((found) => {
    const measure = ruler.measures.value.find((m) => m.id === found.id)
    if (!measure || events[measure.event] !== frame.value) return []
    const ends = wantedBy(measure).flatMap(({ point, event }) => {
      const place = places[point]?.[event]
      return place ? [place as Place] : []
    })
    const unit = found.unit === 'deg' ? '°' : ' cm'
    return [{ id: found.id, places: ends, text: `${found.value.toFixed(0)}${unit}` }]
  })
})
/** Whether the file plays slower than life: the swing's own timing says. */
const rates = computed(() => ruler.read.value?.rates ?? [])
const slow = computed(() => {
  const [rate] = rates.value
  return rate !== undefined && !rates.value.includes(marks.value?.fps ?? 0) ? rate : null
})
const impossible = computed(() => ruler.read.value !== null && rates.value.length === 0)
function keys(event: KeyboardEvent): void {
  // a field or the slider has its own arrows
  const inside = event.target instanceof Element && event.target !== event.currentTarget
  if (inside && event.target.closest('input, [role=slider], [role=combobox], [role=listbox]'))
    return
  const step = { ArrowLeft: -1, ArrowRight: 1, PageUp: -10, PageDown: 10 }[event.key]
  if (step === undefined) return
  event.preventDefault()
  ruler.step(step)
}
</script>

<template>
  <div class="ruler" role="region" aria-label="Film" tabindex="0" @keydown="keys">
    <p v-if="problem" role="alert" class="problem asked">{{ problem }}</p>
    <FilmBegin v-if="!film || !marks" :ruler="ruler" />
    <template v-else>
      <p class="asked strong" role="status" data-testid="film-asked">
        {{ asking ?? (marks.scale ? 'Nothing more to touch.' : 'First the events, then a scale.') }}
      </p>
      <div class="left">
        <FilmPicture
          :film="film"
          :frame="frame"
          :marks="marks"
          :hand="lesson.student.handedness"
          :points="points"
          :drawn="drawn"
          :asking="asking"
          @touched="ruler.touch"
          @moved="ruler.move"
        />
        <div class="steps">
          <v-btn :icon="mdiChevronLeft" aria-label="One picture back" @click="ruler.step(-1)" />
          <v-slider
            v-model="frame"
            :min="0"
            :max="film.frames - 1"
            :step="1"
            color="slate"
            hide-details
            aria-label="Picture"
          />
          <v-btn :icon="mdiChevronRight" aria-label="One picture on" @click="ruler.step(1)" />
          <span class="number" data-testid="film-frame"
            >{{ frame }} · {{ (frame / marks.fps).toFixed(3) }} s</span
          >
        </div>
      </div>
      <div class="right">
        <div class="events" role="group" aria-label="Events of the swing">
          <v-btn
            v-for="e in EVENTS"
            :key="e.id"
            size="small"
            :variant="marks.events?.[e.id] === frame ? 'flat' : 'outlined'"
            :color="marks.events?.[e.id] === frame ? 'primary' : undefined"
            @click="marks.events?.[e.id] === undefined ? ruler.mark(e.id) : ruler.goTo(e.id)"
          >
            {{ e.word }}
            <span v-if="marks.events?.[e.id] !== undefined" class="number">{{
              marks.events[e.id]
            }}</span>
          </v-btn>
        </div>
        <div class="row">
          <v-btn :loading="finding !== null" @click="ruler.find">Find the events</v-btn>
          <ChooseOne
            name="This picture is"
            :options="EVENTS"
            :on="EVENTS.find((e) => marks?.events?.[e.id] === frame)?.id ?? null"
            class="which"
            @chosen="(e) => ruler.mark(e)"
          />
        </div>
        <p v-if="finding !== null" class="quiet" role="status">
          Looking through the film, {{ Math.round(finding * 100) }} %
        </p>
        <p v-if="slow" role="note">
          From top to impact takes longer than a downswing can: was it filmed at {{ slow }} pictures
          a second? <v-btn size="small" @click="ruler.filmedAt(slow)">Yes, at {{ slow }}</v-btn>
        </p>
        <p v-else-if="impossible" role="note" class="problem">
          Top and impact are not a downswing apart at any speed: mark them again.
        </p>
        <div class="row">
          <ChooseOne
            name="What gives the scale"
            :options="scales"
            :on="scaleBy"
            class="which"
            @chosen="(s) => (scaleBy = s)"
          />
          <v-text-field
            v-if="needsLength"
            :model-value="scaleCm === null ? '' : String(scaleCm)"
            label="Its length, cm"
            class="length"
            density="compact"
            hide-details
            inputmode="decimal"
            @update:model-value="(v: string) => (scaleCm = typedNumber(v) ?? null)"
          />
          <v-btn
            :disabled="needsLength && !scaleCm"
            @click="ends = { what: 'scale', first: null }"
            >{{ marks.scale ? 'Scale again' : 'Touch the scale' }}</v-btn
          >
          <v-btn @click="ends = { what: 'ground', first: null }">{{
            marks.ground ? 'Ground again' : 'Touch the ground'
          }}</v-btn>
        </div>
        <FilmMeasures :ruler="ruler" />
        <v-btn variant="text" @click="ruler.close">Put this film away</v-btn>
      </div>
    </template>
  </div>
</template>

<style scoped>
.ruler {
  flex: 1;
  min-height: 0;
  display: grid;
  align-content: start;
  grid-template-columns: minmax(0, 2fr) minmax(0, 3fr);
  gap: 16px;
  overflow-y: auto;
  padding: 0 20px 24px 0;
}
.left,
.right {
  display: grid;
  gap: 10px;
  align-content: start;
}
.steps {
  display: grid;
  grid-template-columns: auto 1fr auto;
  align-items: center;
  gap: 6px;
}
.steps .number {
  grid-column: 1 / -1;
  text-align: center;
}
.asked {
  grid-column: 1 / -1;
  min-height: 1.5em;
  font-size: var(--text-lead);
}
.events,
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
.events .number {
  margin-left: 6px;
}
.which {
  min-width: 200px;
}
.length {
  flex: 0 0 150px;
}
@media (max-width: 800px) {
  .ruler {
    grid-template-columns: 1fr;
    gap: 8px;
  }
  .left :deep(.picture) {
    width: auto;
    height: 46vh;
    justify-self: center;
  }
}
</style>
