<script setup lang="ts">
// A film read inside the lesson: measured, tied to another one and to the pressure, held against an
// earlier one, and against what the student believes. It stays on this device.
import { computed, onUnmounted, ref, toRef, watch } from 'vue'
import FilmBegin from '@/lesson/look/film/FilmBegin.vue'
import FilmCompared from '@/lesson/look/film/FilmCompared.vue'
import FilmFelt from '@/lesson/look/film/FilmFelt.vue'
import FilmMarking from '@/lesson/look/film/FilmMarking.vue'
import FilmTogether from '@/lesson/look/film/FilmTogether.vue'
import { EVENTS } from '@/lesson/look/film/marking'
import { useFilm } from '@/lesson/look/film/useFilm'
import { useOtherFilm } from '@/lesson/look/film/useOtherFilm'
import { useLessonContext } from '@/lesson/lessonContext'
import ChooseOne from '@/ui/ChooseOne.vue'
import OneOf from '@/ui/OneOf.vue'
import { usePhone } from '@/ui/usePhone'

const props = defineProps<{ blockId: string | null }>()
const { open } = useLessonContext()
const ruler = useFilm(open, toRef(props, 'blockId'))
const other = useOtherFilm(open, ruler.id)
const { film, marks, problem, waits } = ruler

const MODES = [
  { id: 'measure', word: 'Measure' },
  { id: 'together', word: 'With film and pressure' },
  { id: 'compared', word: 'Before and after' },
  { id: 'felt', word: 'Feel and real' },
] as const
const isPhone = usePhone()
const mode = ref<(typeof MODES)[number]['id']>('measure')
const isOpen = computed(() => film.value !== null && marks.value !== null)

// a look may be seen on it for as long as it is open
watch(isOpen, (now) => {
  open.filmOpen.value = now
})
/** What is worked on is the largest thing: while points are touched all else folds away. */
const isTouched = computed(() => isOpen.value && mode.value === 'measure')
watch(isTouched, (now) => {
  open.filmTouched.value = now
})
onUnmounted(() => {
  open.filmOpen.value = false
  open.filmTouched.value = false
})

/** Where a point is still to be touched, that is asked for. */
function measure(id: string): void {
  mode.value = 'measure'
  ruler.askFor(id)
}
function keys(event: KeyboardEvent): void {
  // a field or the slider has its own arrows
  const inside = event.target instanceof Element && event.target !== event.currentTarget
  if (inside && event.target.closest('input, [role=slider], [role=combobox], [role=listbox]'))
    return
  if (event.ctrlKey || event.metaKey || event.altKey || !isOpen.value) return
  const step = { ArrowLeft: -1, ArrowRight: 1, PageUp: -10, PageDown: 10 }[event.key]
  const marked = mode.value === 'measure' ? EVENTS[Number(event.key) - 1] : undefined
  if (step !== undefined) ruler.step(step)
  else if (marked) ruler.mark(marked.id)
  else if (event.key === ' ' && event.target === event.currentTarget)
    ruler.playing.value = !ruler.playing.value
  else return
  event.preventDefault()
}
</script>

<template>
  <div
    :class="['ruler', { touched: isTouched }]"
    role="region"
    aria-label="Film"
    tabindex="0"
    @keydown="keys"
  >
    <p v-if="problem" role="alert" class="problem wide">{{ problem }}</p>
    <p v-if="waits" role="status" class="quiet wide">{{ waits }}</p>
    <FilmBegin v-if="!isOpen" :ruler="ruler" />
    <template v-else>
      <Teleport to="#film-uses">
        <ChooseOne
          v-if="isPhone"
          class="list"
          name="What the film is for"
          :options="MODES"
          :on="mode"
          @chosen="(m) => (mode = m)"
        />
        <OneOf
          v-else
          name="What the film is for"
          :words="MODES"
          :on="mode"
          @chosen="(m) => (mode = m)"
        />
      </Teleport>
      <FilmMarking v-if="mode === 'measure'" :ruler="ruler" />
      <FilmTogether v-else-if="mode === 'together'" :ruler="ruler" :other="other" />
      <FilmCompared v-else-if="mode === 'compared'" :ruler="ruler" :other="other" />
      <FilmFelt v-else :ruler="ruler" @measure="measure" />
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
  grid-auto-rows: max-content;
  gap: 16px;
  overflow-y: auto;
  /* room for what shows the focus */
  margin-left: -6px;
  padding: 6px 20px 24px 6px;
}
.ruler :deep(.choices) {
  display: flex;
  flex-wrap: wrap;
  align-items: start;
  gap: 8px 14px;
}
.ruler :deep(.choices > :first-child) {
  flex: 1 1 280px;
}
.ruler :deep(h2) {
  margin: 6px 0 4px;
  font-size: var(--text-lead);
}
/* the picture takes the height there is; what stands beside it goes up and down by itself */
.ruler.touched {
  grid-template-columns: minmax(0, 1fr) 420px;
  grid-template-rows: auto minmax(0, 1fr);
  grid-auto-rows: auto;
  align-content: stretch;
  gap: 6px 16px;
  padding-bottom: 8px;
}
.wide {
  grid-column: 1 / -1;
  justify-self: start;
}
.list {
  min-width: 200px;
}
@media (max-width: 1000px) {
  .ruler.touched {
    grid-template-columns: minmax(0, 1fr) 320px;
  }
}
@media (max-width: 800px) {
  .ruler,
  .ruler.touched {
    grid-template-columns: 1fr;
    grid-template-rows: none;
    gap: 8px;
  }
}
</style>
