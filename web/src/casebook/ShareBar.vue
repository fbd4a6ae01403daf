<script setup lang="ts">
// A share of so many, with where the truth lies four times in five.
import { computed } from 'vue'
import type { Shape } from '@/api/client'

const props = defineProps<{ word: string; share: Shape['ConfirmedOut'] }>()
const percent = (part: number) => `${String(Math.round(100 * part))}%`
const told = computed(() => {
  const { came, of, low, high } = props.share
  if (of === 0) return 'none yet'
  return `${String(came)} of ${String(of)}; between ${percent(low)} and ${percent(high)}`
})
</script>

<template>
  <div class="share">
    <span>{{ word }}</span>
    <span class="scale" role="img" :aria-label="`${word}: ${told}`">
      <span
        v-if="share.of"
        class="band"
        :style="{ left: percent(share.low), width: percent(share.high - share.low) }"
      />
      <span v-if="share.of" class="mark" :style="{ left: percent(share.came / share.of) }" />
    </span>
    <span class="quiet">{{ told }}</span>
  </div>
</template>

<style scoped>
.share {
  display: grid;
  grid-template-columns: 250px minmax(120px, 420px) auto;
  align-items: center;
  gap: 16px;
}
.scale {
  position: relative;
  height: 20px;
  border: 1.5px solid var(--line);
  border-radius: var(--corner-small);
}
.band {
  position: absolute;
  top: 3px;
  bottom: 3px;
  border-radius: var(--corner-small);
  background: var(--slate);
  opacity: 0.35;
}
.mark {
  position: absolute;
  top: -3px;
  bottom: -3px;
  width: 5px;
  margin-left: -2px;
  border-radius: 2px;
  background: var(--ink);
}
@media (max-width: 700px) {
  .share {
    grid-template-columns: 1fr;
    gap: 4px;
  }
}
</style>
