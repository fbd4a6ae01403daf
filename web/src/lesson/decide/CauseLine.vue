<script setup lang="ts">
// One cause in one line: name, whether it was seen, one number, one word.
import { computed } from 'vue'
import type { CauseRank } from '@/api/client'
import { causeWord, SEEN_WORDS } from '@/lesson/decide/rows'

const props = defineProps<{ cause: CauseRank; name: string; decided?: boolean; start?: boolean }>()
const percent = computed(() => Math.round(100 * props.cause.root))
</script>

<template>
  <span class="line">
    <span class="name">{{ name }}</span>
    <span class="number">{{ percent }} %</span>
    <span class="bar" aria-hidden="true"><span :style="{ width: `${percent}%` }" /></span>
    <span class="under">
      <span v-if="decided" class="tag full">Decided</span>
      <span v-else-if="start" class="tag">Start here</span>
      <span v-if="cause.seen" :class="['seen', cause.seen]">{{ SEEN_WORDS[cause.seen] }}</span>
      <span class="quiet">{{ causeWord(cause) }}</span>
    </span>
  </span>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: baseline;
  gap: 2px 10px;
  width: 100%;
}
.name {
  font-size: 17px;
}
.number {
  font-size: 20px;
}
.bar {
  grid-column: 1 / -1;
  height: 8px;
  border-radius: 4px;
  background: rgb(var(--v-theme-surface-variant));
}
.bar span {
  display: block;
  height: 100%;
  min-width: 3px;
  border-radius: 4px;
  background: var(--length, rgb(var(--v-theme-slate)));
}
.under {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 8px;
  min-height: 22px;
  font-size: 15px;
}
.tag {
  padding: 0 8px;
  border: 1.5px solid rgb(var(--v-theme-ink));
  border-radius: 6px;
  font-size: 14px;
  font-weight: 700;
}
.full {
  background: rgb(var(--v-theme-ink));
  color: rgb(var(--v-theme-surface));
}
.seen {
  font-weight: 700;
}
.seen::before {
  content: '';
  display: inline-block;
  width: 11px;
  height: 11px;
  margin-right: 6px;
  border: 2px solid rgb(var(--v-theme-ink));
  border-radius: 50%;
}
.seen.yes::before {
  background: rgb(var(--v-theme-ink));
}
.seen.partly::before {
  background: linear-gradient(90deg, rgb(var(--v-theme-ink)) 50%, transparent 50%);
}
.seen.no {
  font-weight: 400;
}
</style>
