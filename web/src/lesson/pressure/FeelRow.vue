<script setup lang="ts">
// One thing the student felt, answered by one touch.
import type { AnswerWord } from '@/api/client'
import OneOf from '@/ui/OneOf.vue'

defineProps<{ question: string; on: AnswerWord | null }>()
defineEmits<{ answer: [word: AnswerWord] }>()

const WORDS: readonly { id: AnswerWord; word: string }[] = [
  { id: 'yes', word: 'Yes' },
  { id: 'partly', word: 'Partly' },
  { id: 'no', word: 'No' },
]
</script>

<template>
  <div class="row">
    <span>{{ question }}</span>
    <OneOf :name="question" :words="WORDS" :on="on" @chosen="(w) => $emit('answer', w)" />
  </div>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 12px;
  align-items: center;
  width: 100%;
  min-height: 52px;
}
@media (max-width: 600px) {
  .row {
    grid-template-columns: 1fr;
  }
}
</style>
