<script setup lang="ts">
// The settings at hand on every page, and the way to all of them.
import { mdiTune } from '@mdi/js'
import SettingsFields from '@/ui/SettingsFields.vue'
</script>

<template>
  <v-menu :close-on-content-click="false" location="bottom end">
    <template #activator="{ props }">
      <v-btn v-bind="props" variant="text" :icon="mdiTune" aria-label="Settings" />
    </template>
    <v-card tag="aside" aria-label="Settings" class="pa-4" min-width="320">
      <SettingsFields />
      <v-btn class="mt-3" variant="text" to="/settings">All settings</v-btn>
    </v-card>
  </v-menu>
</template>
