<script setup lang="ts">
// How much of this student's miss one cause accounts for, number by number.
import { computed } from 'vue'
import type { CauseRank, Diagnosis } from '@/api/client'
import { partsOf } from '@/lesson/decide/rows'
import { capital } from '@/ui/words'

const props = defineProps<{ cause: CauseRank; diagnosis: Diagnosis }>()
const parts = computed(() => partsOf(props.cause, props.diagnosis))
/** What is not counted from nothing. */
const FROM = { low_point_cm: 'low point from a sound one', club_speed_pct: 'speed from the usual' }
const from = computed(() =>
  parts.value.flatMap(({ id }) => (id in FROM ? FROM[id as keyof typeof FROM] : [])).join(', '),
)
</script>

<template>
  <dl v-if="parts.length" class="explains" data-testid="explains">
    <template v-for="part in parts" :key="part.id">
      <dt>{{ part.name }}</dt>
      <dd>
        <span class="bar" aria-hidden="true"
          ><span :style="{ width: `${100 * part.share}%` }"
        /></span>
        <span class="word">{{ part.word }}</span>
        <span class="quiet">{{ part.text }}</span>
      </dd>
    </template>
  </dl>
  <p v-if="from" class="quiet from">{{ capital(from) }}.</p>
</template>

<style scoped>
.explains {
  display: grid;
  grid-template-columns: auto minmax(30px, 1fr) auto auto;
  align-items: center;
  gap: 2px 10px;
  font-size: var(--text-small);
}
dd {
  display: contents;
}
.from {
  font-size: var(--text-small);
}
.bar {
  height: 10px;
  border: 1px solid var(--line);
  border-radius: var(--corner-small);
  background: var(--surface);
  overflow: hidden;
}
.bar span {
  display: block;
  height: 100%;
  background: var(--slate);
}
</style>
