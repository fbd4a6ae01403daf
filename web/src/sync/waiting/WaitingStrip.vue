<script setup lang="ts">
// What has not arrived yet, what was refused, and whether this browser keeps anything: at the foot of
// every page but a lesson's, whose head says it where nothing can be covered.
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { useOutbox } from '@/sync/outbox'
import { writesWord } from '@/sync/writes'
import NotTaken from '@/sync/waiting/NotTaken.vue'

const outbox = useOutbox()
const route = useRoute()

const refused = computed(() => outbox.state.entries.some((e) => e.refused))
const line = computed(() => {
  const waiting = outbox.waiting()
  if (route.name === 'lesson' || waiting.length === 0) return ''
  if (outbox.state.keepsNothing) {
    return 'This browser keeps nothing: leave the page open until all is saved.'
  }
  if (outbox.state.notPaired) {
    return `This device is not paired. Kept here until it is: ${writesWord(waiting)}.`
  }
  return outbox.state.unreachable
    ? `No connection. Kept on this device: ${writesWord(waiting)}.`
    : ''
})
</script>

<template>
  <aside
    v-if="line || (refused && route.name !== 'lesson')"
    class="strip"
    role="status"
    data-testid="waiting"
  >
    <span v-if="line">{{ line }}</span>
    <NotTaken v-if="refused" />
  </aside>
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
</style>
