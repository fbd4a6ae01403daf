<script setup lang="ts">
// The look that is asked: the one that would tell most per second, answered by one touch.
import { computed } from 'vue'
import { useKnowledge } from '@/api/knowledge'
import AnswerButtons from '@/lesson/decide/AnswerButtons.vue'
import { useOpenLesson } from '@/lesson/openLesson'
import { say, VIEW_WORDS } from '@/ui/words'

const known = useKnowledge()
const { open, speaker } = useOpenLesson()

const check = computed(() => known.check(open.asking.value?.id) ?? null)
</script>

<template>
  <div class="look" data-testid="next-look">
    <template v-if="check">
      <p class="quiet">
        {{ VIEW_WORDS[check.view] }} · {{ check.seconds }} s, by {{ open.sourceOf(check.id) }}
      </p>
      <p class="question">{{ say(check.question, speaker) }}</p>
      <p class="quiet">{{ say(check.look_for, speaker) }}</p>
      <AnswerButtons @answer="open.answerAsked" />
    </template>
    <template v-else>
      <p class="strong">No further look would change where to start.</p>
      <p class="quiet">Decide, or hit more balls.</p>
    </template>
  </div>
</template>

<style scoped>
.look {
  display: grid;
  gap: 4px;
}
.question {
  font-size: var(--text-lead);
  font-weight: var(--strong);
  line-height: 1.25;
}
</style>
