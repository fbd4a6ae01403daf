<script setup lang="ts">
// A length in centimetres that is typed. What does not fit is said, and what was there stays.
import { computed } from 'vue'
import type { Shape } from '@/api/client'
import { vTyped } from '@/ui/typed'
import { keepOld, typedNumber } from '@/ui/units'

const props = defineProps<{
  name: string
  value: number | null
  limits: Shape['CmRange']
  /** What is taken where it is left out. */
  usual?: string
}>()
const emit = defineEmits<{ typed: [cm: number | null] }>()
const shown = computed(() => (props.value === null ? '' : String(props.value)))

function keep(event: Event): void {
  const input = event.target as HTMLInputElement
  const cm = typedNumber(input.value)
  const { least, most } = props.limits
  if (cm === undefined || (cm !== null && (cm < least || cm > most)))
    keepOld(input, shown.value, `a number from ${String(least)} to ${String(most)}`)
  else emit('typed', cm)
}
</script>

<template>
  <label class="cm">
    {{ name }}
    <input v-typed="shown" class="native" inputmode="decimal" :placeholder="usual" @change="keep" />
  </label>
</template>

<style scoped>
.cm {
  display: grid;
  flex: 0 0 170px;
  font-size: var(--text-small);
}
</style>
