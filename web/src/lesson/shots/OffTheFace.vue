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
    <button v-for="w in WORDS" :key="w.id" type="button" @click="$emit('contact', w.id)">
      {{ w.word }}
    </button>
    <button type="button" class="slip" @click="$emit('slip')">My finger slipped</button>
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
  background: rgb(var(--v-theme-surface));
  border: 2px solid rgb(var(--v-theme-slate));
  border-radius: 12px;
  font-size: 15px;
}
p {
  flex-basis: 100%;
}
button {
  min-height: 44px;
  padding: 0 10px;
  border: 2px solid rgb(var(--v-theme-ink));
  border-radius: 10px;
  font-weight: 700;
}
.slip {
  border-color: transparent;
  text-decoration: underline;
}
</style>
