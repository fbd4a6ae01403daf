<script setup lang="ts">
// The ruler itself: eight events, a scale, and the few points that the looks need.
import { computed, ref, useTemplateRef } from 'vue'
import { useKnowledge } from '@/api/knowledge'
import CmField from '@/lesson/look/film/CmField.vue'
import FilmPicture from '@/lesson/look/film/FilmPicture.vue'
import FilmMeasures from '@/lesson/look/film/FilmMeasures.vue'
import FilmSteps from '@/lesson/look/film/FilmSteps.vue'
import FilmStills from '@/lesson/look/film/FilmStills.vue'
import KeepFilm from '@/lesson/look/film/KeepFilm.vue'
import KeepStill from '@/lesson/look/film/KeepStill.vue'
import {
  EVENTS,
  inPicture,
  wantedBy,
  type Place,
  type SwingEvent,
} from '@/lesson/look/film/marking'
import type { useFilm } from '@/lesson/look/film/useFilm'
import { useLessonContext } from '@/lesson/lessonContext'
import ChooseOne from '@/ui/ChooseOne.vue'

const { ruler } = defineProps<{ ruler: ReturnType<typeof useFilm> }>()
const known = useKnowledge()
const { lesson } = useLessonContext()
const { film, marks, frame, finding, ends, scaleBy, scaleCm, asking, elsewhere, id } = ruler
const { playing, speed, rate } = ruler

const usual = computed(() => known.all.film.camera)
const camera = computed(() => [
  {
    id: 'distance_cm' as const,
    word: 'From the player, cm',
    usual: usual.value.distance_cm.toFixed(0),
  },
  {
    id: 'off_line_cm' as const,
    word: 'Beside its line, cm',
    usual: usual.value.off_line_cm.toFixed(0),
  },
])
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
const limits = computed(() => known.all.film.limits)
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
/** On a phone what asks for a touch stands below the picture that is touched. */
function toPicture(): void {
  asks.value?.scrollIntoView({ block: 'nearest' })
}
function touchEnds(what: 'scale' | 'ground'): void {
  ends.value = { what, first: null }
  toPicture()
}
const event = computed(() => EVENTS.find((e) => marks.value?.events?.[e.id] === frame.value))
const sent = computed(() =>
  inPicture(drawn.value, film.value?.width ?? 0, lesson.value.student.handedness),
)
</script>

<template>
  <template v-if="film && marks">
    <p ref="asks" class="asked strong" role="status" data-testid="film-asked">
      <template v-if="elsewhere">
        Next, on another picture: {{ elsewhere }}
        <v-btn size="small" @click="ruler.follow">Show it</v-btn>
      </template>
      <template v-else>{{
        asking ?? (marks.scale ? 'Nothing more to touch.' : 'First the events, then a scale.')
      }}</template>
    </p>
    <div class="left">
      <FilmPicture
        ref="picture"
        :film="film"
        :frame="frame"
        :marks="marks"
        :hand="lesson.student.handedness"
        :points="points"
        :drawn="drawn"
        :asking="asking"
        :rate="rate"
        @touched="ruler.touch"
        @moved="ruler.move"
        @at="(f) => (frame = f)"
        @ended="playing = false"
      />
      <FilmSteps
        v-model:frame="frame"
        v-model:playing="playing"
        v-model:speed="speed"
        :frames="film.frames"
        :time="`${(frame / marks.fps).toFixed(3)} s`"
        @step="ruler.step"
      />
    </div>
    <div class="right">
      <div class="events" role="group" aria-label="Events of the swing">
        <v-btn
          v-for="(e, i) in EVENTS"
          :key="e.id"
          :aria-keyshortcuts="String(i + 1)"
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
          :on="event?.id ?? null"
          class="which"
          @chosen="(e) => ruler.mark(e)"
        />
      </div>
      <p v-if="finding !== null" class="quiet" role="status">
        Looking through the film, {{ Math.round(finding * 100) }} %
      </p>
      <p v-else-if="ruler.sure.value" class="quiet" role="status">{{ ruler.sure.value }}</p>
      <p v-if="film.uneven" role="note">
        The pictures of this film come at uneven times: a step may show the same picture twice, and
        an event is good to a picture.
      </p>
      <p v-if="slow" role="note">
        From top to impact takes longer than a downswing can: was it filmed at {{ slow }} pictures a
        second? <v-btn size="small" @click="ruler.filmedAt(slow)">Yes, at {{ slow }}</v-btn>
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
        <CmField
          v-if="needsLength"
          name="Its length, cm"
          :value="scaleCm"
          :limits="limits.scale_cm"
          @typed="(cm) => (scaleCm = cm)"
        />
        <v-btn :disabled="needsLength && !scaleCm" @click="touchEnds('scale')">{{
          marks.scale ? 'Scale again' : 'Touch the scale'
        }}</v-btn>
        <v-btn @click="touchEnds('ground')">{{
          marks.ground ? 'Ground again' : 'Touch the ground'
        }}</v-btn>
      </div>
      <details>
        <summary>Where the camera stood</summary>
        <div class="row">
          <CmField
            v-for="c in camera"
            :key="c.id"
            :name="c.word"
            :value="marks[c.id] ?? null"
            :limits="limits[c.id]"
            :usual="c.usual"
            @typed="(cm) => ruler.camera(c.id, cm)"
          />
        </div>
        <p class="quiet">
          Left out, it is taken to stand {{ (usual.distance_cm / 100).toFixed(0) }} m away and on
          its line, give or take {{ usual.off_line_cm.toFixed(0) }} cm. Farther and truer makes the
          doubt smaller: 30 cm beside the line turns what it sees by 4°.
        </p>
      </details>
      <FilmMeasures :ruler="ruler" @asked="toPicture" />
      <KeepStill
        :film-id="id"
        :event="event?.id ?? null"
        :drawn="sent"
        :video="() => picture?.video() ?? null"
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
.left,
.right {
  display: grid;
  gap: 10px;
  align-content: start;
}
.asked {
  grid-column: 1 / -1;
  min-height: 44px;
  padding-top: 6px;
  background: var(--paper);
  font-size: var(--text-lead);
}
.events,
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px;
}
.events .number {
  margin-left: 6px;
}
.which {
  min-width: 200px;
}
summary {
  min-height: 48px;
  line-height: 48px;
  cursor: pointer;
}
/* the picture and its steps stand on one screen, and stay there while the measures are read */
.asked,
.left {
  position: sticky;
  top: -6px;
  z-index: 1;
}
.left {
  align-self: start;
  top: 54px;
  --tall: max(300px, calc(100vh - 404px));
  grid-template-columns: minmax(0, 1fr);
}
.left :deep(.picture) {
  justify-self: center;
}
@media (max-width: 800px) {
  .asked,
  .left {
    position: static;
  }
  .left {
    --tall: 46vh;
  }
}
</style>
