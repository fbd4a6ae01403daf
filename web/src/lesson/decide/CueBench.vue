<script setup lang="ts">
// The three force tests, what was felt, and one cue kept in that language.
import { computed } from 'vue'
import type { Shape } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import { useLessonContext } from '@/lesson/lessonContext'
import OneOf from '@/ui/OneOf.vue'
import { capital, say } from '@/ui/words'

defineProps<{
  cues: string[]
}>()
const known = useKnowledge()
const { open, lesson, speaker } = useLessonContext()

type Way = NonNullable<Shape['Cue']['felt']>[string]
const WAYS: readonly { id: Way; word: string }[] = [
  { id: 'pushing', word: 'Pushing the ground' },
  { id: 'moved', word: 'Being moved' },
]
const LEGS = ['lead', 'trail'] as const
const legWords = computed(() =>
  LEGS.map((id) => ({ id, word: `${capital(say(id, speaker.value))} steadier` })),
)
function steadier(leg: (typeof LEGS)[number]): void {
  open.changeStudent({ dominant_leg: leg })
}
const cue = computed(() => lesson.value.cue)
const tests = computed(() =>
  known.all.cautions.force_tests.map((t) => ({
    ...t,
    flagged: t.limits.filter((l) => lesson.value.student.limits.includes(l)),
  })),
)
function change(part: Partial<Shape['Cue']>): void {
  open.changeLesson({ cue: { ...cue.value, ...part } })
}
</script>

<template>
  <div class="cue">
    <h2>What do they feel? <span class="quiet small">ask, do not tell</span></h2>
    <div v-for="t in tests" :key="t.id" class="test">
      <span>{{ say(t.name, speaker) }}</span>
      <span v-if="t.flagged.length" class="quiet"
        >not for this student: {{ t.flagged.join(', ') }}</span
      >
      <OneOf
        v-else-if="t.component === 'dominance'"
        :name="t.name"
        :words="legWords"
        :on="lesson.student.dominant_leg"
        @chosen="steadier"
      />
      <OneOf
        v-else
        :name="t.name"
        :words="WAYS"
        :on="cue.felt?.[t.id] ?? null"
        @chosen="(way) => change({ felt: { ...cue.felt, [t.id]: way } })"
      />
    </div>
    <h2>One cue</h2>
    <div class="cues" role="group" aria-label="Cues">
      <button
        v-for="c in cues"
        :key="c"
        type="button"
        :class="{ on: cue.text === c }"
        :aria-pressed="cue.text === c"
        @click="change({ text: c })"
      >
        {{ say(c, speaker) }}
      </button>
    </div>
    <v-textarea
      label="In their words"
      rows="1"
      auto-grow
      maxlength="2000"
      :model-value="cue.text"
      @change="(e: Event) => change({ text: (e.target as HTMLTextAreaElement).value })"
    />
  </div>
</template>

<style scoped>
.cue {
  display: grid;
  gap: 10px;
}
h2 {
  font-size: var(--text-lead);
}
.small {
  font-size: var(--text-small);
  font-weight: 400;
}
.test {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 8px;
}
.test :deep(button) {
  padding: 0 12px;
}
.cues {
  display: grid;
  gap: 6px;
}
.cues button {
  min-height: 48px;
  padding: 4px 14px;
  text-align: left;
  border: 1.5px solid var(--line);
  border-radius: var(--corner);
  background: var(--surface);
}
.cues .on {
  background: var(--ink);
  color: var(--surface);
  font-weight: var(--strong);
}
</style>
