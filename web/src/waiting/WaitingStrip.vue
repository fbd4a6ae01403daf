<script setup lang="ts">
// On every page: what has not arrived yet, what was refused, and whether this browser keeps anything.
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { useOutbox } from '@/api/outbox'
import { writesWord } from '@/api/writes'
import RefusedWrite from '@/waiting/RefusedWrite.vue'

const outbox = useOutbox()
const route = useRoute()
const shown = ref(false)

const waiting = computed(() => outbox.state.entries.filter((e) => !e.refused))
const refused = computed(() => outbox.state.entries.filter((e) => e.refused))
/** A lesson's own page says how many of its changes wait. */
const elsewhere = computed(() =>
  waiting.value.filter((e) => route.name !== 'lesson' || e.write.lesson !== route.params.id),
)
const line = computed(() => {
  if (refused.value.length > 0) {
    const [only, ...more] = refused.value
    if (more.length > 0) return `${String(more.length + 1)} changes were not taken.`
    return `One change was not taken. ${only?.refused?.message ?? ''}`
  }
  if (outbox.state.keepsNothing && waiting.value.length > 0) {
    return 'This browser keeps nothing: leave the page open until all is saved.'
  }
  if (outbox.state.unreachable && elsewhere.value.length > 0) {
    return `No connection. Kept on this device: ${writesWord(elsewhere.value.map((e) => e.write))}.`
  }
  return ''
})
watch(refused, (now) => {
  if (now.length === 0) shown.value = false
})
</script>

<template>
  <aside v-if="line" class="strip" role="status" data-testid="waiting">
    <span>{{ line }}</span>
    <v-btn v-if="refused.length > 0" size="small" @click="shown = true">Look at it</v-btn>
  </aside>
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
.strip {
  position: fixed;
  left: 50%;
  bottom: 12px;
  transform: translateX(-50%);
  z-index: 20;
  display: flex;
  align-items: center;
  gap: 12px;
  max-width: calc(100vw - 24px);
  padding: 8px 16px;
  background: var(--surface);
  border: 2px solid var(--ink);
  border-radius: var(--corner);
  font-size: var(--text-small);
}
.refused {
  display: grid;
  gap: 20px;
  list-style: none;
}
</style>
