<script setup lang="ts">
// A block in which every ball has its own target: where the next one goes.
import { computed, watch } from 'vue'
import { ask, client, type Block, type Shape } from '@/api/client'
import { useAsked } from '@/api/useAsked'
import { useOpenLesson } from '@/lesson/openLesson'
import { pushSign } from '@/ui/frame'
import type { DistanceUnit } from '@/ui/settings'
import { fromMetres } from '@/ui/units'

const props = defineProps<{
  block: Block
  ball: number
  unit: DistanceUnit
}>()
const { hand } = useOpenLesson()

const MOST = 60
const targets = useAsked<Shape['TargetOut'][]>()
watch(
  () => props.block.id,
  (seed) => {
    const params = { query: { seed, balls: MOST } }
    void targets.put(ask(client.GET('/api/targets', { params })))
  },
  { immediate: true },
)
const words = computed(() => {
  const target = targets.found.value?.[props.ball]
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
  font-size: 18px;
}
</style>
