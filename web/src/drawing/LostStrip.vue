<script setup lang="ts">
// Where the distance went: expected carry as one bar, what is left of it and every item that took
// some. What was won is said beside it.
import { computed } from 'vue'
import type { Shape } from '@/api/client'
import type { DistanceUnit } from '@/ui/settings'
import { fromMetres, signed } from '@/ui/units'
import { LOST_WORDS, SOURCE_WORDS } from '@/ui/words'

const props = defineProps<{
  lost: Shape['LostOut']
  source: Shape['ReadBlock']['expected_source']
  unit: DistanceUnit
  whose: string
}>()

const LEAST_SHOWN = 0.5
const inUnit = (m: number) => fromMetres(m, props.unit)
const items = computed(() => {
  const all = { ...props.lost.items, remainder: props.lost.remainder_m }
  return Object.entries(all)
    .map(([id, metres]) => ({ id, size: inUnit(metres), word: LOST_WORDS[id] ?? id }))
    .sort((a, b) => b.size - a.size)
})
const taken = computed(() => items.value.filter((i) => i.size >= LEAST_SHOWN))
const won = computed(() => items.value.filter((i) => i.size <= -LEAST_SHOWN))
const total = computed(() => inUnit(props.lost.expected_m - props.lost.actual_m))
/** The bar holds what is left and what was taken; more than expected when something was won. */
const whole = computed(
  () => inUnit(props.lost.actual_m) + taken.value.reduce((sum, i) => sum + i.size, 0),
)
const share = (size: number) => `${String((100 * size) / whole.value)}%`
/** What the strikes and the turf as noted would have cost. */
const wouldCost = computed(() =>
  inUnit(props.lost.expected_m - props.lost.actual_m - props.lost.remainder_m).toFixed(0),
)
const sum = computed(() => {
  const size = Math.abs(total.value).toFixed(0)
  return `${size} ${props.unit} ${total.value >= 0 ? 'short' : 'longer'}`
})
</script>

<template>
  <div class="lost" data-testid="lost">
    <p class="head">
      <span>
        <strong>{{ whose }}: {{ sum }}</strong> of {{ inUnit(lost.expected_m).toFixed(0) }}
        {{ unit }} expected <span class="quiet">{{ SOURCE_WORDS[source] }}</span>
        <span v-if="!lost.measured" class="quiet">; carry as computed</span>
      </span>
      <span v-if="lost.adds_up && won.length" class="won">
        won: {{ won.map((i) => `${i.word} ${signed(-i.size)}`).join(', ') }}
      </span>
    </p>
    <p v-if="!lost.adds_up" class="off" data-testid="does-not-add-up">
      This does not add up: strike, face and turf as noted would have cost {{ wouldCost }}
      {{ unit }}. Look at the carry, at the expected carry, and at where the strikes were touched.
    </p>
    <div v-if="lost.adds_up" class="bar" role="img" :aria-label="`${whose}: ${sum}`">
      <span class="left" :style="{ width: share(inUnit(lost.actual_m)) }">
        {{ inUnit(lost.actual_m).toFixed(0) }} {{ unit }}
      </span>
      <span
        v-for="item in taken"
        :key="item.id"
        :class="['item', item.id]"
        :style="{ width: share(item.size) }"
        :title="`${item.word}: ${item.size.toFixed(1)} ${unit}`"
      />
    </div>
    <p v-if="lost.adds_up" class="items">
      <span v-for="item in taken" :key="item.id" :data-item="item.id">
        <i :class="['swatch', item.id]" />
        {{ item.word }} <strong>{{ item.size.toFixed(0) }}</strong>
      </span>
    </p>
  </div>
</template>

<style scoped>
.lost {
  flex: none;
  font-size: var(--text-small);
}
/* as high as bar and items, whose place it takes */
.off {
  min-height: 44px;
}
.head,
.items {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0 14px;
}
.items {
  justify-content: flex-start;
}
.bar {
  display: flex;
  height: 20px;
  border: 1.5px solid var(--ink);
  border-radius: var(--corner-small);
  overflow: hidden;
}
.left {
  background: var(--surface);
  font-size: var(--text-tiny);
  line-height: 17px;
  padding-left: 8px;
  white-space: nowrap;
}
.item {
  border-left: 1.5px solid var(--ink);
}
.strike {
  background: var(--clay);
}
.club_speed {
  background: var(--slate);
}
.ground {
  background: var(--ink);
}
.loft_and_spin {
  background: var(--line);
}
.glancing {
  background: repeating-linear-gradient(90deg, var(--clay) 0 3px, var(--surface) 3px 6px);
}
.remainder {
  background: repeating-linear-gradient(45deg, var(--line) 0 2px, var(--surface) 2px 6px);
}
.swatch {
  display: inline-block;
  width: 12px;
  height: 12px;
  border: 1px solid var(--ink);
}
</style>
