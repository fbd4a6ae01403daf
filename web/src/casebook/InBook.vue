<script setup lang="ts">
// How often a cause was decided on here, and whether it counts as commoner for it.
import { computed } from 'vue'
import { useLearned } from '@/casebook/useLearned'

const props = defineProps<{ cause: string }>()
const { learned } = useLearned()
const said = computed(() => {
  const book = learned.value
  const times = book?.decided[props.cause]
  if (!book || !times) return ''
  const of = Object.values(book.decided).reduce((sum, n) => sum + n, 0)
  const moved = book.moved.find((m) => m.cause === props.cause)
  const here = `In your casebook ${String(times)} of the ${String(of)} decisions whose fate is known`
  if (!moved || !book.use || moved.held) return `${here}.`
  return `${here}; it counts as ${moved.here > moved.shipped ? 'commoner' : 'rarer'} here.`
})
</script>

<template>
  <p v-if="said" class="quiet" data-testid="in-casebook">{{ said }}</p>
</template>
