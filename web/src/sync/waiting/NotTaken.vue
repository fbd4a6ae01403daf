<script setup lang="ts">
// Changes that the server would not take: how many, and what can be done with each.
import { computed, ref, watch } from 'vue'
import { useOutbox } from '@/sync/outbox'
import RefusedWrite from '@/sync/waiting/RefusedWrite.vue'

const outbox = useOutbox()
const shown = ref(false)
const refused = computed(() => outbox.state.entries.filter((e) => e.refused))
watch(refused, (now) => {
  if (now.length === 0) shown.value = false
})
</script>

<template>
  <v-btn size="small" class="not-taken" @click="shown = true">
    {{ refused.length }} not taken: look
  </v-btn>
  <v-dialog v-model="shown" max-width="620" scrollable aria-label="Changes that were not taken">
    <v-card title="Not taken">
      <v-card-text>
        <ul class="refused">
          <RefusedWrite v-for="entry in refused" :key="entry.name" :entry="entry" />
        </ul>
      </v-card-text>
      <v-card-actions>
        <v-btn @click="shown = false">Leave it for now</v-btn>
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.not-taken {
  color: var(--error);
}
.refused {
  display: grid;
  gap: 20px;
  list-style: none;
}
</style>
