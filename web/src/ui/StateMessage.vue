<script setup lang="ts">
// Loading, empty and error, always with a sentence.
// `inside` a page that has its own heading
defineProps<{
  kind: 'loading' | 'empty' | 'error'
  title: string
  hint?: string
  inside?: boolean
}>()
defineEmits<{ retry: [] }>()
</script>

<template>
  <div class="state" :role="kind === 'error' ? 'alert' : 'status'">
    <v-progress-linear v-if="kind === 'loading'" indeterminate color="slate" :aria-label="title" />
    <component :is="inside ? 'p' : 'h1'" class="title">{{ title }}</component>
    <p v-if="hint" class="quiet">{{ hint }}</p>
    <v-btn v-if="kind === 'error'" class="mt-4" @click="$emit('retry')">Try again</v-btn>
    <p v-if="kind === 'error' && !inside" class="mt-4">
      <router-link to="/">The day</router-link>
    </p>
    <slot />
  </div>
</template>

<style scoped>
.state {
  max-width: 560px;
  margin: 12vh auto;
  padding: 24px;
  text-align: center;
}
.title {
  margin: 16px 0 6px;
  font-size: var(--text-title);
  font-weight: var(--strong);
}
</style>
