<script setup lang="ts">
import StateMessage from '@/ui/StateMessage.vue'
</script>

<template>
  <main>
    <StateMessage kind="empty" title="There is no such page." hint="Nothing was changed.">
      <v-btn class="mt-4" to="/">To the day</v-btn>
    </StateMessage>
  </main>
</template>
