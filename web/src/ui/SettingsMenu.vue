<script setup lang="ts">
// How to see things: light, words, units, keys.
import { mdiTune } from '@mdi/js'
import { storeToRefs } from 'pinia'
import { useSettings } from '@/ui/settings'

const { mode, sides, distance, keys } = storeToRefs(useSettings())
</script>

<template>
  <v-menu :close-on-content-click="false" location="bottom end">
    <template #activator="{ props }">
      <v-btn v-bind="props" variant="text" :icon="mdiTune" aria-label="Settings" />
    </template>
    <v-card tag="aside" aria-label="Settings" class="pa-4 settings" min-width="300">
      <fieldset>
        <legend>Light</legend>
        <v-btn-toggle v-model="mode" mandatory divided variant="outlined">
          <v-btn value="sun">Sun</v-btn>
          <v-btn value="bay">Bay</v-btn>
        </v-btn-toggle>
      </fieldset>
      <fieldset>
        <legend>Words</legend>
        <v-btn-toggle v-model="sides" mandatory divided variant="outlined">
          <v-btn value="lead_trail">Lead, trail</v-btn>
          <v-btn value="left_right">Left, right</v-btn>
        </v-btn-toggle>
      </fieldset>
      <fieldset>
        <legend>Distances</legend>
        <v-btn-toggle v-model="distance" mandatory divided variant="outlined">
          <v-btn value="yd">Yards</v-btn>
          <v-btn value="m">Metres</v-btn>
        </v-btn-toggle>
      </fieldset>
      <v-switch
        v-model="keys"
        label="Single keys log balls and answers"
        hide-details
        color="slate"
      />
    </v-card>
  </v-menu>
</template>

<style scoped>
fieldset {
  border: 0;
  margin-bottom: 12px;
}
legend {
  font-weight: 700;
  margin-bottom: 4px;
}
</style>
