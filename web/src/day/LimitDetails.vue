<script setup lang="ts">
// Of each bodily limit, the side it is on and since when; both may stay open.
import type { Student } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import ChooseOne from '@/ui/ChooseOne.vue'

type Details = Student['limit_details']
type Limit = Student['limits'][number]
const details = defineModel<Details>({ required: true })
defineProps<{ limits: Student['limits'] }>()
const known = useKnowledge()

const SIDES = [
  { id: '', word: 'not said' },
  { id: 'left', word: 'left' },
  { id: 'right', word: 'right' },
  { id: 'both', word: 'both' },
] as const
const nameOf = (id: Limit) => known.knowledge?.cautions.limits.find((l) => l.id === id)?.name ?? id
function say(id: Limit, part: Partial<NonNullable<Details[Limit]>>): void {
  const now = details.value[id] ?? { side: null, since: null }
  details.value = { ...details.value, [id]: { ...now, ...part } }
}
const typed = (event: Event) => (event.target as HTMLInputElement).value || null
</script>

<template>
  <div v-if="limits.length" class="details">
    <div v-for="id in limits" :key="id" class="row">
      <span class="strong">{{ nameOf(id) }}</span>
      <ChooseOne
        :name="`${nameOf(id)}: side`"
        :options="SIDES"
        :on="details[id]?.side ?? ''"
        @chosen="(side) => say(id, { side: side || null })"
      />
      <label>
        Since
        <input
          class="native"
          type="date"
          :aria-label="`${nameOf(id)}: since`"
          :value="details[id]?.since ?? ''"
          @change="(e) => say(id, { since: typed(e) })"
        />
      </label>
    </div>
  </div>
</template>

<style scoped>
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 20px;
  min-height: 52px;
}
.strong {
  min-width: 110px;
}
label {
  display: flex;
  align-items: center;
  gap: 8px;
}
</style>
