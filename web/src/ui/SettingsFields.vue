<script setup lang="ts">
// How to see things: light, words, units, keys.
import { storeToRefs } from 'pinia'
import OneOf from '@/ui/OneOf.vue'
import { useSettings } from '@/ui/settings'

const { mode, sides, distance, faceSeen, keys, feelFirst, by, place } = storeToRefs(useSettings())
const MODES = [
  { id: 'sun', word: 'Sun' },
  { id: 'bay', word: 'Bay' },
] as const
const SIDES = [
  { id: 'lead_trail', word: 'Lead, trail' },
  { id: 'left_right', word: 'Left, right' },
] as const
const UNITS = [
  { id: 'yd', word: 'Yards' },
  { id: 'm', word: 'Metres' },
] as const
const FACES = [
  { id: 'front', word: 'As you look at it' },
  { id: 'player', word: 'As the player does' },
] as const
</script>

<template>
  <div class="fields">
    <div>
      <p class="strong">Light</p>
      <OneOf name="Light" :words="MODES" :on="mode" @chosen="(m) => (mode = m)" />
    </div>
    <div>
      <p class="strong">Feet and sides</p>
      <OneOf name="Feet and sides" :words="SIDES" :on="sides" @chosen="(s) => (sides = s)" />
    </div>
    <div>
      <p class="strong">Distances</p>
      <OneOf name="Distances" :words="UNITS" :on="distance" @chosen="(u) => (distance = u)" />
    </div>
    <div>
      <p class="strong">Club face</p>
      <OneOf name="Club face" :words="FACES" :on="faceSeen" @chosen="(f) => (faceSeen = f)" />
    </div>
    <div class="signed">
      <p class="strong">You, on lessons and on what goes home</p>
      <v-text-field v-model="by" label="Your name" maxlength="80" hide-details />
      <v-text-field v-model="place" label="Place" maxlength="80" hide-details />
    </div>
    <v-switch v-model="keys" label="Single keys log balls and answers" hide-details color="slate" />
    <v-switch
      v-model="feelFirst"
      label="Ask the feel before a trace is shown"
      hide-details
      color="slate"
    />
  </div>
</template>

<style scoped>
.fields {
  display: grid;
  gap: 12px;
}
.signed {
  display: grid;
  gap: 8px;
}
.fields :deep(.one-of button) {
  padding: 0 14px;
}
</style>
