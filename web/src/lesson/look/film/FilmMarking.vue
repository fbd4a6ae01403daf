<script setup lang="ts">
// The ruler itself: the picture as large as the screen lets it be, and beside it what is to be done.
import { computed, ref, useTemplateRef } from 'vue'
import { useKnowledge } from '@/api/knowledge'
import CameraHeld from '@/lesson/look/film/CameraHeld.vue'
import CameraPlace from '@/lesson/look/film/CameraPlace.vue'
import { stretchPx } from '@/lesson/look/film/expected'
import FilmEvents from '@/lesson/look/film/FilmEvents.vue'
import FilmMeasures from '@/lesson/look/film/FilmMeasures.vue'
import FilmPicture from '@/lesson/look/film/FilmPicture.vue'
import FilmScale from '@/lesson/look/film/FilmScale.vue'
import FilmSteps from '@/lesson/look/film/FilmSteps.vue'
import FilmStills from '@/lesson/look/film/FilmStills.vue'
import KeepFilm from '@/lesson/look/film/KeepFilm.vue'
import KeepStill from '@/lesson/look/film/KeepStill.vue'
import {
  EVENTS,
  handIn,
  inPicture,
  wantedBy,
  type Place,
  type SwingEvent,
} from '@/lesson/look/film/marking'
import type { useFilm } from '@/lesson/look/film/useFilm'
import { useLessonContext } from '@/lesson/lessonContext'

const { ruler } = defineProps<{ ruler: ReturnType<typeof useFilm> }>()
const known = useKnowledge()
const { lesson } = useLessonContext()
const { film, marks, frame, asking, elsewhere, expected, id } = ruler
const { playing, speed, rate } = ruler

const hand = computed(() =>
  marks.value
    ? handIn(marks.value, lesson.value.student.handedness)
    : lesson.value.student.handedness,
)
const stretch = computed(() => (marks.value ? stretchPx(marks.value, known.all.film) : 1))
const points = computed(() => {
  const at = Object.entries(marks.value?.events ?? {}).filter(([, f]) => f === frame.value)
  return known.all.film.points.flatMap((p) =>
    at.flatMap(([event]) => {
      const place = marks.value?.points?.[p.id]?.[event as SwingEvent]
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
/** What there is to do where no point is asked for. */
const then = computed(() => {
  if (!Object.keys(marks.value?.events ?? {}).length)
    return 'First the events: let the finder look, or mark them on their pictures.'
  if (!marks.value?.scale)
    return 'Now the scale: touch both ends of something whose length is known.'
  const wanted = ruler.read.value?.wanted ?? []
  if (wanted.some((w) => w.tells))
    return 'What would tell most lies on a picture that is not marked yet.'
  if (wanted.length)
    return 'Enough is touched: what is left tells next to nothing about where to start.'
  return 'Everything on this film is measured.'
})
const otherHand = computed(() => ruler.read.value?.other_hand ?? false)
const isDown = computed(() => marks.value?.view === 'down_the_line')
/** A film that would be lost is put away only when that is asked for twice. */
const leaving = ref(false)
function putAway(): void {
  if (ruler.onlyHere.value && !leaving.value) leaving.value = true
  else ruler.putAway()
}
function kept(): void {
  ruler.isSafe()
  leaving.value = false
  ruler.list()
}
const picture = useTemplateRef<InstanceType<typeof FilmPicture>>('picture')
const asks = useTemplateRef<HTMLElement>('asks')
/** On a phone what asks for a touch stands above the picture that is touched. */
function toPicture(): void {
  asks.value?.scrollIntoView({ block: 'nearest' })
}
const event = computed(() => EVENTS.find((e) => marks.value?.events?.[e.id] === frame.value))
const sent = computed(() => inPicture(drawn.value, film.value?.width ?? 0, hand.value))
</script>

<template>
  <template v-if="film && marks">
    <p ref="asks" class="asked strong" role="status" data-testid="film-asked">
      <template v-if="elsewhere">
        Next, on another picture: {{ elsewhere }}
        <v-btn size="small" @click="ruler.follow">Show it</v-btn>
      </template>
      <template v-else>{{ asking ?? then }}</template>
    </p>
    <div class="left">
      <FilmPicture
        ref="picture"
        :film="film"
        :frame="frame"
        :marks="marks"
        :hand="hand"
        :points="points"
        :drawn="drawn"
        :asking="asking"
        :expected="expected"
        :stretch="stretch"
        :rate="rate"
        @touched="ruler.touch"
        @moved="ruler.move"
        @at="(f) => (frame = f)"
        @ended="playing = false"
      />
    </div>
    <div class="right">
      <FilmSteps
        v-model:frame="frame"
        v-model:playing="playing"
        v-model:speed="speed"
        :frames="film.frames"
        :time="`${(frame / marks.fps).toFixed(3)} s`"
        @step="ruler.step"
      />
      <p v-if="otherHand" role="alert" class="problem">
        {{
          isDown
            ? 'Here the ball lies on the other side of the student than it should.'
            : 'Here lead and trail lie the other way round than they should.'
        }}
        Is this film mirrored, or of somebody else? Nothing is measured on it until that is said.
        <v-btn size="small" @click="ruler.turnRound">It is mirrored</v-btn>
      </p>
      <FilmEvents :ruler="ruler" />
      <CameraPlace :ruler="ruler" :hand="lesson.student.handedness" />
      <CameraHeld :ruler="ruler" />
      <FilmScale :ruler="ruler" @asked="toPicture" />
      <FilmMeasures :ruler="ruler" @asked="toPicture" />
      <KeepStill
        :film-id="id"
        :event="event?.id ?? null"
        :drawn="sent"
        :source="() => picture?.source() ?? null"
        :size="film"
      />
      <FilmStills />
      <KeepFilm :id="id" :film="film" @kept="kept" />
      <p v-if="leaving" role="alert" class="problem">
        This film was filmed here and is nowhere else: keep it on this device, or save the file.
      </p>
      <div class="row">
        <v-btn variant="text" :href="film.url" :download="film.name" @click="ruler.isSafe"
          >Save the file</v-btn
        >
        <v-btn variant="text" @click="putAway">{{
          leaving ? 'Put it away all the same' : 'Put this film away'
        }}</v-btn>
      </div>
    </div>
  </template>
</template>

<style scoped>
.right {
  display: grid;
  gap: 12px;
  align-content: start;
  overflow-y: auto;
  padding-right: 12px;
}
.asked {
  grid-column: 1 / -1;
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: 44px;
  background: var(--paper);
  font-size: var(--text-lead);
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.left :deep(.pane) {
  width: 100%;
  height: 100%;
  aspect-ratio: auto;
}
@media (max-width: 800px) {
  /* picture, what is asked and the events stay on one screen */
  .asked,
  .left {
    position: sticky;
    top: -6px;
    z-index: 1;
  }
  .left {
    top: 40px;
    height: 46dvh;
  }
  .right {
    overflow: visible;
    padding-right: 0;
  }
}
</style>
