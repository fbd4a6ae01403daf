<script setup lang="ts">
// The one boxed thing to do next: a look, a round of looks, or a few balls with one thing changed.
import { computed, ref, watch } from 'vue'
import type { Diagnosis } from '@/api/client'
import LookRound from '@/lesson/decide/LookRound.vue'
import NextLook from '@/lesson/decide/NextLook.vue'
import SeparatingBalls from '@/lesson/decide/SeparatingBalls.vue'
import { useLessonContext } from '@/lesson/lessonContext'
import OneOf from '@/ui/OneOf.vue'

const block = defineModel<string | null>('block', { required: true })
defineProps<{
  diagnosis: Diagnosis
}>()
const { lesson } = useLessonContext()

const WAYS = [
  { id: 'look', word: 'One look' },
  { id: 'round', word: 'Three minutes' },
  { id: 'balls', word: 'A few balls' },
] as const
type Way = (typeof WAYS)[number]['id']
const way = ref<Way>('look')
const inTrial = computed(
  () => lesson.value.blocks.find((b) => b.id === block.value)?.kind === 'trial',
)
watch(
  inTrial,
  (now) => {
    if (now) way.value = 'balls'
    else if (way.value === 'balls') way.value = 'look'
  },
  { immediate: true },
)
</script>

<template>
  <section class="box" aria-label="Do next" data-testid="next-step">
    <OneOf
      class="ways"
      small
      name="What to do next"
      :words="WAYS"
      :on="way"
      @chosen="(w) => (way = w)"
    />
    <NextLook v-if="way === 'look'" />
    <LookRound v-else-if="way === 'round'" />
    <SeparatingBalls v-else v-model:block="block" :diagnosis="diagnosis" />
  </section>
</template>

<style scoped>
.box {
  display: grid;
  gap: 6px;
  padding: 10px 14px 14px;
  border: 2.5px solid var(--ink);
  border-radius: var(--corner);
  background: var(--surface);
}
.ways {
  display: flex;
  justify-self: stretch;
}
.ways :deep(.v-btn.v-btn) {
  flex: 1 1 auto;
  padding: 0 6px;
  font-size: var(--text-small);
}
</style>
