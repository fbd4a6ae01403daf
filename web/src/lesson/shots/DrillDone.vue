<script setup lang="ts">
// Of a ball hit with a drill: was the drill done right? In a corner of the range, so that it moves
// no drawing when it comes.
import { computed } from 'vue'
import type { BallEntry } from '@/lesson/shots/useBallEntry'
import OneOf from '@/ui/OneOf.vue'

const props = defineProps<{ entry: BallEntry }>()
const WORDS = [
  { id: 'right', word: 'Yes' },
  { id: 'not', word: 'No' },
] as const
const { shots, currentId } = props.entry
const on = computed(() => {
  const ok = shots.value.find((s) => s.id === currentId.value)?.observed.drill_ok
  return ok == null ? null : ok ? 'right' : 'not'
})
</script>

<template>
  <div class="done">
    <span>Was the drill done right?</span>
    <OneOf
      name="Was the drill done right?"
      :words="WORDS"
      :on="on"
      @chosen="(word) => entry.set({ drill_ok: word === 'right' })"
    />
    <span class="quiet">If it was not, the ball does not count.</span>
  </div>
</template>

<style scoped>
.done {
  display: grid;
  justify-items: end;
  gap: 4px;
  max-width: 200px;
  font-size: var(--text-small);
  text-align: right;
}
</style>
