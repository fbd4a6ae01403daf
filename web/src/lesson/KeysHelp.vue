<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import { KEY_HELP } from '@/lesson/keys'

defineEmits<{ close: [] }>()
</script>

<template>
  <aside class="keys" aria-label="Keys" data-testid="keys">
    <header>
      <h2>Keys</h2>
      <v-btn variant="text" :icon="mdiClose" aria-label="Hide keys" @click="$emit('close')" />
    </header>
    <dl>
      <template v-for="row in KEY_HELP" :key="row.keys">
        <dt>
          <kbd v-for="key in row.keys.split(' ')" :key="key">{{ key }}</kbd>
        </dt>
        <dd>{{ row.what }}</dd>
      </template>
    </dl>
    <p class="quiet">Single keys can be switched off in the settings.</p>
  </aside>
</template>

<style scoped>
.keys {
  position: fixed;
  left: 20px;
  bottom: 20px;
  z-index: 10;
  max-width: min(640px, calc(100vw - 40px));
  max-height: calc(100dvh - 100px);
  overflow-y: auto;
  padding: 12px 20px 16px;
  background: var(--surface);
  border: 2px solid var(--ink);
  border-radius: var(--corner);
}
header {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 6px 16px;
  margin-bottom: 10px;
}
kbd {
  display: inline-block;
  min-width: 1.6em;
  margin-right: 4px;
  padding: 0 5px;
  border: 1.5px solid var(--line);
  border-radius: var(--corner-small);
  font: inherit;
  text-align: center;
}
</style>
