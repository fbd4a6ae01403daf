<script setup lang="ts">
// Contact in a word.
import type { Shot } from '@/api/client'
import { CONTACT_KEYS } from '@/lesson/keys'
import OneOf from '@/ui/OneOf.vue'
import { capital } from '@/ui/words'

type Contact = NonNullable<Shot['contact']>
defineProps<{ contact: Contact | null }>()
defineEmits<{ contact: [word: Contact] }>()
const WORDS = CONTACT_KEYS.map(([key, id]) => ({ id, word: capital(id), hint: key.toUpperCase() }))
</script>

<template>
  <OneOf
    class="strip"
    name="Contact"
    :words="WORDS"
    :on="contact"
    @chosen="(word) => $emit('contact', word)"
  />
</template>

<style scoped>
.strip.one-of {
  display: grid;
  justify-self: stretch;
  grid-template-columns: repeat(7, 1fr);
}
.strip :deep(.v-btn) {
  min-width: 0;
  height: 50px;
  padding: 0 2px;
  font-size: var(--text-small);
}
.strip :deep(.v-btn__content) {
  flex-direction: column;
  line-height: 1.2;
}
@media (max-width: 600px) {
  .strip {
    grid-template-columns: repeat(4, 1fr);
  }
}
</style>
