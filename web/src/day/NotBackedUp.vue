<script setup lang="ts">
// The day's backup could not be made: lessons can be given all the same, and somebody should know.
import { useQuery } from '@tanstack/vue-query'
import { ask, client } from '@/api/client'

const { data: kept } = useQuery({
  queryKey: ['keeping'],
  queryFn: () => ask(client.GET('/api/keeping')),
})
</script>

<template>
  <p v-if="kept?.failed" class="not-backed-up" role="alert">
    Today's backup could not be made. Lessons are kept as usual.
    <router-link :to="{ name: 'settings' }">Settings say why.</router-link>
  </p>
</template>

<style scoped>
.not-backed-up {
  margin-bottom: 20px;
  padding: 8px 12px;
  border: 2px solid var(--error);
  border-radius: var(--corner);
}
</style>
