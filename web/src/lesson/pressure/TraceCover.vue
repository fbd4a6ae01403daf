<script setup lang="ts">
// The feel first: the trace stays covered until the student has said what they felt.
import { computed } from 'vue'
import { useKnowledge } from '@/api/knowledge'
import { useLessonContext } from '@/lesson/lessonContext'
import OneOf from '@/ui/OneOf.vue'
import { capital, say } from '@/ui/words'
const known = useKnowledge()
const { open, lesson, speaker } = useLessonContext()

defineEmits<{ uncover: [] }>()

const FEW = 4
/** What a student can say: where, which foot, early or late; what was answered stays in sight. */
const asks = computed(() => {
  const answered = new Set(known.all.signs.flatMap((s) => Object.keys(s.answers)))
  return known.all.felt
    .filter((q) => q.options.some((o) => Object.keys(o.answers).some((c) => answered.has(c))))
    .slice(-FEW)
})
const word = (check: string) =>
  lesson.value.answers.find((a) => a.check_id === check && a.source === 'feel' && !a.block_id)
    ?.answer ?? null
type Question = (typeof known.all.felt)[number]
const options = (q: Question) =>
  q.options.map((o) => ({ id: o.say, word: say(capital(o.say), speaker.value) }))
/** What was said: the option all of whose answers stand. */
const on = (q: Question) =>
  q.options.find((o) => Object.entries(o.answers).every(([check, a]) => word(check) === a))?.say ??
  null
const felt = computed(() => asks.value.some((q) => on(q) !== null))
function tell(q: Question, said: string): void {
  const option = q.options.find((o) => o.say === said)
  for (const [check, answer] of Object.entries(option?.answers ?? {}))
    open.putAnswer(check, answer, 'feel')
}
</script>

<template>
  <div class="cover" data-testid="cover">
    <h2>What did you feel?</h2>
    <p class="quiet">
      The trace is covered until the student has said where and when they felt the pressure.
    </p>
    <div v-for="ask in asks" :key="ask.id" class="ask">
      <span>{{ say(ask.question, speaker) }}</span>
      <OneOf
        :name="ask.question"
        :words="options(ask)"
        :on="on(ask)"
        @chosen="(said) => tell(ask, said)"
      />
    </div>
    <v-btn class="mt-2" data-testid="uncover" @click="$emit('uncover')">
      {{ felt ? 'Show the trace' : 'Show it unasked' }}
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
.ask {
  display: grid;
  gap: 2px;
}
h2 {
  font-size: var(--text-title);
}
</style>
