<script setup lang="ts" generic="T extends string">
// A few words side by side, one of them on.
defineProps<{
  name: string
  words: readonly { id: T; word: string; disabled?: boolean }[]
  on: T | null
  small?: boolean
}>()
defineEmits<{ chosen: [id: T] }>()
</script>

<template>
  <div :class="['one-of', { small }]" role="group" :aria-label="name">
    <button
      v-for="w in words"
      :key="w.id"
      type="button"
      :class="{ on: on === w.id }"
      :aria-pressed="on === w.id"
      :disabled="w.disabled"
      @click="$emit('chosen', w.id)"
    >
      {{ w.word }}
    </button>
  </div>
</template>

<style scoped>
.one-of {
  display: flex;
}
button {
  min-width: 64px;
  min-height: 44px;
  border: 2px solid rgb(var(--v-theme-ink));
  background: rgb(var(--v-theme-surface));
  font-weight: 700;
}
.small button {
  min-width: 48px;
  min-height: 36px;
  border-width: 1.5px;
}
button:not(:last-child) {
  border-right: 0;
}
button:first-child {
  border-radius: 10px 0 0 10px;
}
button:last-child {
  border-radius: 0 10px 10px 0;
}
button.on {
  background: rgb(var(--v-theme-ink));
  color: rgb(var(--v-theme-surface));
}
button:disabled {
  color: rgb(var(--v-theme-line));
}
</style>
