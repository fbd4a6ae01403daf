<script setup lang="ts" generic="T extends string">
// A few words side by side, one of them on. `say`: what a screen reader says for a word that is a
// sign; `hint`: the key that does the same.
defineProps<{
  name: string
  words: readonly { id: T; word: string; say?: string; hint?: string; disabled?: boolean }[]
  on: T | null
  small?: boolean
}>()
defineEmits<{ chosen: [id: T] }>()
</script>

<template>
  <v-btn-toggle
    class="one-of"
    role="group"
    :aria-label="name"
    :model-value="on"
    :density="small ? 'compact' : 'default'"
  >
    <v-btn
      v-for="w in words"
      :key="w.id"
      :value="w.id"
      :aria-pressed="on === w.id"
      :aria-label="w.say"
      :disabled="w.disabled"
      @click="$emit('chosen', w.id)"
    >
      {{ w.word }}<span v-if="w.hint" class="key" aria-hidden="true">{{ w.hint }}</span>
    </v-btn>
  </v-btn-toggle>
</template>
