<script setup lang="ts">
// Pressure without a mat: what to stand on, what to do, what to ask. Answers count as feel.
import { computed } from 'vue'
import type { AnswerWord } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import { useLessonContext } from '@/lesson/lessonContext'
import FeelRow from '@/lesson/pressure/FeelRow.vue'
import { capital, say } from '@/ui/words'

const props = defineProps<{
  limits: readonly string[]
}>()
const known = useKnowledge()
const { open, lesson, speaker } = useLessonContext()

const tests = computed(() =>
  known.all.feel_tests.map((test) => {
    const flagged = test.limits.filter((l) => props.limits.includes(l))
    return { ...test, flagged }
  }),
)
const word = (check: string): AnswerWord | null =>
  lesson.value.answers.find((a) => a.check_id === check && a.source === 'feel' && !a.block_id)
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
  border-bottom: 1px solid var(--line);
}
h2 {
  font-size: var(--text-lead);
}
.small {
  font-size: var(--text-small);
  font-weight: 400;
}
ol {
  padding-left: 22px;
}
.withheld {
  font-weight: var(--strong);
}
</style>
