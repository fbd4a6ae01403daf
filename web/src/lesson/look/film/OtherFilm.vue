<script setup lang="ts">
// Which second film, and its file where it is not kept on this device.
import { computed } from 'vue'
import type { Marks } from '@/lesson/look/film/marking'
import type { StudentFilm, useOtherFilm } from '@/lesson/look/film/useOtherFilm'
import { viewWord } from '@/lesson/look/film/views'
import { useLessonContext } from '@/lesson/lessonContext'
import ChooseOne from '@/ui/ChooseOne.vue'
import { recentWord } from '@/ui/dates'

const props = defineProps<{
  other: ReturnType<typeof useOtherFilm>
  /** Only films from this side; null: from both. */
  view: Marks['view'] | null
  name: string
}>()
const { lesson } = useLessonContext()

function wordOf(
  f: Pick<StudentFilm, 'id' | 'lesson_id' | 'on' | 'block' | 'name'> & {
    marks: { view: Marks['view'] }
  },
): string {
  const when = f.lesson_id === lesson.value.id ? 'this lesson' : recentWord(f.on)
  const what = f.block ? `, ${f.block}` : ''
  const here = props.other.kept.value.has(f.id) ? ', kept here' : ''
  return `${f.name || 'a film'}, ${viewWord(f.marks.view)}, ${when}${what}${here}`
}
const options = computed(() =>
  props.other.others.value
    .filter((f) => props.view === null || f.marks.view === props.view)
    .map((f) => ({ id: f.id, word: wordOf(f) })),
)
const chosen = computed(() => props.other.chosen.value)
</script>

<template>
  <div class="other">
    <p v-if="options.length === 0" class="quiet">
      {{
        view === null
          ? 'No other film of this student is marked yet.'
          : `No other film ${viewWord(view)} of this student is marked yet.`
      }}
      Put this one away and mark a second one first.
    </p>
    <ChooseOne
      v-else
      :name="name"
      :options="options"
      :on="chosen?.id ?? null"
      @chosen="(id) => other.choose(id)"
    />
    <p v-if="other.problem.value" role="alert" class="problem">{{ other.problem.value }}</p>
    <v-file-input
      v-if="chosen && !other.film.value"
      :label="`Open ${chosen.name || 'its file'}`"
      accept="video/*"
      :loading="other.opening.value"
      hide-details
      @update:model-value="
        (f: File | File[]) => {
          const [file] = [f].flat()
          if (file) void other.take(file)
        }
      "
    />
  </div>
</template>

<style scoped>
.other {
  display: grid;
  gap: 8px;
  max-width: 520px;
}
</style>
