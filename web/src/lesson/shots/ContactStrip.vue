<script setup lang="ts">
// Contact in a word.
import type { Shot } from '@/api/client'
import { CONTACT_KEYS } from '@/lesson/keys'
import { capital } from '@/ui/words'

type Contact = NonNullable<Shot['contact']>
defineProps<{ contact: Contact | null }>()
defineEmits<{ contact: [word: Contact] }>()
</script>

<template>
  <div class="strip" role="group" aria-label="Contact">
    <button
      v-for="[key, word] in CONTACT_KEYS"
      :key="word"
      type="button"
      :class="{ on: word === contact }"
      :aria-pressed="word === contact"
      @click="$emit('contact', word)"
    >
      {{ capital(word) }} <span class="key" aria-hidden="true">{{ key.toUpperCase() }}</span>
    </button>
  </div>
</template>

<style scoped>
.strip {
  flex: none;
  display: grid;
  grid-template-columns: repeat(6, 1fr);
  gap: 8px;
}
button {
  min-height: 50px;
  border: 2px solid rgb(var(--v-theme-ink));
  border-radius: 10px;
  background: rgb(var(--v-theme-surface));
  font-size: 17px;
  font-weight: 700;
}
button.on {
  background: rgb(var(--v-theme-ink));
  color: rgb(var(--v-theme-surface));
}
button.on .key {
  color: inherit;
}
@media (max-width: 600px) {
  .strip {
    grid-template-columns: repeat(3, 1fr);
  }
}
</style>
