<script setup lang="ts">
// One ball's values as numbers and words, for correcting and for what was measured; beside the
// drawings, which stay as they are.
import { computed } from 'vue'
import type { LoggedShot, Shot } from '@/api/client'
import { useLessonContext } from '@/lesson/lessonContext'
import type { BallEntry } from '@/lesson/shots/useBallEntry'
import ChooseOne from '@/ui/ChooseOne.vue'
import { leftToRight, pushSign } from '@/ui/frame'
import type { DistanceUnit } from '@/ui/settings'
import { vTyped } from '@/ui/typed'
import { fromMetres, keepOld, toMetres, typedNumber } from '@/ui/units'
import { capital, CONTACTS, directionWord } from '@/ui/words'

const props = defineProps<{
  shot: LoggedShot
  unit: DistanceUnit
  entry: BallEntry
}>()
const { hand } = useLessonContext()

defineEmits<{ close: [] }>()

interface Field {
  name: keyof Shot
  label: string
  kind: 'mirrored' | 'plain' | 'distance'
}
const FIELDS: readonly Field[] = [
  { name: 'start_deg', label: 'Start, ° right', kind: 'mirrored' },
  { name: 'curve_deg', label: 'Curve, ° right', kind: 'mirrored' },
  { name: 'carry_m', label: 'Carry', kind: 'distance' },
  { name: 'path_deg', label: 'Path, ° right', kind: 'mirrored' },
  { name: 'face_deg', label: 'Face, ° right', kind: 'mirrored' },
  { name: 'dynamic_loft_deg', label: 'Dynamic loft, °', kind: 'plain' },
  { name: 'heel_toe_mm', label: 'Strike, mm to toe', kind: 'plain' },
  { name: 'low_high_mm', label: 'Strike, mm high', kind: 'plain' },
  { name: 'divot_start_cm', label: 'Divot start, cm', kind: 'plain' },
  { name: 'divot_length_cm', label: 'Divot length, cm', kind: 'plain' },
  { name: 'divot_direction_deg', label: 'Divot, ° right', kind: 'mirrored' },
]
const number = computed(() => props.entry.shots.value.findIndex((s) => s.id === props.shot.id) + 1)
const NOT_NOTED = { id: '', word: 'not noted' } as const
const CONTACT_WORDS = [NOT_NOTED, ...CONTACTS.map((id) => ({ id, word: id }))]
const directions = computed(() => [
  NOT_NOTED,
  ...leftToRight(hand.value).map((id) => ({ id, word: directionWord(id, hand.value) })),
])

function shown(field: Field): string {
  const value = props.shot.observed[field.name]
  if (typeof value !== 'number') return ''
  if (field.kind === 'mirrored') return String(value * pushSign(hand.value))
  return field.kind === 'distance' ? fromMetres(value, props.unit).toFixed(0) : String(value)
}
function keep(field: Field, event: Event): void {
  const input = event.target as HTMLInputElement
  const value = typedNumber(input.value)
  if (value === undefined) {
    keepOld(input, shown(field))
    return
  }
  if (value === null) {
    props.entry.set({ [field.name]: null })
    return
  }
  const inside =
    field.kind === 'mirrored'
      ? value * pushSign(hand.value)
      : field.kind === 'distance'
        ? toMetres(value, props.unit)
        : value
  props.entry.set({ [field.name]: inside })
}
function keepWord(name: 'start' | 'curve' | 'contact', word: string): void {
  props.entry.set({ [name]: word || null })
}
</script>

<template>
  <section
    class="details"
    aria-label="Values of the chosen ball"
    data-testid="details"
    @keydown.esc.stop="$emit('close')"
  >
    <h2>
      Ball {{ number }} by number
      <v-btn aria-label="Close the numbers" @click="$emit('close')">Close</v-btn>
    </h2>
    <ChooseOne
      v-for="name in ['start', 'curve'] as const"
      :key="name"
      :name="capital(name)"
      :options="directions"
      :on="shot.observed[name] ?? ''"
      @chosen="(word) => keepWord(name, word)"
    />
    <ChooseOne
      name="Contact"
      :options="CONTACT_WORDS"
      :on="shot.observed.contact ?? ''"
      @chosen="(word) => keepWord('contact', word)"
    />
    <label v-for="field in FIELDS" :key="field.name">
      {{ field.label }}{{ field.kind === 'distance' ? `, ${unit}` : '' }}
      <input
        v-typed="shown(field)"
        class="native"
        inputmode="decimal"
        placeholder="–"
        @change="keep(field, $event)"
      />
    </label>
  </section>
</template>

<style scoped>
.details {
  position: fixed;
  inset: 76px 0 0 auto;
  z-index: 3;
  width: 444px;
  overflow-y: auto;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  align-content: start;
  gap: 12px 16px;
  padding: 14px 20px;
  background: var(--surface);
  border-left: 2px solid var(--slate);
}
h2 {
  grid-column: 1 / -1;
  display: flex;
  align-items: center;
  justify-content: space-between;
  font-size: var(--text-lead);
}
label {
  display: grid;
  font-size: var(--text-small);
}
input {
  width: 100%;
  min-height: 48px;
  font-size: var(--text-body);
}
@media (max-width: 1199px) {
  .details {
    width: 390px;
  }
}
/* no column beside them: below what is drawn */
@media (max-width: 1000px) {
  .details {
    position: static;
    width: auto;
    border: 2px solid var(--slate);
    border-radius: var(--corner);
  }
}
</style>
