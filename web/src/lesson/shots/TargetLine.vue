<script setup lang="ts">
// A block in which every ball has its own target: where the next one goes.
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { ask, client, type Block } from '@/api/client'
import { useLessonContext } from '@/lesson/lessonContext'
import { pushSign } from '@/ui/frame'
import type { DistanceUnit } from '@/ui/settings'
import { fromMetres } from '@/ui/units'

const props = defineProps<{
  block: Block
  ball: number
  unit: DistanceUnit
}>()
const { hand } = useLessonContext()

const MOST = 60
const { data: targets } = useQuery({
  queryKey: computed(() => ['targets', props.block.id]),
  queryFn: () => {
    const params = { query: { seed: props.block.id, balls: MOST } }
    return ask(client.GET('/api/targets', { params }))
  },
  staleTime: Infinity,
})
const words = computed(() => {
  const target = targets.value?.[props.ball]
  if (!target) return ''
  const deg = target.bearing_deg * pushSign(hand.value)
  const where = deg === 0 ? 'middle' : `${Math.abs(deg).toFixed(0)}° ${deg < 0 ? 'left' : 'right'}`
  const expected = props.block.expected_carry_m
  const far =
    expected === null
      ? `${target.carry_pct.toFixed(0)} % of the usual carry`
      : `${fromMetres((expected * target.carry_pct) / 100, props.unit).toFixed(0)} ${props.unit}`
  return `${where}, ${far}`
})
</script>

<template>
  <p v-if="words" class="target" role="status" data-testid="target">
    Ball {{ ball + 1 }}, target: <strong>{{ words }}</strong>
    <span class="quiet"> · note start and curve from the line to it</span>
  </p>
</template>

<style scoped>
.target {
  font-size: var(--text-lead);
}
</style>
