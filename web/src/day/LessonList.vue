<script setup lang="ts">
// Lessons in a list: whose, when, what about, how far.
import { computed } from 'vue'
import type { Shape } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import { stageOf, stageWord } from '@/lesson/stages'
import { recentWord, timeWord } from '@/ui/dates'
import { useSettings } from '@/ui/settings'
import { count, say } from '@/ui/words'

type Brief = Shape['LessonBrief']
const props = defineProps<{
  lessons: Brief[]
  withNames?: boolean
  /** Lessons of one day: told by the hour, with what each needs next. */
  byTime?: boolean
}>()

/** Whose lesson it was, where more than one gives them. */
const several = computed(() => new Set(props.lessons.map((l) => l.given_by)).size > 1)
const known = useKnowledge()
const settings = useSettings()
/** What was decided, feet by the hand of whose lesson it was. */
function decided({ decided: cause, handedness: hand }: Brief): string {
  const text = cause ? (known.cause(cause)?.name ?? cause) : ''
  return say(text, { hand, sides: settings.sides })
}
function state(lesson: Brief): string {
  return lesson.finished ? 'finished' : (stageWord(lesson.stage) ?? 'open')
}
/** Where a touch leads: today to what it needs next, else to where it was left. */
function stage({ next, stage: left }: Brief, byTime: boolean | undefined) {
  return byTime ? next.stage : stageOf(left ?? undefined)
}
</script>

<template>
  <p v-if="lessons.length === 0" class="quiet">No lesson yet.</p>
  <ul v-else class="lessons">
    <li v-for="lesson in lessons" :key="lesson.id">
      <router-link
        :to="{
          name: 'lesson',
          params: { id: lesson.id, stage: stage(lesson, byTime) },
        }"
      >
        <span class="line">
          <span class="strong">{{
            withNames ? lesson.student_name : recentWord(lesson.started_at)
          }}</span>
          <span v-if="byTime" class="number">{{ timeWord(new Date(lesson.started_at)) }}</span>
          <span v-else class="quiet"
            >{{ withNames ? `${recentWord(lesson.started_at)} · ` : '' }}{{ state(lesson) }}</span
          >
        </span>
        <span v-if="lesson.complaint">“{{ lesson.complaint }}”</span>
        <span v-if="byTime" :class="{ strong: !lesson.next.done }">
          {{ lesson.next.done ? '✓' : '→' }} {{ lesson.next.words }}
        </span>
        <span class="quiet">
          {{ count(lesson.balls, 'ball') }}, {{ count(lesson.answers, 'answer') }}
          <template v-if="lesson.decided"> · {{ decided(lesson) }}</template>
          <template v-if="several && lesson.given_by"> · {{ lesson.given_by }}</template>
        </span>
      </router-link>
    </li>
  </ul>
</template>

<style scoped>
.lessons {
  list-style: none;
  padding: 0;
}
.lessons a {
  display: grid;
  gap: 2px;
  padding: 12px 14px;
  margin-bottom: 8px;
  border: 1.5px solid var(--line);
  border-radius: var(--corner);
  color: inherit;
  text-decoration: none;
  background: var(--surface);
}
.lessons a:hover {
  border-color: var(--ink);
}
.line {
  display: flex;
  justify-content: space-between;
  gap: 12px;
}
</style>
