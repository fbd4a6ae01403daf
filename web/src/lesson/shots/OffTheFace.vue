<script setup lang="ts">
// A touch beside the drawn face is no strike until it is said what it was.
import type { Shot } from '@/api/client'

type Contact = NonNullable<Shot['contact']>
defineEmits<{ contact: [word: Contact]; slip: [] }>()
const WORDS: readonly { id: Contact; word: string }[] = [
  { id: 'hosel', word: 'On the hosel' },
  { id: 'top', word: 'Topped' },
  { id: 'toe', word: 'Off the toe' },
]
</script>

<template>
  <div class="ask" role="group" aria-label="That is off the face. What was it?">
    <p>That is off the face. What was it?</p>
    <v-btn v-for="w in WORDS" :key="w.id" @click="$emit('contact', w.id)">{{ w.word }}</v-btn>
    <v-btn variant="text" @click="$emit('slip')">My finger slipped</v-btn>
  </div>
</template>

<style scoped>
/* over the drawing, so that nothing moves */
.ask {
  position: absolute;
  inset: auto 0 0;
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  padding: 8px 10px 10px;
  background: var(--surface);
  border: 2px solid var(--slate);
  border-radius: var(--corner);
  font-size: var(--text-small);
}
p {
  flex-basis: 100%;
}
</style>
