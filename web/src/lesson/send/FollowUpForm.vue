<script setup lang="ts">
// What came back after the lesson: practice, the course, and whether the cause was right.
import { computed } from 'vue'
import type { Lesson, Shape } from '@/api/client'
import OneOf from '@/ui/OneOf.vue'
import { vTyped } from '@/ui/typed'

const props = defineProps<{ lesson: Lesson }>()
const emit = defineEmits<{ change: [body: Shape['FollowUpIn']] }>()

type Outcome = NonNullable<Shape['FollowUpOut']['verdict']>
const VERDICTS: readonly { id: Outcome; word: string }[] = [
  { id: 'confirmed', word: 'Confirmed' },
  { id: 'partly', word: 'Partly' },
  { id: 'rejected', word: 'Rejected' },
]
const kept = computed(() => props.lesson.follow_up)
const text = (value: number | null | undefined) => (value == null ? '' : String(value))
function count(name: 'practised' | 'passes', event: Event): void {
  const number = Number((event.target as HTMLInputElement).value)
  if (Number.isInteger(number) && number >= 0) emit('change', { [name]: number })
}
</script>

<template>
  <div v-if="kept" class="follow" data-testid="follow-up">
    <h3>
      What came back <span class="quiet">asked on {{ kept.due_on }}</span>
    </h3>
    <div class="row">
      <label
        >Times practised
        <input
          v-typed="text(kept.practised)"
          class="native short"
          inputmode="numeric"
          @change="(e) => count('practised', e)"
        />
      </label>
      <label
        >Right in all
        <input
          v-typed="text(kept.passes)"
          class="native short"
          inputmode="numeric"
          @change="(e) => count('passes', e)"
        />
      </label>
    </div>
    <label class="wide"
      >On the course
      <textarea
        v-typed="kept.course"
        class="native"
        rows="2"
        maxlength="2000"
        @change="(e) => emit('change', { course: (e.target as HTMLTextAreaElement).value })"
      />
    </label>
    <p class="quiet">Was it the cause?</p>
    <OneOf
      name="Was it the cause?"
      :words="VERDICTS"
      :on="kept.verdict"
      @chosen="(verdict) => emit('change', { verdict })"
    />
    <p v-if="kept.verdict === 'rejected' || kept.verdict === 'partly'">
      Reopen it in a new lesson: a short new baseline stands beside this one.
      <router-link :to="{ name: 'student', params: { id: lesson.student.id } }"
        >To {{ lesson.student.name }}</router-link
      >
    </p>
  </div>
</template>

<style scoped>
.follow {
  display: grid;
  gap: 8px;
  padding-top: 8px;
  border-top: 1px solid rgb(var(--v-theme-line));
}
h3 {
  font-size: 17px;
}
.row {
  display: flex;
  gap: 16px;
}
.wide {
  display: grid;
}
a {
  color: inherit;
}
.short {
  width: 72px;
}
.follow :deep(button) {
  padding: 0 12px;
}
textarea.native {
  padding: 8px;
}
</style>
