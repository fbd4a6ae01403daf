<script setup lang="ts">
// The chosen cause's chain in words; the numbers are those on the plan.
import { useKnowledge } from '@/api/knowledge'
import { useOpenLesson } from '@/lesson/openLesson'

defineProps<{ chain: readonly string[] }>()
const { words } = useOpenLesson()
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
  font-size: 15px;
}
.number {
  color: rgb(var(--v-theme-clay));
}
</style>
