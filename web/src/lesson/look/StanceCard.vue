<script setup lang="ts">
// How the student stands, measured: kept with the baseline.
import { computed } from 'vue'
import type { Shape } from '@/api/client'
import { useOpenLesson } from '@/lesson/openLesson'
import { vTyped } from '@/ui/typed'
import { keepOld, typedNumber } from '@/ui/units'
const { open, lesson } = useOpenLesson()

type Stance = Shape['Stance']
const FIELDS: readonly {
  id: keyof Stance
  word: string
  unit: string
  least: number
  most: number
}[] = [
  { id: 'lead_flare_deg', word: 'Lead foot turned out', unit: '°', least: -30, most: 90 },
  { id: 'trail_drop_cm', word: 'Trail foot drawn back', unit: 'cm', least: -40, most: 60 },
  { id: 'width_cm', word: 'Width', unit: 'cm', least: 0, most: 150 },
  {
    id: 'ball_from_lead_heel_cm',
    word: 'Ball inside the lead heel',
    unit: 'cm',
    least: -60,
    most: 100,
  },
  { id: 'hands_to_body_cm', word: 'Hands from the body', unit: 'cm', least: 0, most: 80 },
]
const baseline = computed(() => lesson.value.blocks.find((b) => b.kind === 'baseline') ?? null)
const value = (id: keyof Stance) => {
  const kept = baseline.value?.stance?.[id]
  return kept == null ? '' : String(kept)
}
function change(field: (typeof FIELDS)[number], event: Event): void {
  const input = event.target as HTMLInputElement
  const number = typedNumber(input.value)
  const fits =
    number === null || (number !== undefined && number >= field.least && number <= field.most)
  if (!fits) keepOld(input, value(field.id))
  if (!baseline.value || !fits) return
  const stance = { ...baseline.value.stance, [field.id]: number }
  open.putBlock(baseline.value.id, { stance: stance as Stance })
}
</script>

<template>
  <section v-if="baseline" class="stance" aria-labelledby="stance">
    <h2 id="stance">Stance <span class="quiet">as measured, with the first baseline</span></h2>
    <div class="fields">
      <label v-for="f in FIELDS" :key="f.id">
        <span class="quiet">{{ f.word }}</span>
        <span
          ><input
            v-typed="value(f.id)"
            class="native"
            inputmode="decimal"
            @change="(e) => change(f, e)"
          />
          {{ f.unit }}</span
        >
      </label>
    </div>
  </section>
</template>

<style scoped>
.stance {
  padding: 8px 10px;
}
h2 {
  font-size: var(--text-lead);
}
h2 .quiet {
  font-size: var(--text-small);
  font-weight: 400;
}
.fields {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 18px;
}
label {
  display: grid;
  font-size: var(--text-small);
}
input {
  width: 72px;
}
</style>
