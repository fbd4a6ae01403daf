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
  <div class="some-of" role="group" :aria-label="name">
    <v-btn
      v-for="w in words"
      :key="w.id"
      :variant="on.includes(w.id) ? 'flat' : 'outlined'"
      color="primary"
      :aria-pressed="on.includes(w.id)"
      @click="$emit('toggled', w.id)"
    >
      {{ w.name }}
    </v-btn>
  </div>
</template>

<style scoped>
.some-of {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.v-btn {
  font-weight: 400;
}
.v-btn[aria-pressed='true'] {
  font-weight: var(--strong);
}
</style>
