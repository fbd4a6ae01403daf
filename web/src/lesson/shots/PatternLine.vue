<script setup lang="ts">
// The pattern in one sentence, with its doubt.
import { computed } from 'vue'
import { useOpenLesson } from '@/lesson/openLesson'
import { signed } from '@/ui/units'
import { capital, count, strikeWord } from '@/ui/words'

defineProps<{ brief: boolean }>()
const { diagnosis, hand } = useOpenLesson()

const sentence = computed(() => {
  const pattern = diagnosis.value?.ranking.pattern
  if (!pattern || pattern.balls === 0)
    return 'No balls yet: touch the range where the first one started.'
  const parts = []
  if (pattern.shape !== null) parts.push(pattern.shape)
  if (pattern.heel_toe_mm !== null) parts.push(strikeWord(pattern.heel_toe_mm))
  parts.push(...(diagnosis.value?.missed ?? []))
  if (pattern.carry_lost_pct !== null && Math.abs(pattern.carry_lost_pct) >= 2) {
    const lost = pattern.carry_lost_pct
    parts.push(`${Math.abs(lost).toFixed(0)} % ${lost > 0 ? 'short' : 'long'}`)
  }
  if (pattern.two_way) parts.push('two-way')
  return parts.length > 0 ? capital(parts.join(', ')) : count(pattern.balls, 'ball')
})
const delivery = computed(() => {
  const spreads = diagnosis.value?.spreads ?? {}
  const parts: string[] = []
  const side = (deg: number) => (deg < 0 === (hand.value === 'right') ? 'left' : 'right')
  const path = spreads.path_deg
  if (path)
    parts.push(
      `path ${Math.abs(path.value).toFixed(1)}° ${side(path.value)} ± ${path.se.toFixed(1)}`,
    )
  const face = spreads.face_to_path_deg
  if (face) {
    const word = face.value > 0 ? 'open' : 'shut'
    parts.push(`face ${Math.abs(face.value).toFixed(1)}° ${word} to it ± ${face.se.toFixed(1)}`)
  }
  const low = spreads.low_point_cm
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
