<script setup lang="ts">
// The look that is asked: the one that would tell most per second, answered by one touch.
import { computed } from 'vue'
import { useKnowledge } from '@/api/knowledge'
import ByMeans from '@/lesson/decide/ByMeans.vue'
import AnswerButtons from '@/lesson/decide/AnswerButtons.vue'
import LastTime from '@/lesson/look/LastTime.vue'
import { useLessonContext } from '@/lesson/lessonContext'
import { say, VIEW_WORDS } from '@/ui/words'

const known = useKnowledge()
const { open, speaker } = useLessonContext()

const check = computed(() => known.check(open.asking.value?.id) ?? null)
</script>

<template>
  <div class="look" data-testid="next-look">
    <template v-if="check">
      <div class="how">
        <span class="quiet">{{ VIEW_WORDS[check.view] }} · {{ check.seconds }} s</span>
        <ByMeans :check="check" />
      </div>
      <p class="question">{{ say(check.question, speaker) }}</p>
      <p class="quiet">{{ say(check.look_for, speaker) }}</p>
      <LastTime :check="check.id" :question="check.question" />
      <AnswerButtons @answer="open.answerAsked" />
    </template>
    <template v-else>
      <p class="strong">No further look would change where to start.</p>
      <p class="quiet">Decide, or hit more balls.</p>
    </template>
  </div>
</template>

<style scoped>
.how {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 2px 8px;
}
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
