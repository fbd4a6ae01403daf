<script setup lang="ts">
// The four answers to a look, each one touch or one key.
import type { AnswerWord } from '@/api/client'
import { ANSWER_KEYS } from '@/lesson/keys'
import { ANSWER_WORDS } from '@/ui/words'

defineEmits<{ answer: [word: AnswerWord] }>()
</script>

<template>
  <div class="answers">
    <button
      v-for="[key, word] in ANSWER_KEYS"
      :key="word"
      type="button"
      @click="$emit('answer', word)"
    >
      {{ word === 'unknown' ? "Can't tell" : ANSWER_WORDS[word] }}
      <span class="key" aria-hidden="true">{{ key.toUpperCase() }}</span>
    </button>
  </div>
</template>

<style scoped>
.answers {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 8px;
  margin-top: 6px;
}
button {
  display: grid;
  justify-items: center;
  align-content: center;
  min-height: 56px;
  padding: 0 2px;
  font-size: 15px;
  white-space: nowrap;
  border: 2px solid rgb(var(--v-theme-ink));
  border-radius: 10px;
  background: rgb(var(--v-theme-paper));
  font-weight: 700;
}
</style>
