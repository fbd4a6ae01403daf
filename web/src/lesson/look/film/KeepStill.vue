<script setup lang="ts">
// One picture is kept when who is on it agrees; of a junior, when a guardian does.
import { computed, ref } from 'vue'
import { newId } from '@/sync/page'
import type { Drawn, SwingEvent } from '@/lesson/look/film/marking'
import { stillOf } from '@/lesson/look/film/stillOf'
import type { Pane } from '@/lesson/look/film/zoom'
import { useLessonContext } from '@/lesson/lessonContext'

const props = defineProps<{
  filmId: string
  event: SwingEvent | null
  /** What the picture shows, where it is about one measure. */
  measure?: string | null
  drawn: readonly Drawn[]
  /** The picture, and how large it is. */
  source: () => CanvasImageSource | null
  size: Pane
}>()
const MOST = 2
const { open, lesson } = useLessonContext()
const asking = ref(false)
const problem = ref('')
const junior = computed(() => lesson.value.student.age_group === 'junior')
const full = computed(() => lesson.value.stills.length >= MOST)

function keep(): void {
  const source = props.source()
  const picture = source && stillOf(source, props.size, props.drawn)
  asking.value = false
  if (!picture) {
    problem.value = 'This browser cannot read pictures out of a film.'
    return
  }
  open.putStill(newId(), {
    film_id: props.filmId,
    event: props.event,
    measure: props.measure ?? null,
    on_sheet: false,
    consent: junior.value ? 'guardian' : 'student',
    picture,
  })
}
</script>

<template>
  <div class="keep-still">
    <p v-if="problem" role="alert" class="problem">{{ problem }}</p>
    <p v-if="full" class="quiet">Two stills are kept of this lesson; delete one to keep another.</p>
    <template v-else-if="asking">
      <p>
        {{
          junior
            ? 'Does a parent or guardian agree that this picture is kept?'
            : 'Do you agree that this picture of you is kept?'
        }}
      </p>
      <div class="row">
        <v-btn color="primary" variant="flat" @click="keep">{{
          junior ? 'The guardian agrees' : 'The student agrees'
        }}</v-btn>
        <v-btn @click="asking = false">Do not keep it</v-btn>
      </div>
    </template>
    <v-btn v-else @click="asking = true">Keep this picture</v-btn>
  </div>
</template>

<style scoped>
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
