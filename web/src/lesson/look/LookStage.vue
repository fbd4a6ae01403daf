<script setup lang="ts">
// All looks by where one stands for them; the ones that would tell most are marked.
import { computed, ref } from 'vue'
import type { Diagnosis, Knowledge, Lesson } from '@/api/client'
import CheckRow from '@/lesson/look/CheckRow.vue'
import type { OpenLesson } from '@/lesson/useLesson'
import { VIEW_WORDS } from '@/ui/words'

const props = defineProps<{
  open: OpenLesson
  lesson: Lesson
  diagnosis: Diagnosis | null
  knowledge: Knowledge
}>()

const SUGGESTED = 3
type View = keyof typeof VIEW_WORDS
const shown = ref<View | 'all'>('all')
const suggested = computed(
  () => new Set(props.diagnosis?.ranking.next_checks.slice(0, SUGGESTED).map((c) => c.id)),
)
const views = computed(() =>
  (Object.keys(VIEW_WORDS) as View[]).map((view) => {
    const checks = props.knowledge.checks.filter((c) => c.view === view)
    const answered = checks.filter((c) => props.lesson.answers.some((a) => a.check_id === c.id))
    return { view, title: VIEW_WORDS[view], checks, answered: answered.length }
  }),
)
const visible = computed(() =>
  views.value.filter((v) => shown.value === 'all' || v.view === shown.value),
)
</script>

<template>
  <section class="look" aria-label="Look">
    <div class="filter" role="group" aria-label="Standing place">
      <button
        type="button"
        :aria-pressed="shown === 'all'"
        :class="{ on: shown === 'all' }"
        @click="shown = 'all'"
      >
        All
      </button>
      <button
        v-for="v in views"
        :key="v.view"
        type="button"
        :aria-pressed="shown === v.view"
        :class="{ on: shown === v.view }"
        @click="shown = v.view"
      >
        {{ v.title }} <span class="number">{{ v.answered }}/{{ v.checks.length }}</span>
      </button>
    </div>
    <div class="list" tabindex="0" role="region" aria-label="Looks">
      <section v-for="v in visible" :key="v.view" :aria-labelledby="`view-${v.view}`">
        <h2 :id="`view-${v.view}`">{{ v.title }}</h2>
        <ul>
          <CheckRow
            v-for="check in v.checks"
            :key="check.id"
            :check="check"
            :answers="lesson.answers.filter((a) => a.check_id === check.id)"
            :suggested="suggested.has(check.id)"
            :hand="lesson.student.handedness"
            :open="open"
          />
        </ul>
      </section>
    </div>
  </section>
</template>

<style scoped>
.look {
  display: flex;
  flex-direction: column;
  padding: 12px 0 0 20px;
}
.filter {
  flex: none;
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  padding-bottom: 10px;
}
.filter button {
  min-height: 48px;
  padding: 0 12px;
  border: 1.5px solid rgb(var(--v-theme-line));
  border-radius: 10px;
  background: rgb(var(--v-theme-surface));
}
.filter .on {
  background: rgb(var(--v-theme-ink));
  color: rgb(var(--v-theme-surface));
  border-color: rgb(var(--v-theme-ink));
}
.list {
  flex: 1;
  overflow-y: auto;
  padding-right: 20px;
  padding-bottom: 24px;
}
h2 {
  font-size: 18px;
  margin: 10px 0 2px;
}
ul {
  padding: 0;
  list-style: none;
}
</style>
