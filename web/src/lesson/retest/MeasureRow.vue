<script setup lang="ts">
// One measure of the retest in a row: its name, its balls drawn, and what they come to in words.
import type { Shape } from '@/api/client'
import { changeWord } from '@/lesson/retest/measureWords'

defineProps<{
  measure: Shape['ComparedOut']
  /** Whether the retest is decided by it. */
  decides: boolean
  /** By how much it changed; empty where that is not said. */
  by?: string
}>()
</script>

<template>
  <div :class="['measure', { primary: decides }]" :data-testid="`measure-${measure.name}`">
    <p>
      <strong>{{ measure.word }}</strong><span v-if="decides" class="quiet"> decides</span><br />
      <span class="quiet"
        >{{ changeWord(measure) }}<template v-if="by"><br />{{ by }}</template></span
      >
    </p>
    <slot />
    <p class="numbers"><slot name="numbers" /></p>
  </div>
</template>

<style scoped>
.measure {
  display: grid;
  grid-template-columns: 144px minmax(0, 1fr) 200px;
  gap: 14px;
  align-items: center;
  padding: 4px 10px;
  border-left: 4px solid transparent;
}
.primary {
  border-left-color: var(--ink);
  background: var(--panel);
}
.numbers {
  display: grid;
}
@media (max-width: 700px) {
  .measure {
    grid-template-columns: 1fr;
  }
}
</style>
