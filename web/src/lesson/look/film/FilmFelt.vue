<script setup lang="ts">
// Feel against real: the student points on the figure to where they believe it is, and only then is
// the picture shown, with the difference. It is kept as a feel with its truth.
import { computed, ref, useTemplateRef, watch } from 'vue'
import { useKnowledge } from '@/api/knowledge'
import PosedFigure from '@/drawing/PosedFigure.vue'
import CmField from '@/lesson/look/film/CmField.vue'
import { canBeFelt, feltAs, feltAt, placeOfFelt, poseOf } from '@/lesson/look/film/felt'
import FilmPicture from '@/lesson/look/film/FilmPicture.vue'
import FilmStills from '@/lesson/look/film/FilmStills.vue'
import KeepStill from '@/lesson/look/film/KeepStill.vue'
import { EVENTS, inPicture, mirrored, wantedBy, type Place } from '@/lesson/look/film/marking'
import type { useFilm } from '@/lesson/look/film/useFilm'
import { useLessonContext } from '@/lesson/lessonContext'
import ChooseOne from '@/ui/ChooseOne.vue'

const props = defineProps<{ ruler: ReturnType<typeof useFilm> }>()
const emit = defineEmits<{ measure: [id: string] }>()
const known = useKnowledge()
const { lesson } = useLessonContext()
const { film, marks, id } = props.ruler
const hand = computed(() => lesson.value.student.handedness)

const eventWord = (event: string) => EVENTS.find((e) => e.id === event)?.word.toLowerCase() ?? event
const measures = computed(() => props.ruler.measures.value.filter(canBeFelt))
const options = computed(() =>
  measures.value.map((m) => ({ id: m.id, word: `${m.name}, ${eventWord(m.event)}` })),
)
const chosenId = ref<string | null>(null)
const measure = computed(
  () => measures.value.find((m) => m.id === chosenId.value) ?? measures.value[0] ?? null,
)
const point = computed(() => {
  const joint = measure.value ? feltAs(measure.value) : ''
  return known.all.film.points.find((p) => p.id === joint)?.name ?? `the ${joint}`
})
const felt = computed(() => (measure.value ? marks.value?.felt?.[measure.value.id] : undefined))
const found = computed(() =>
  props.ruler.read.value?.measures.find((m) => m.id === measure.value?.id),
)
const at = computed(() => (measure.value ? marks.value?.events?.[measure.value.event] : undefined))
/** The picture stays covered until the student has pointed. */
const covered = computed(() => felt.value === undefined)
watch(
  [at, covered],
  ([frame, hidden]) => {
    if (frame !== undefined && !hidden) props.ruler.show(frame)
  },
  { immediate: true },
)

const figure = useTemplateRef<HTMLDivElement>('figure')
const WIDE = 100
const HIGH = 120
const mark = computed((): Place | null => {
  if (!measure.value || felt.value === undefined) return null
  const place = placeOfFelt(measure.value, felt.value, known.all.film)
  return place && mirrored(place, WIDE, hand.value)
})
function pointed(event: PointerEvent): void {
  const box = figure.value?.getBoundingClientRect()
  if (!box || !measure.value) return
  const x = ((event.clientX - box.left) / box.width) * WIDE
  const y = ((event.clientY - box.top) / box.height) * HIGH
  const said = feltAt(measure.value, mirrored([x, y], WIDE, hand.value), known.all.film)
  if (said !== null) props.ruler.feel(measure.value.id, said)
}
const limits = computed(() => known.all.film.limits.felt_cm)

const drawn = computed(() => {
  if (!measure.value || !found.value) return []
  const places = wantedBy(measure.value).flatMap((w) => {
    const place = marks.value?.points?.[w.point]?.[w.event]
    return place ? [place as Place] : []
  })
  return [{ id: measure.value.id, places, text: `${found.value.value.toFixed(0)} cm` }]
})
const sent = computed(() => inPicture(drawn.value, film.value?.width ?? 0, hand.value))
const picture = useTemplateRef<InstanceType<typeof FilmPicture>>('picture')
</script>

<template>
  <div v-if="measure && film && marks" class="felt">
    <div class="row">
      <ChooseOne
        name="What is felt"
        :options="options"
        :on="measure.id"
        class="which"
        @chosen="(m) => (chosenId = m)"
      />
    </div>
    <p class="asked strong" role="status" data-testid="felt-asked">
      {{
        covered
          ? `Where do you believe ${point} is at ${eventWord(measure.event)}? Point to it on the figure.`
          : (found?.felt ?? `Touch ${point} on the film to see how right that is.`)
      }}
    </p>
    <div class="two">
      <div>
        <div
          ref="figure"
          class="figure"
          data-testid="felt-figure"
          :aria-label="`Point to ${point}`"
          @pointerup="pointed"
        >
          <PosedFigure
            :view="measure.view"
            :pose="poseOf(measure, known.all.film)"
            :hand="hand"
            :word="`The figure at ${eventWord(measure.event)}`"
          />
          <svg v-if="mark" class="mark" :viewBox="`0 0 ${WIDE} ${HIGH}`" aria-hidden="true">
            <circle :cx="mark[0]" :cy="mark[1]" r="4" />
            <path :d="`M${mark[0] - 7} ${mark[1]}h14M${mark[0]} ${mark[1] - 7}v14`" />
          </svg>
        </div>
        <div class="row">
          <CmField
            :name="`Felt: ${measure.name}, cm`"
            :value="felt ?? null"
            :limits="limits"
            @typed="(cm) => ruler.feel(measure!.id, cm)"
          />
          <v-btn v-if="!covered" variant="text" @click="ruler.feel(measure.id, null)"
            >Ask again</v-btn
          >
        </div>
      </div>
      <p v-if="covered" class="cover quiet">The picture is shown once the student has pointed.</p>
      <div v-else-if="at === undefined" class="cover">
        <p>Mark “{{ eventWord(measure.event) }}” in the film first, under Measure.</p>
      </div>
      <div v-else class="real">
        <FilmPicture
          ref="picture"
          :film="film"
          :frame="ruler.frame.value"
          :marks="{ ...marks, ground: null, scale: null }"
          :hand="hand"
          :points="[]"
          :drawn="drawn"
          :asking="null"
          :rate="null"
        />
        <v-btn v-if="!found" :disabled="!marks.scale" @click="emit('measure', measure.id)"
          >Measure it</v-btn
        >
        <KeepStill
          v-else
          :film-id="id"
          :event="measure.event"
          :measure="measure.id"
          :drawn="sent"
          :source="() => picture?.source() ?? null"
          :size="film"
        />
      </div>
    </div>
    <FilmStills />
  </div>
</template>

<style scoped>
.felt {
  grid-column: 1 / -1;
  display: grid;
  gap: 10px;
  align-content: start;
}
.which {
  min-width: 300px;
}
.asked {
  font-size: var(--text-lead);
  min-height: 1.5em;
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 16px;
  align-items: start;
  max-width: 700px;
}
.figure {
  position: relative;
  border: 1.5px solid var(--line);
  border-radius: var(--corner);
  cursor: crosshair;
  touch-action: none;
}
.figure :deep(.posed) {
  width: 100%;
  height: auto;
}
.mark {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
.mark circle,
.mark path {
  fill: none;
  stroke: var(--clay);
  stroke-width: 1.5;
}
.row {
  display: flex;
  align-items: center;
  gap: 8px;
  margin-top: 6px;
}
.cover {
  display: grid;
  place-items: center;
  min-height: 300px;
  padding: 20px;
  text-align: center;
  border: 1.5px dashed var(--line);
  border-radius: var(--corner);
}
.real {
  display: grid;
  gap: 8px;
}
.real {
  --tall: min(52vh, 480px);
}
</style>
