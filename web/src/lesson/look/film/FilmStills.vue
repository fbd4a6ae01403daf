<script setup lang="ts">
// The pictures that are kept of this lesson: on the sheet or not, and deleted for good.
import { ref } from 'vue'
import { useKnowledge } from '@/api/knowledge'
import { EVENTS } from '@/lesson/look/film/marking'
import { useLessonContext } from '@/lesson/lessonContext'

const { open, lesson } = useLessonContext()
const known = useKnowledge()
const deleting = ref<string | null>(null)

type Still = (typeof lesson.value.stills)[number]
function wordOf(still: Still): string {
  const event = EVENTS.find((e) => e.id === still.event)?.word.toLowerCase()
  const measure = known.all.film.measures.find((m) => m.id === still.measure)?.name
  return [measure, event].filter(Boolean).join(', ') || 'a picture out of the film'
}
const addressOf = (still: Still) => `/api/lessons/${lesson.value.id}/stills/${still.id}/picture`
function remove(id: string): void {
  deleting.value = null
  open.deleteStill(id)
}
</script>

<template>
  <section v-if="lesson.stills.length" aria-labelledby="stills">
    <h2 id="stills">Stills kept</h2>
    <ul>
      <li v-for="s in lesson.stills" :key="s.id" data-testid="still">
        <img :src="addressOf(s)" :alt="`Still: ${wordOf(s)}`" />
        <div>
          <p>{{ wordOf(s) }}</p>
          <p class="quiet">
            {{ s.consent === 'guardian' ? 'A guardian' : 'The student' }} agreed to its being kept.
          </p>
          <v-checkbox
            :model-value="s.on_sheet"
            label="On the sheet"
            hide-details
            density="compact"
            @update:model-value="(on: unknown) => open.changeStill(s.id, { on_sheet: on === true })"
          />
          <template v-if="deleting === s.id">
            <p>
              It cannot be brought back. Backups made before hold it until they are thrown away,
              five weeks at most.
            </p>
            <v-btn size="small" color="primary" variant="flat" @click="remove(s.id)"
              >Delete it for good</v-btn
            >
            <v-btn size="small" @click="deleting = null">Keep it</v-btn>
          </template>
          <v-btn
            v-else
            size="small"
            variant="text"
            :aria-label="`Delete still: ${wordOf(s)}`"
            @click="deleting = s.id"
            >Delete</v-btn
          >
        </div>
      </li>
    </ul>
  </section>
</template>

<style scoped>
ul {
  display: flex;
  flex-wrap: wrap;
  gap: 14px;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  gap: 10px;
  max-width: 330px;
}
img {
  width: 84px;
  height: 150px;
  object-fit: cover;
  background: var(--line);
}
</style>
