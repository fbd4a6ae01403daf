<script setup lang="ts" generic="T">
// What was asked of the server, once it is there; until then, without it, or when there is nothing in
// it, a sentence.
import type { ApiError } from '@/api/client'
import StateMessage from '@/ui/StateMessage.vue'

defineProps<{
  data: T | undefined
  error: ApiError | null
  /** What is said instead where there is nothing to show. */
  empty?: { title: string; hint: string } | null
}>()
defineEmits<{ retry: [] }>()
defineSlots<{ default(props: { data: T }): unknown }>()
</script>

<template>
  <StateMessage
    v-if="error"
    inside
    kind="error"
    :title="error.message"
    :hint="error.hint"
    @retry="$emit('retry')"
  />
  <StateMessage v-else-if="data === undefined" inside kind="loading" title="Opening" />
  <StateMessage v-else-if="empty" inside kind="empty" :title="empty.title" :hint="empty.hint" />
  <slot v-else :data="data" />
</template>
