<script setup lang="ts">
// The feel first: the trace stays covered until the student has said what they felt.
import { computed } from 'vue'
import type { AnswerWord, Knowledge, Lesson } from '@/api/client'
import FeelRow from '@/lesson/pressure/FeelRow.vue'
import type { OpenLesson } from '@/lesson/useLesson'

const props = defineProps<{ open: OpenLesson; lesson: Lesson; knowledge: Knowledge }>()
defineEmits<{ uncover: [] }>()

/** What feel tests ask of the facts that a trace answers; the first question for each. */
const asks = computed(() => {
  const answered = new Set(props.knowledge.signs.flatMap((s) => Object.keys(s.answers)))
  const all = props.knowledge.feel_tests.flatMap((t) => t.asks)
  return all.filter(
    (ask, i) => answered.has(ask.check) && all.findIndex((a) => a.check === ask.check) === i,
  )
})
const felt = computed(() =>
  asks.value.filter((ask) =>
    props.lesson.answers.some((a) => a.check_id === ask.check && a.source === 'feel'),
  ),
)
const word = (check: string): AnswerWord | null =>
  props.lesson.answers.find((a) => a.check_id === check && a.source === 'feel' && !a.block_id)
    ?.answer ?? null
</script>

<template>
  <div class="cover" data-testid="cover">
    <h2>What did you feel?</h2>
    <p class="quiet">The trace is covered until the student has answered.</p>
    <FeelRow
      v-for="ask in asks"
      :key="ask.check"
      :question="ask.question"
      :on="word(ask.check)"
      @answer="(w) => open.putAnswer(ask.check, w, 'feel')"
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
  font-size: 22px;
}
</style>
