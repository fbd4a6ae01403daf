<script setup lang="ts" generic="T extends string">
// Words of which any number may be on.
defineProps<{
  name: string
  words: readonly { id: T; name: string }[]
  on: readonly string[]
}>()
defineEmits<{ toggled: [id: T] }>()
</script>

<template>
  <div class="chips" role="group" :aria-label="name">
    <button
      v-for="w in words"
      :key="w.id"
      type="button"
      :class="{ on: on.includes(w.id) }"
      :aria-pressed="on.includes(w.id)"
      @click="$emit('toggled', w.id)"
    >
      {{ w.name }}
    </button>
  </div>
</template>

<style scoped>
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
button {
  min-height: 48px;
  padding: 0 14px;
  border: 1.5px solid rgb(var(--v-theme-ink));
  border-radius: 10px;
  background: rgb(var(--v-theme-surface));
}
.on {
  background: rgb(var(--v-theme-ink));
  color: rgb(var(--v-theme-surface));
  font-weight: 700;
}
</style>
