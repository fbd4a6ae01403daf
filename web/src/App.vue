<script setup lang="ts">
import { useKnowledge } from '@/api/knowledge'
import { watch } from 'vue'
import { useTheme } from 'vuetify'
import { useProfile } from '@/ui/useProfile'
import { useSettings } from '@/ui/settings'
import WaitingStrip from '@/sync/waiting/WaitingStrip.vue'

const settings = useSettings()
const theme = useTheme()
watch(
  () => settings.mode,
  (mode) => {
    theme.change(mode)
  },
  { immediate: true },
)
void useKnowledge().load()
useProfile()
</script>

<template>
  <v-app>
    <router-view v-slot="{ Component, route }">
      <component :is="Component" :key="String(route.params.id ?? route.name)" />
    </router-view>
    <WaitingStrip />
  </v-app>
</template>
