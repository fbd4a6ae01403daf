<script setup lang="ts">
// What a look was answered in the lesson before: one touch says that it is still so.
import { computed } from 'vue'
import type { AnswerWord } from '@/api/client'
import { useLessonContext } from '@/lesson/lessonContext'
import { useLast } from '@/lesson/useLast'
import { ANSWER_WORDS } from '@/ui/words'

const props = defineProps<{ check: string; question: string }>()
const { open, lesson } = useLessonContext()
const last = useLast(open)
const before = computed(() => last.value?.answers.find((a) => a.check_id === props.check) ?? null)
const isAnswered = computed(() =>
  lesson.value.answers.some((a) => a.check_id === props.check && !a.block_id),
)
function still(): void {
  const said = before.value
  if (said) open.putAnswer(props.check, said.answer as AnswerWord, said.source)
}
</script>

<template>
  <span v-if="before && !isAnswered" class="last">
    <span class="quiet">last time: {{ ANSWER_WORDS[before.answer].toLowerCase() }}</span>
    <v-btn size="small" rounded="pill" :aria-label="`Still so: ${question}`" @click="still">
      Still so
    </v-btn>
  </span>
</template>

<style scoped>
.last {
  display: inline-flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
</style>
