<script setup lang="ts">
// A whole flight in a word, for a ball that nobody wants to draw.
import type { Shot } from '@/api/client'
import { SHAPE_KEYS } from '@/lesson/keys'

defineEmits<{ shape: [noted: Shot] }>()
</script>

<template>
  <div class="shapes" role="group" aria-label="Flight in a word">
    <v-btn v-for="[key, s] in SHAPE_KEYS" :key="s.id" @click="$emit('shape', s.noted)">
      {{ s.word }}<span class="key" aria-hidden="true">{{ key }}</span>
    </v-btn>
  </div>
</template>

<style scoped>
.shapes {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.shapes :deep(.v-btn) {
  min-width: 0;
  padding: 0 10px;
}
@media (max-width: 600px) {
  .shapes {
    display: grid;
    grid-template-columns: repeat(5, 1fr);
    gap: 4px;
  }
  .shapes :deep(.v-btn) {
    padding: 0 2px;
    font-size: var(--text-small);
  }
}
</style>
