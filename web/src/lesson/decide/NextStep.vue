<script setup lang="ts">
// The one boxed thing to do next: a look, a round of looks, or a few balls with one thing changed.
import { computed, ref, watch } from 'vue'
import type { Diagnosis } from '@/api/client'
import LookRound from '@/lesson/decide/LookRound.vue'
import NextLook from '@/lesson/decide/NextLook.vue'
import SeparatingBalls from '@/lesson/decide/SeparatingBalls.vue'
import { useOpenLesson } from '@/lesson/openLesson'

const block = defineModel<string | null>('block', { required: true })
defineProps<{
  diagnosis: Diagnosis
}>()
const { lesson } = useOpenLesson()

const WAYS = { look: 'One look', round: 'Three-minute round', balls: 'Separating balls' } as const
type Way = keyof typeof WAYS
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
    <div class="ways" role="group" aria-label="What to do next">
      <button
        v-for="(name, id) in WAYS"
        :key="id"
        type="button"
        :aria-pressed="way === id"
        @click="way = id"
      >
        {{ name }}
      </button>
    </div>
    <NextLook v-if="way === 'look'" :diagnosis="diagnosis" />
    <LookRound v-else-if="way === 'round'" :diagnosis="diagnosis" />
    <SeparatingBalls v-else v-model:block="block" :diagnosis="diagnosis" />
  </section>
</template>

<style scoped>
.box {
  display: grid;
  gap: 6px;
  padding: 4px 14px 14px;
  border: 2.5px solid rgb(var(--v-theme-ink));
  border-radius: 12px;
  background: rgb(var(--v-theme-surface));
}
.ways {
  display: flex;
  justify-content: space-between;
  gap: 4px;
}
.ways button {
  min-height: 48px;
  padding: 0 2px;
  font-size: 15px;
  border-bottom: 3px solid transparent;
  color: rgb(var(--v-theme-quiet));
}
.ways button[aria-pressed='true'] {
  border-bottom-color: rgb(var(--v-theme-ink));
  color: rgb(var(--v-theme-ink));
  font-weight: 700;
}
</style>
