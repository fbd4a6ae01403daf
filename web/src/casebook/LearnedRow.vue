<script setup lang="ts">
// One number that moved: as shipped and here, on how much, and whether it is held still.
const {
  bars,
  most,
  words = [],
} = defineProps<{
  id: string
  name: string
  /** As shipped and here, 0 to 1. */
  bars: [number, number][]
  /** What fills the width. */
  most: number
  /** What each pair is of; empty where there is one. */
  words?: string[]
  on: string
  held: boolean
}>()
defineEmits<{ hold: [yes: boolean] }>()
const percent = (part: number) => `${(100 * part).toFixed(part < 0.0995 ? 1 : 0)} %`
const width = (part: number) => `${String((100 * part) / most)}%`
</script>

<template>
  <tr :data-testid="`moved-${id}`">
    <th scope="row">{{ name }}</th>
    <td>
      <div v-for="([shipped, here], i) in bars" :key="i">
        <span class="pair" aria-hidden="true">
          <span class="shipped" :style="{ width: width(shipped) }" />
          <span :class="['here', { held }]" :style="{ width: width(here) }" />
        </span>
        <template v-if="words.length">{{ words[i] }}:&nbsp;</template>{{ percent(shipped) }} →
        {{ percent(here) }}<span v-if="held" class="quiet">; held as shipped</span>
      </div>
    </td>
    <td>{{ on }}</td>
    <td>
      <v-btn
        variant="text"
        :aria-label="`${held ? 'Let it move' : 'Hold it still'}: ${name}`"
        @click="$emit('hold', !held)"
        >{{ held ? 'Let it move' : 'Hold it still' }}</v-btn
      >
    </td>
  </tr>
</template>

<style scoped>
th,
td {
  text-align: left;
  padding: 8px 12px 8px 0;
  border-bottom: 1px solid var(--line);
}
th {
  width: 26%;
}
td:nth-child(2) {
  width: 40%;
}
td:nth-child(3) {
  width: 18%;
}
.pair {
  display: grid;
  gap: 3px;
  width: min(260px, 30vw);
  margin-bottom: 3px;
}
.pair span {
  height: 7px;
  min-width: 3px;
  border-radius: 2px;
}
.shipped {
  background: var(--line);
}
.here {
  background: var(--slate);
}
.here.held {
  opacity: 0.3;
}
@media (max-width: 700px) {
  tr {
    display: grid;
    grid-template-columns: 2fr 3fr;
    align-items: center;
    border-bottom: 1px solid var(--line);
  }
  th,
  td:nth-child(n) {
    width: auto;
    border-bottom: none;
  }
  .pair {
    width: 46vw;
  }
}
</style>
