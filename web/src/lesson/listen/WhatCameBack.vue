<script setup lang="ts">
// A returning student starts with what home practice showed.
import { computed } from 'vue'
import type { Knowledge, Lesson } from '@/api/client'
import { dayWord } from '@/ui/dates'
import { useSpeaker } from '@/ui/useSpeaker'
import { capital, count } from '@/ui/words'

const props = defineProps<{ lesson: Lesson; knowledge: Knowledge }>()
const { words } = useSpeaker(() => props.lesson.student.handedness)
const last = computed(() => props.lesson.earlier[0] ?? null)
const said = computed(() => {
  const before = last.value
  if (!before) return null
  const cause = props.knowledge.causes.find((c) => c.id === before.cause)?.name ?? before.cause
  const drill = props.knowledge.drills.find((d) => d.id === before.drill)?.name
  const back = before.follow_up
  const practice = [
    drill ? `“${drill}”` : '',
    back?.practised != null ? `practised ${count(back.practised, 'time')}` : '',
    back?.passes != null ? `${String(back.passes)} right` : '',
  ].filter(Boolean)
  return {
    cause: words(cause),
    verdict: back?.verdict ?? 'not asked yet',
    practice: capital(practice.join(', ')),
    course: back?.course ?? '',
  }
})
</script>

<template>
  <aside v-if="last && said" class="back" aria-label="From the last lesson" data-testid="came-back">
    <p>
      <strong>Lesson of {{ dayWord(last.started_at) }}:</strong> {{ said.cause }},
      <strong>{{ said.verdict }}</strong>.
      <template v-if="said.practice">{{ said.practice }}.</template>
      <template v-if="said.course"> On the course: “{{ said.course }}”</template>
    </p>
    <p class="quiet">
      <template v-if="lesson.reopens">Taken up again: a short new baseline first. </template>
      <router-link :to="{ name: 'lesson', params: { id: last.lesson_id, stage: 'send' } }"
        >That lesson</router-link
      >
    </p>
  </aside>
</template>

<style scoped>
.back {
  padding: 10px 14px;
  border-left: 4px solid rgb(var(--v-theme-slate));
  background: rgb(var(--v-theme-panel));
}
a {
  color: inherit;
}
</style>
