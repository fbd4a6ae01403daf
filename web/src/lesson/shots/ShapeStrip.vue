<script setup lang="ts">
// A whole flight in a word, for a ball that nobody wants to draw.
import type { Shot } from '@/api/client'
import { SHAPE_KEYS } from '@/lesson/keys'

defineEmits<{ shape: [noted: Shot] }>()
</script>

<template>
  <div class="flights" role="group" aria-label="Flight in a word">
    <v-btn v-for="[key, s] in SHAPE_KEYS" :key="s.id" stacked @click="$emit('shape', s.noted)">
      {{ s.word }}<span class="key" aria-hidden="true">{{ key }}</span>
    </v-btn>
  </div>
</template>

<style scoped>
.flights {
  display: grid;
  grid-template-columns: repeat(5, 1fr);
  gap: 4px;
}
.flights :deep(.v-btn) {
  min-width: 0;
  height: 50px;
  min-height: 50px;
  padding: 0 2px;
  font-size: var(--text-small);
}
@media (max-width: 1240px) and (min-width: 601px) {
  .flights :deep(.v-btn) {
    font-size: var(--text-tiny);
    letter-spacing: 0;
    padding: 0;
  }
}
</style>
