<script setup lang="ts">
// When the student comes again: the day then shows it, with what the lesson needs.
import { computed, ref, watch } from 'vue'
import { useLessonContext } from '@/lesson/lessonContext'
import { dayWord, localDay, timeWord } from '@/ui/dates'

const { open, lesson } = useLessonContext()
const at = computed(() => (lesson.value.next_at ? new Date(lesson.value.next_at) : null))
const day = ref('')
const time = ref('')
watch(
  at,
  (now) => {
    day.value = now ? localDay(now) : ''
    time.value = now
      ? `${String(now.getHours()).padStart(2, '0')}:${String(now.getMinutes()).padStart(2, '0')}`
      : ''
  },
  { immediate: true },
)
const said = computed(() =>
  at.value ? `${dayWord(at.value.toISOString())}, ${timeWord(at.value)}` : '',
)
function keep(): void {
  const next = new Date(`${day.value}T${time.value}`)
  if (Number.isNaN(next.getTime())) return
  open.changeLesson({ next_at: next.toISOString() })
}
</script>

<template>
  <form class="next" data-testid="next-lesson" @submit.prevent="keep">
    <h3>The next lesson</h3>
    <label>
      On
      <input v-model="day" class="native" type="date" required aria-label="Next lesson on" />
    </label>
    <label>
      at
      <input v-model="time" class="native" type="time" required aria-label="Next lesson at" />
    </label>
    <v-btn type="submit">{{ at ? 'Change it' : 'Book it' }}</v-btn>
    <template v-if="at">
      <v-btn variant="text" @click="open.changeLesson({ next_at: null })">Cancel it</v-btn>
      <p class="quiet">{{ lesson.student.name }} comes on {{ said }}. The day lists it.</p>
    </template>
  </form>
</template>

<style scoped>
.next {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 12px;
}
h3 {
  flex-basis: 100%;
  font-size: var(--text-lead);
}
label {
  display: flex;
  align-items: center;
  gap: 8px;
}
</style>
