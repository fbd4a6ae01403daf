<script setup lang="ts">
// Pressure without a mat: what to stand on, what to do, what to ask. Answers count as feel.
import { computed } from 'vue'
import type { AnswerWord, Knowledge, Lesson } from '@/api/client'
import FeelRow from '@/lesson/pressure/FeelRow.vue'
import type { OpenLesson } from '@/lesson/useLesson'
import { capital, say } from '@/ui/words'
import { useSpeaker } from '@/ui/useSpeaker'

const props = defineProps<{
  open: OpenLesson
  lesson: Lesson
  knowledge: Knowledge
  limits: readonly string[]
}>()

const { speaker } = useSpeaker(() => props.lesson.student.handedness)
const tests = computed(() =>
  props.knowledge.feel_tests.map((test) => {
    const flagged = test.limits.filter((l) => props.limits.includes(l))
    return { ...test, flagged }
  }),
)
const word = (check: string): AnswerWord | null =>
  props.lesson.answers.find((a) => a.check_id === check && a.source === 'feel' && !a.block_id)
    ?.answer ?? null
</script>

<template>
  <div class="tests" tabindex="0" role="region" aria-label="Feel tests">
    <p class="quiet">
      A feel is weaker evidence than a mat. Firm, dry, level ground; stop at pain.
    </p>
    <article v-for="test in tests" :key="test.id" class="test" :data-testid="`feel-${test.id}`">
      <h2>
        {{ test.name }}
        <span v-if="test.equipment.length" class="quiet small">{{
          test.equipment.join(', ')
        }}</span>
      </h2>
      <p v-if="test.flagged.length" class="withheld" role="note">
        Not for this student: {{ test.flagged.join(', ') }} flagged. Choose another test.
      </p>
      <template v-else>
        <ol>
          <li v-for="step in test.how" :key="step">{{ say(step, speaker) }}</li>
        </ol>
        <FeelRow
          v-for="ask in test.asks"
          :key="ask.check"
          :question="capital(say(ask.question, speaker))"
          :on="word(ask.check)"
          @answer="(w) => open.putAnswer(ask.check, w, 'feel')"
        />
      </template>
    </article>
  </div>
</template>

<style scoped>
.tests {
  overflow-y: auto;
}
.test {
  padding: 10px 0;
  border-bottom: 1px solid rgb(var(--v-theme-line));
}
h2 {
  font-size: 18px;
}
.small {
  font-size: 15px;
  font-weight: 400;
}
ol {
  padding-left: 22px;
}
.withheld {
  font-weight: 700;
}
</style>
