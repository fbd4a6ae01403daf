<script setup lang="ts">
// One cause in one line: name, whether it was seen, one number, one word.
import { computed } from 'vue'
import type { CauseRank, Diagnosis } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import { BADGE_WORDS, SEEN_WORDS } from '@/lesson/decide/rows'
import { percentWord } from '@/ui/words'

const props = defineProps<{
  cause: CauseRank
  name: string
  decided?: boolean
  /** Whether it is the first of the order. */
  first?: boolean
  badge?: Diagnosis['decision_status']['badge']
}>()
const known = useKnowledge()
const width = computed(() => `${String(100 * props.cause.root)}%`)
const word = computed(() =>
  props.decided && !props.first ? 'against the order' : known.causeWord(props.cause.word),
)
</script>

<template>
  <span class="line">
    <span class="name">{{ name }}</span>
    <span class="number">{{ percentWord(cause.root) }}</span>
    <span class="bar" aria-hidden="true"><span :style="{ width }" /></span>
    <span class="under">
      <span v-if="decided" class="tag full">Decided</span>
      <span v-else-if="first && badge" class="tag">{{ BADGE_WORDS[badge] }}</span>
      <span v-if="cause.seen" :class="['seen', cause.seen]">{{ SEEN_WORDS[cause.seen] }}</span>
      <span class="quiet">{{ word }}</span>
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
  font-size: var(--text-body);
}
.number {
  font-size: var(--text-title);
}
.bar {
  grid-column: 1 / -1;
  height: 8px;
  border-radius: var(--corner-small);
  background: var(--surface-variant);
}
.bar span {
  display: block;
  height: 100%;
  min-width: 3px;
  border-radius: var(--corner-small);
  background: var(--length, var(--slate));
}
.under {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 8px;
  min-height: 22px;
  font-size: var(--text-small);
}
.tag {
  padding: 0 8px;
  border: 1.5px solid var(--ink);
  border-radius: var(--corner-small);
  font-size: var(--text-small);
  font-weight: var(--strong);
}
.full {
  background: var(--ink);
  color: var(--surface);
}
.seen {
  font-weight: var(--strong);
}
.seen::before {
  content: '';
  display: inline-block;
  width: 11px;
  height: 11px;
  margin-right: 6px;
  border: 2px solid var(--ink);
  border-radius: 50%;
}
.seen.yes::before {
  background: var(--ink);
}
.seen.partly::before {
  background: linear-gradient(90deg, var(--ink) 50%, transparent 50%);
}
.seen.no {
  font-weight: 400;
}
</style>
