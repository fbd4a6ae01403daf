<script setup lang="ts">
// What the balls of the block show, in one sentence, with its doubt.
import { computed } from 'vue'
import { useLessonContext } from '@/lesson/lessonContext'
import type { ReadBlock } from '@/lesson/shots/useReadings'
import { signed } from '@/ui/units'
import { capital, count, strikeWord } from '@/ui/words'

const props = defineProps<{ brief: boolean; block: ReadBlock | null; balls: number }>()
const { hand } = useLessonContext()

const sentence = computed(() => {
  if (props.balls === 0) return 'No balls yet: touch the range where the first one started.'
  const { block } = props
  if (block === null) return count(props.balls, 'ball')
  const parts = []
  const strike = block.delivery['heel_toe_mm']
  if (block.shape !== null) parts.push(block.shape)
  if (strike && !block.strike_in_words) parts.push(strikeWord(strike.value))
  parts.push(...block.missed)
  if (block.carry_lost_pct !== null && Math.abs(block.carry_lost_pct) >= 2) {
    const lost = block.carry_lost_pct
    parts.push(`${Math.abs(lost).toFixed(0)} % ${lost > 0 ? 'short' : 'long'}`)
  }
  if (block.two_way) parts.push('two-way')
  return parts.length > 0 ? capital(parts.join(', ')) : count(props.balls, 'ball')
})
const delivery = computed(() => {
  const spreads = props.block?.delivery ?? {}
  const parts: string[] = []
  const side = (deg: number) => (deg < 0 === (hand.value === 'right') ? 'left' : 'right')
  const path = spreads['path_deg']
  if (path)
    parts.push(
      `path ${Math.abs(path.value).toFixed(1)}° ${side(path.value)} ± ${path.se.toFixed(1)}`,
    )
  const face = spreads['face_to_path_deg']
  if (face) {
    const word = face.value > 0 ? 'open' : 'shut'
    parts.push(`face ${Math.abs(face.value).toFixed(1)}° ${word} to it ± ${face.se.toFixed(1)}`)
  }
  const low = spreads['low_point_cm']
  if (low) parts.push(`low point ${signed(low.value)} cm ± ${low.se.toFixed(0)}`)
  return parts.join(' · ')
})
</script>

<template>
  <p class="pattern" data-testid="pattern">
    <span class="strong">{{ sentence }}</span>
    <span v-if="!brief" class="quiet">{{ delivery }}</span>
  </p>
</template>

<style scoped>
.pattern {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: baseline;
  gap: 2px 16px;
}
.pattern .strong {
  font-size: var(--text-lead);
}
.pattern .quiet {
  font-size: var(--text-small);
}
</style>
