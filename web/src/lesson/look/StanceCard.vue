<script setup lang="ts">
// How the student stands, measured: kept with the baseline and, once balls were hit with a change or
// in the retest, with the newest of those.
import { computed } from 'vue'
import type { Shape } from '@/api/client'
import { useLessonContext } from '@/lesson/lessonContext'
import { vTyped } from '@/ui/typed'
import { keepOld, typedNumber } from '@/ui/units'
import { say } from '@/ui/words'
const { open, lesson, diagnosis, speaker } = useLessonContext()

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
const changed = computed(
  () => lesson.value.blocks.filter((b) => b.kind !== 'baseline').at(-1) ?? null,
)
const times = computed(() => [
  ...(baseline.value ? [{ block: baseline.value, word: 'first balls' }] : []),
  ...(changed.value ? [{ block: changed.value, word: 'newest balls' }] : []),
])
type Block = NonNullable<typeof baseline.value>
const value = (block: Block, id: keyof Stance) => {
  const kept = block.stance?.[id]
  return kept == null ? '' : String(kept)
}
function change(block: Block, field: (typeof FIELDS)[number], event: Event): void {
  const input = event.target as HTMLInputElement
  const number = typedNumber(input.value)
  const fits =
    number === null || (number !== undefined && number >= field.least && number <= field.most)
  if (!fits) {
    keepOld(input, value(block, field.id))
    return
  }
  open.putBlock(block.id, { stance: { ...block.stance, [field.id]: number } as Stance })
}
/** What the numbers say before and after the change. */
const says = computed(() => {
  const measured = diagnosis.value?.measured ?? []
  return measured.flatMap((now) => {
    const before = measured.find((m) => m.check === now.check && !m.after)
    if (!now.after || !before) return []
    const kept = now.answer === 'no' ? 'sound now' : now.answer === 'yes' ? 'not yet' : 'nearly'
    return [`Before: ${before.text}. After: ${now.text}, ${kept}.`]
  })
})
</script>

<template>
  <section v-if="baseline" class="stance" aria-labelledby="stance">
    <h2 id="stance">Stance, measured</h2>
    <div class="fields">
      <fieldset v-for="f in FIELDS" :key="f.id">
        <legend class="quiet">{{ f.word }}</legend>
        <label v-for="t in times" :key="t.block.id">
          <span v-if="changed" class="quiet">{{ t.word }}</span>
          <input
            v-typed="value(t.block, f.id)"
            class="native"
            inputmode="decimal"
            :aria-label="`${f.word}, ${t.word}`"
            @change="(e) => change(t.block, f, e)"
          />
          {{ f.unit }}
        </label>
      </fieldset>
    </div>
    <p v-for="said in says" :key="said" class="strong" data-testid="stance-change">
      {{ say(said, speaker) }}
    </p>
  </section>
</template>

<style scoped>
.stance {
  padding: 8px 10px;
}
h2 {
  font-size: var(--text-lead);
}
.fields {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 18px;
}
fieldset {
  padding: 0;
  border: 0;
}
legend {
  font-size: var(--text-small);
}
label {
  display: flex;
  align-items: center;
  gap: 6px;
  font-size: var(--text-small);
}
label .quiet {
  width: 88px;
}
input {
  width: 72px;
}
</style>
