<script setup lang="ts">
// Before a film is under the ruler: where the camera stood, which file, and what was marked already.
import { computed, onMounted, ref } from 'vue'
import FilmRecorder from '@/lesson/look/film/FilmRecorder.vue'
import { forgetFilm, keptFilms, openKept, type KeptFilm } from '@/lesson/look/film/keptFilms'
import type { Marks } from '@/lesson/look/film/marking'
import type { useFilm } from '@/lesson/look/film/useFilm'
import { VIEWS, viewWord } from '@/lesson/look/film/views'
import { useLessonContext } from '@/lesson/lessonContext'
import { useLast } from '@/lesson/useLast'
import { dayWord } from '@/ui/dates'
import OneOf from '@/ui/OneOf.vue'
import { count } from '@/ui/words'

const props = defineProps<{ ruler: ReturnType<typeof useFilm> }>()
const view = ref<Marks['view']>('down_the_line')
const last = useLast(useLessonContext().open)
/** The same place again, so that two films can be held against each other. */
const stoodBefore = computed(() => {
  const camera = last.value?.cameras.find((c) => c.view === view.value)
  if (!camera) return ''
  const said = [
    camera.distance_cm == null ? '' : `${(camera.distance_cm / 100).toFixed(1)} m away`,
    camera.off_line_cm == null ? '' : `${camera.off_line_cm.toFixed(0)} cm beside its line`,
  ].filter(Boolean)
  if (!said.length) return 'Last time nobody said where the camera stood; the usual place is taken.'
  return `Last time the camera stood ${said.join(', ')}: the same again is taken.`
})
const opening = ref(false)
const filming = ref(false)
const kept = ref<KeptFilm[]>([])
const untilOf = (id: string) => kept.value.find((k) => k.id === id)?.until ?? null
const deleteWord = (id: string) => (untilOf(id) ? 'Delete marks and film' : 'Delete marks')
onMounted(async () => {
  kept.value = await keptFilms()
})

async function taking(taken: Promise<void>): Promise<void> {
  opening.value = true
  await taken
  opening.value = false
}
const take = (file: File, recorded = false) => taking(props.ruler.take(file, view.value, recorded))
const takeFirst = (files: readonly File[]) => taking(props.ruler.takeFirst(files, view.value))
/** A film that is kept on this device goes on where it was left. */
async function goOn(id: string, from: Marks['view']): Promise<void> {
  view.value = from
  const file = await openKept(id)
  if (file) await take(file)
}
async function remove(id: string): Promise<void> {
  props.ruler.remove(id)
  await forgetFilm(id)
  kept.value = await keptFilms()
}
</script>

<template>
  <div
    class="begin"
    @dragover.prevent
    @drop.prevent="(e: DragEvent) => takeFirst([...(e.dataTransfer?.files ?? [])])"
  >
    <p class="strong">Where did the camera stand?</p>
    <OneOf name="Where the camera stood" :words="VIEWS" :on="view" @chosen="(v) => (view = v)" />
    <p v-if="stoodBefore" class="quiet" data-testid="camera-before">{{ stoodBefore }}</p>
    <FilmRecorder
      v-if="filming"
      @recorded="
        (film) => {
          filming = false
          void take(film, true)
        }
      "
      @away="filming = false"
    />
    <v-btn v-else @click="filming = true">Film with this device</v-btn>
    <v-file-input
      label="Open a film, or drop it here"
      accept="video/*"
      multiple
      :loading="opening"
      hide-details
      @update:model-value="(f: File | File[]) => takeFirst([f].flat())"
    />
    <p class="quiet">
      It is not sent anywhere: only what you touch on it is kept. One swing, the camera at hand
      height and still.
    </p>
    <template v-if="ruler.films.found.value?.length">
      <h2>Marked already</h2>
      <p class="quiet">Open the same file again to go on with its marks.</p>
      <ul>
        <li v-for="f in ruler.films.found.value" :key="f.id">
          <span>{{ f.name || 'A film' }}, {{ viewWord(f.marks.view) }}</span>
          <span class="quiet"
            >{{ count(f.measures.length, 'measure')
            }}{{ untilOf(f.id) ? `, kept here until ${dayWord(untilOf(f.id)!)}` : '' }}</span
          >
          <v-btn
            v-if="untilOf(f.id)"
            size="small"
            :aria-label="`Open ${f.name || 'a film'}`"
            @click="goOn(f.id, f.marks.view)"
            >Open</v-btn
          >
          <v-btn
            variant="text"
            size="small"
            :aria-label="`${deleteWord(f.id)} of ${f.name || 'a film'}`"
            @click="remove(f.id)"
            >{{ deleteWord(f.id) }}</v-btn
          >
        </li>
      </ul>
    </template>
  </div>
</template>

<style scoped>
.begin {
  grid-column: 1 / -1;
  display: grid;
  gap: 12px;
  align-content: start;
  justify-items: start;
  max-width: 560px;
}
.begin > * {
  max-width: 100%;
}
.begin :deep(.v-file-input) {
  width: 100%;
}
ul {
  width: 100%;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 4px 12px;
  border-bottom: 1px solid var(--line);
}
</style>
