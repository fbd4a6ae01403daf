<script setup lang="ts">
// Two films and the pressure of a swing, tied at the ball or at the top, scrubbed as one.
import { computed, ref } from 'vue'
import FootPrints from '@/drawing/FootPrints.vue'
import PressureCurve from '@/drawing/PressureCurve.vue'
import FilmFrame from '@/lesson/look/film/FilmFrame.vue'
import FilmSteps from '@/lesson/look/film/FilmSteps.vue'
import OtherFilm from '@/lesson/look/film/OtherFilm.vue'
import type { SwingEvent } from '@/lesson/look/film/marking'
import { frameSince, sinceTie, tiesOf } from '@/lesson/look/film/syncFilms'
import type { useFilm } from '@/lesson/look/film/useFilm'
import type { useOtherFilm } from '@/lesson/look/film/useOtherFilm'
import { rateFor } from '@/lesson/look/film/usePlaying'
import { useLessonContext } from '@/lesson/lessonContext'
import TraceTape from '@/lesson/pressure/TraceTape.vue'
import { useTraces } from '@/lesson/pressure/useTraces'
import OneOf from '@/ui/OneOf.vue'
import { feet } from '@/ui/words'

const props = defineProps<{
  ruler: ReturnType<typeof useFilm>
  other: ReturnType<typeof useOtherFilm>
}>()
const { open, lesson, speaker } = useLessonContext()
const { film, marks, frame, playing, speed, rate } = props.ruler
const { traces, shown, chosenId } = useTraces(open)
const read = computed(() => shown.value?.read ?? null)
const footWords = computed(() => feet(speaker.value))

const ties = computed(() =>
  tiesOf([
    Object.keys(marks.value?.events ?? {}),
    ...(props.other.film.value ? [Object.keys(props.other.marks.value?.events ?? {})] : []),
  ]),
)
const wantedTie = ref<SwingEvent>('impact')
const tie = computed(
  () => ties.value.find((t) => t.id === wantedTie.value) ?? ties.value[0] ?? null,
)
/** Seconds of the swing from the tie. */
const now = computed(() =>
  marks.value && tie.value ? sinceTie(marks.value, tie.value.id, frame.value) : 0,
)
const otherFrame = computed(() => {
  const { film: second, marks: its } = props.other
  if (!second.value || !its.value || !tie.value) return 0
  return frameSince(its.value, tie.value.id, now.value, second.value.frames)
})
const otherRate = computed(() => {
  const second = props.other.film.value
  if (!playing.value || !second || !props.other.marks.value) return null
  return rateFor(speed.value, props.other.marks.value.fps, second.plays)
})
const traceTie = computed(() => (tie.value && read.value?.events[tie.value.id].t_s) ?? 0)
const traceNow = computed(() => traceTie.value + now.value)
/** From the pressure's curve back to the pictures. */
function scrub(t: number): void {
  if (!film.value || !marks.value || !tie.value) return
  playing.value = false
  frame.value = frameSince(marks.value, tie.value.id, t - traceTie.value, film.value.frames)
}
const time = computed(() => {
  const word = tie.value?.word.toLowerCase() ?? ''
  const side = now.value < 0 ? 'before' : 'after'
  return tie.value ? `${Math.abs(now.value).toFixed(3)} s ${side} ${word}` : ''
})
</script>

<template>
  <div class="together">
    <div class="choices">
      <OtherFilm :other="other" :view="null" name="Second film" />
      <OneOf
        v-if="ties.length"
        name="Tied at"
        :words="ties"
        :on="tie?.id ?? null"
        @chosen="(t) => (wantedTie = t)"
      />
    </div>
    <p v-if="!tie" class="strong">
      Mark impact or top in {{ other.film.value ? 'both films' : 'this film' }}: there they are
      tied.
    </p>
    <template v-else-if="film">
      <div class="pictures">
        <FilmFrame
          :film="film"
          :frame="frame"
          :rate="rate"
          stepped
          data-testid="film-one"
          @at="(f) => (frame = f)"
          @ended="playing = false"
        />
        <FilmFrame
          v-if="other.film.value"
          :film="other.film.value"
          :frame="otherFrame"
          :rate="otherRate"
          stepped
          data-testid="film-other"
        />
        <FootPrints
          v-if="read"
          :read="read"
          :now="traceNow"
          :hand="lesson.student.handedness"
          :foot-words="footWords"
        />
      </div>
      <FilmSteps
        v-model:frame="frame"
        v-model:playing="playing"
        v-model:speed="speed"
        :frames="film.frames"
        :time="time"
        @step="ruler.step"
      />
      <template v-if="read">
        <TraceTape v-if="traces.length > 1" v-model="chosenId" :traces="traces" :odd="null" />
        <div class="curve">
          <PressureCurve
            :read="read"
            :now="traceNow"
            :under="null"
            :foot-words="footWords"
            @scrubbed="scrub"
          />
        </div>
      </template>
      <p v-else class="quiet">
        No pressure trace is in this lesson yet: recorded on the Pressure page, it stands here under
        the pictures.
      </p>
    </template>
  </div>
</template>

<style scoped>
.together {
  grid-column: 1 / -1;
  display: grid;
  gap: 10px;
  align-content: start;
}
.pictures {
  --tall: min(46vh, 420px);
  display: flex;
  align-items: start;
  gap: 10px;
}
.pictures > .frame {
  flex: 0 1 calc(var(--ratio) * var(--tall));
  min-width: 0;
}
.pictures > :last-child:not(.frame) {
  flex: 1 1 160px;
  min-width: 130px;
  max-width: 240px;
  height: var(--tall);
}
.curve {
  height: 230px;
}
@media (max-width: 600px) {
  .pictures {
    --tall: 34vh;
    overflow-x: auto;
  }
}
</style>
