<script setup lang="ts" generic="T extends string">
// One of many, from a list that opens: the name stands in the field's frame.
defineProps<{
  name: string
  options: readonly { id: T; word: string; disabled?: boolean }[]
  on: T | null
  disabled?: boolean
  /** The name is told to screen readers only: it stands beside the field already. */
  unlabelled?: boolean
}>()
defineEmits<{ chosen: [id: T] }>()
</script>

<template>
  <v-select
    class="choose-one"
    density="compact"
    item-title="word"
    item-value="id"
    :item-props="({ disabled: off = false }) => ({ disabled: off })"
    :items="options"
    :model-value="on"
    :disabled="disabled"
    :label="unlabelled ? undefined : name"
    :aria-label="unlabelled ? name : undefined"
    @update:model-value="(id: T) => $emit('chosen', id)"
  />
</template>

<style scoped>
.choose-one {
  flex: none;
  min-width: 0;
}
.choose-one :deep(.v-field__input) {
  min-height: 48px;
  font-weight: var(--strong);
}
</style>
