<script setup lang="ts">
// The chosen cause's chain in words; the numbers are those on the plan.
import { useKnowledge } from '@/api/knowledge'

defineProps<{ chain: readonly string[]; words: (text: string) => string }>()
const known = useKnowledge()
</script>

<template>
  <ol class="chain" aria-label="Chain from cause to ball">
    <li v-for="(id, i) in chain" :key="id">
      <span class="number">{{ i + 1 }}</span>
      {{ words(known.link(id)) }}
    </li>
  </ol>
</template>

<style scoped>
.chain {
  display: flex;
  flex-wrap: wrap;
  gap: 0 14px;
  padding: 0;
  list-style: none;
  font-size: var(--text-small);
}
.number {
  color: var(--clay);
}
</style>
