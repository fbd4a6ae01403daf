<script setup lang="ts">
// From picture to picture: by step, by slider, playing slowly or as fast as life.
import { mdiChevronLeft, mdiChevronRight, mdiPause, mdiPlay } from '@mdi/js'
import { SPEEDS, type PlaySpeed } from '@/lesson/look/film/usePlaying'
import OneOf from '@/ui/OneOf.vue'

const frame = defineModel<number>('frame', { required: true })
const playing = defineModel<boolean>('playing', { required: true })
const speed = defineModel<PlaySpeed>('speed', { required: true })
defineProps<{ frames: number; time: string }>()
const emit = defineEmits<{ step: [by: number] }>()
const WORDS: Record<PlaySpeed, string> = { 1: '1×', 0.5: '½×', 0.25: '¼×', 0.125: '⅛×' }
const words = SPEEDS.map((s) => ({ id: String(s), word: WORDS[s] }))
</script>

<template>
  <div class="steps">
    <v-btn :icon="mdiChevronLeft" aria-label="One picture back" @click="emit('step', -1)" />
    <div class="where">
      <v-slider
        :model-value="frame"
        :min="0"
        :max="frames - 1"
        :step="1"
        color="slate"
        hide-details
        aria-label="Picture"
        @start="playing = false"
        @update:model-value="(at: number) => (frame = Math.round(at))"
      />
      <span class="number" data-testid="film-frame">{{ frame }} · {{ time }}</span>
    </div>
    <v-btn :icon="mdiChevronRight" aria-label="One picture on" @click="emit('step', 1)" />
    <div class="play">
      <v-btn
        :icon="playing ? mdiPause : mdiPlay"
        :aria-label="playing ? 'Pause' : 'Play the film'"
        @click="playing = !playing"
      />
      <OneOf
        name="PlaySpeed"
        small
        :words="words"
        :on="String(speed)"
        @chosen="(s) => (speed = Number(s) as PlaySpeed)"
      />
    </div>
  </div>
</template>

<style scoped>
.steps {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) auto;
  align-items: center;
  gap: 6px;
}
.where {
  display: grid;
  justify-items: center;
}
.where > :first-child {
  width: 100%;
}
.play {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 10px;
}
.play :deep(.v-btn-toggle .v-btn) {
  min-width: 44px;
  padding: 0 6px;
}
</style>
