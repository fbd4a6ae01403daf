<script setup lang="ts">
// A returning student starts with what home practice showed.
import { useKnowledge } from '@/api/knowledge'
import { useOpenLesson } from '@/lesson/openLesson'
import { computed } from 'vue'
import { dayWord } from '@/ui/dates'
import { capital, count } from '@/ui/words'
const known = useKnowledge()
const { lesson, words } = useOpenLesson()

const last = computed(() => lesson.value.earlier[0] ?? null)
const said = computed(() => {
  const before = last.value
  if (!before) return null
  const cause = known.cause(before.cause)?.name ?? before.cause
  const drill = known.drill(before.drill)?.name
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
  border-left: 4px solid var(--slate);
  background: var(--panel);
}
a {
  color: inherit;
}
</style>
