<script setup lang="ts">
// One ball's values as numbers and words, for correcting and for what was measured.
import { computed } from 'vue'
import type { Direction, Handedness, LoggedShot, Shot } from '@/api/client'
import type { BallEntry } from '@/lesson/shots/useBallEntry'
import { leftToRight, pushSign } from '@/ui/frame'
import type { DistanceUnit } from '@/ui/settings'
import { vTyped } from '@/ui/typed'
import { fromMetres, keepOld, toMetres, typedNumber } from '@/ui/units'
import { capital, CONTACTS, directionWord } from '@/ui/words'

const props = defineProps<{
  shot: LoggedShot
  hand: Handedness
  unit: DistanceUnit
  entry: BallEntry
}>()

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
const directions = computed(() => leftToRight(props.hand))

function shown(field: Field): string {
  const value = props.shot.observed[field.name]
  if (typeof value !== 'number') return ''
  if (field.kind === 'mirrored') return String(value * pushSign(props.hand))
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
      ? value * pushSign(props.hand)
      : field.kind === 'distance'
        ? toMetres(value, props.unit)
        : value
  props.entry.set({ [field.name]: inside })
}
function keepWord(name: 'start' | 'curve' | 'contact', event: Event): void {
  const value = (event.target as HTMLSelectElement).value
  props.entry.set({ [name]: value === '' ? null : (value as Direction) })
}
</script>

<template>
  <section class="details" aria-label="Values of the chosen ball" data-testid="details">
    <label v-for="name in ['start', 'curve'] as const" :key="name">
      {{ capital(name) }}
      <select
        class="native"
        :aria-label="capital(name)"
        :value="shot.observed[name] ?? ''"
        @change="keepWord(name, $event)"
      >
        <option value="">not noted</option>
        <option v-for="d in directions" :key="d" :value="d">{{ directionWord(d, hand) }}</option>
      </select>
    </label>
    <label>
      Contact
      <select
        class="native"
        aria-label="Contact"
        :value="shot.observed.contact ?? ''"
        @change="keepWord('contact', $event)"
      >
        <option value="">not noted</option>
        <option v-for="c in CONTACTS" :key="c" :value="c">{{ c }}</option>
      </select>
    </label>
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
    <div class="buttons">
      <button type="button" @click="entry.remove">
        Delete ball <span class="key" aria-hidden="true">Del</span>
      </button>
      <button type="button" class="done" @click="entry.next">Done</button>
    </div>
  </section>
</template>

<style scoped>
.details {
  position: absolute;
  left: 20px;
  right: 20px;
  bottom: 126px;
  z-index: 2;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(112px, 1fr));
  gap: 8px 12px;
  padding: 10px 14px 12px;
  background: rgb(var(--v-theme-surface));
  border: 2px solid rgb(var(--v-theme-slate));
  border-radius: 12px;
}
label {
  display: grid;
  font-size: 14px;
}
select,
input {
  width: 100%;
  font-size: 16px;
}
.buttons {
  display: flex;
  grid-column: -4 / -1;
  align-self: end;
  justify-content: flex-end;
  gap: 10px;
}
button {
  min-height: 48px;
  padding: 0 16px;
  border: 2px solid rgb(var(--v-theme-ink));
  border-radius: 10px;
  font-weight: 700;
}
</style>
