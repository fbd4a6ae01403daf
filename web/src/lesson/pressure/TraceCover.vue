<script setup lang="ts">
// The feel first: the trace stays covered until the student has said what they felt.
import { computed } from 'vue'
import type { AnswerWord } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import { useOpenLesson } from '@/lesson/openLesson'
import FeelRow from '@/lesson/pressure/FeelRow.vue'
import { say } from '@/ui/words'
const known = useKnowledge()
const { open, lesson, speaker } = useOpenLesson()

defineEmits<{ uncover: [] }>()

/** The facts that a trace answers, those a student can feel: a camera or plate is not asked for. */
const asks = computed(() => {
  const felt = new Set(known.all.feel_tests.flatMap((t) => t.asks).map((a) => a.check))
  const answered = new Set(known.all.signs.flatMap((s) => Object.keys(s.answers)))
  return known.all.checks.filter((c) => answered.has(c.id) && felt.has(c.id))
})
const felt = computed(() => asks.value.filter((c) => word(c.id) !== null))
const word = (check: string): AnswerWord | null =>
  lesson.value.answers.find((a) => a.check_id === check && a.source === 'feel' && !a.block_id)
    ?.answer ?? null
</script>

<template>
  <div class="cover" data-testid="cover">
    <h2>What did you feel?</h2>
    <p class="quiet">The trace is covered until the student has answered.</p>
    <FeelRow
      v-for="ask in asks"
      :key="ask.id"
      :question="say(ask.question, speaker)"
      :on="word(ask.id)"
      @answer="(w) => open.putAnswer(ask.id, w, 'feel')"
    />
    <v-btn class="mt-2" data-testid="uncover" @click="$emit('uncover')">
      {{ felt.length ? 'Show the trace' : 'Show it unasked' }}
    </v-btn>
  </div>
</template>

<style scoped>
.cover {
  display: grid;
  gap: 6px;
  justify-items: start;
  padding: 8px 0;
}
h2 {
  font-size: var(--text-title);
}
</style>
