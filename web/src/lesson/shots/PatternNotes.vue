<script setup lang="ts">
// What else a block shows: two groups, wild balls, a change while it was hit, what moved since.
import { computed } from 'vue'
import { useLessonContext } from '@/lesson/lessonContext'
import type { Earlier, ReadBlock } from '@/lesson/shots/useReadings'
import type { DistanceUnit } from '@/ui/settings'
import { dayWord } from '@/ui/dates'
import { count, driftWord, movedWord } from '@/ui/words'

const props = defineProps<{
  block: ReadBlock
  since: readonly Earlier[]
  unit: DistanceUnit
}>()
const { hand } = useLessonContext()

const notes = computed(() => {
  const said: string[] = []
  const [one, other] = props.block.groups
  if (one && other) {
    said.push(
      `Two swings, not one: ${String(one.balls.length)} × ${one.shape} (${numbers(one.balls)}), ` +
        `${String(other.balls.length)} × ${other.shape} (${numbers(other.balls)}).`,
    )
  }
  const wild = props.block.balls.flatMap((b, i) => (b.wild ? [i] : []))
  if (wild.length > 0) {
    said.push(`${wild.length === 1 ? 'Ball' : 'Balls'} ${numbers(wild)} far from the others.`)
  }
  for (const w of props.block.wanted) {
    const value = `${w.value.toFixed(0)}°`
    said.push(
      w.name === 'launch_deg'
        ? `Launch ${value}; under ${String(w.most)}° is wanted.`
        : `The shaft leans ${value} at the ball; ${String(w.least)} to ${String(w.most)}° is wanted.`,
    )
  }
  for (const drift of props.block.drifts) said.push(driftWord(drift, hand.value, props.unit))
  return said
})
const earlier = computed(() => {
  const last = props.since[0]
  if (!last) return null
  const day = dayWord(last.started_at)
  const sure = last.moved.filter((m) => m.sure).map((m) => movedWord(m, hand.value))
  const what = sure.length > 0 ? sure.join(', ') : 'nothing has moved more than chance would'
  return `Since ${day} (${count(last.balls, 'ball')}): ${what}.`
})
function numbers(balls: readonly number[]): string {
  return balls.map((b) => String(b + 1)).join(', ')
}
</script>

<template>
  <ul v-if="notes.length || earlier" class="notes" data-testid="pattern-notes">
    <li v-for="note in notes" :key="note">{{ note }}</li>
    <li v-if="earlier" class="quiet">{{ earlier }}</li>
  </ul>
</template>

<style scoped>
.notes {
  padding: 0;
  list-style: none;
  font-size: var(--text-small);
}
</style>
