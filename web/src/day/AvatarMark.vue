<script setup lang="ts">
// Who it is, at a glance: initials, no photo.
import { computed } from 'vue'

const props = defineProps<{ name: string }>()
const initials = computed(() => {
  const words = props.name.split(/[\s-]+/).filter(Boolean)
  const ends = words.length > 1 ? [words[0], words.at(-1)] : words
  return ends.map((w) => w?.charAt(0).toUpperCase()).join('')
})
</script>

<template>
  <span class="mark" aria-hidden="true">{{ initials }}</span>
</template>

<style scoped>
.mark {
  flex: none;
  display: grid;
  place-items: center;
  width: 44px;
  height: 44px;
  border: 2px solid var(--ink);
  border-radius: 50%;
  background: var(--panel);
  font-weight: var(--strong);
}
</style>
