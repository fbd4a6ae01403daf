<script setup lang="ts">
// The four answers to a look, each one touch or one key.
import type { AnswerWord } from '@/api/client'
import { ANSWER_KEYS } from '@/lesson/keys'
import { ANSWER_WORDS } from '@/ui/words'

defineEmits<{ answer: [word: AnswerWord] }>()
</script>

<template>
  <div class="answers">
    <v-btn
      v-for="[key, word] in ANSWER_KEYS"
      :key="word"
      color="primary"
      stacked
      min-height="56"
      @click="$emit('answer', word)"
    >
      {{ word === 'unknown' ? "Can't tell" : ANSWER_WORDS[word] }}
      <span class="key" aria-hidden="true">{{ key.toUpperCase() }}</span>
    </v-btn>
  </div>
</template>

<style scoped>
.answers {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 8px;
  margin-top: 6px;
}
.v-btn {
  height: 56px;
  padding: 0 2px;
  border-width: 2px;
}
@media (max-width: 1199px) and (min-width: 1001px), (max-width: 600px) {
  .v-btn {
    font-size: var(--text-small);
    letter-spacing: 0;
  }
  .v-btn :deep(.v-btn__content) {
    white-space: nowrap;
  }
}
</style>
