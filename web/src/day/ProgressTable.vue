<script setup lang="ts">
// A student's lessons along time: what moved, the causes and their fate, drills and passes.
import { shallowRef } from 'vue'
import { ask, client, type Shape, type Student } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import { dayWord } from '@/ui/dates'
import { signed } from '@/ui/units'
import { degreesWord, strikeWord } from '@/ui/words'

const props = defineProps<{ student: Student }>()
const known = useKnowledge()
const steps = shallowRef<Shape['StepOut'][]>([])
async function load(): Promise<void> {
  const params = { path: { student_id: props.student.id } }
  try {
    steps.value = (await ask(client.GET('/api/students/{student_id}/progress', { params }))).steps
  } catch {
    // the page itself says that nobody answers
  }
}
void load()
const ROWS = [
  ['start_deg', 'starts'],
  ['curve_deg', 'curves'],
  ['path_deg', 'path'],
  ['heel_toe_mm', 'strike'],
  ['low_point_cm', 'low point'],
  ['carry_lost_pct', 'carry lost'],
] as const
function say(id: string, value: number | undefined): string {
  if (value === undefined) return '–'
  if (id === 'heel_toe_mm') return strikeWord(value)
  if (id === 'low_point_cm') return `${signed(value)} cm`
  if (id === 'carry_lost_pct') return `${value.toFixed(0)} %`
  return degreesWord(value, props.student.handedness)
}
const sign = (id: string) =>
  known.knowledge?.signs.find((s) => s.id === id)?.name.toLowerCase() ?? id
const cause = (id: string | null) => (id ? (known.causes.get(id)?.label ?? id) : '–')
const drill = (id: string | null) => (id ? (known.drills.get(id)?.name ?? id) : '–')
</script>

<template>
  <div v-if="steps.length > 1" class="wide" tabindex="0" role="region" aria-label="Progress">
    <h2>Along time</h2>
    <table data-testid="progress">
      <thead>
        <tr>
          <th scope="col" />
          <th v-for="s in steps" :key="s.lesson_id" scope="col">{{ dayWord(s.started_at) }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="[id, word] in ROWS" :key="id">
          <th scope="row">{{ word }}</th>
          <td v-for="s in steps" :key="s.lesson_id">{{ say(id, s.values[id]) }}</td>
        </tr>
        <tr>
          <th scope="row">pressure</th>
          <td v-for="s in steps" :key="s.lesson_id">{{ s.signs.map(sign).join(', ') || '–' }}</td>
        </tr>
        <tr>
          <th scope="row">cause</th>
          <td v-for="s in steps" :key="s.lesson_id">
            {{ cause(s.cause) }}<span v-if="s.verdict">, {{ s.verdict }}</span>
          </td>
        </tr>
        <tr>
          <th scope="row">drill</th>
          <td v-for="s in steps" :key="s.lesson_id">
            {{ drill(s.drill) }}<span v-if="s.passes">, {{ s.passes }} right</span>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.wide {
  overflow-x: auto;
  margin-top: 28px;
}
h2 {
  font-size: 20px;
  margin-bottom: 8px;
}
table {
  border-collapse: collapse;
  width: 100%;
}
th,
td {
  text-align: left;
  padding: 8px 16px 8px 0;
  border-bottom: 1px solid rgb(var(--v-theme-line));
}
th {
  font-weight: 400;
  color: rgb(var(--v-theme-quiet));
}
</style>
