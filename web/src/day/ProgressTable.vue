<script setup lang="ts">
// A student's lessons along time: what moved, the causes and their fate, drills and passes.
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { ask, client, type Shape, type Student } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import ProgressStrips from '@/day/ProgressStrips.vue'
import { dayWord } from '@/ui/dates'
import { signed } from '@/ui/units'
import { degreesWord, movedBy, strikeWord } from '@/ui/words'
import { useSpeaker } from '@/ui/useSpeaker'

const props = defineProps<{ student: Student }>()
const known = useKnowledge()
// without an answer the page itself says that nobody answers
const { data: found } = useQuery({
  queryKey: computed(() => ['student', props.student.id, 'progress']),
  queryFn: () => {
    const params = { path: { student_id: props.student.id } }
    return ask(client.GET('/api/students/{student_id}/progress', { params }))
  },
})
const steps = computed(() => found.value?.steps ?? [])
/** With two lessons the second one says it all. */
const overall = computed(() => (steps.value.length > 2 ? (found.value?.overall ?? []) : []))
const ROWS = [
  ['start_deg', 'starts'],
  ['curve_deg', 'curves'],
  ['path_deg', 'path'],
  ['heel_toe_mm', 'strike'],
  ['low_point_cm', 'low point'],
  ['carry_lost_pct', 'carry lost'],
] as const
function shown(id: string, value: number | undefined): string {
  if (value === undefined) return '–'
  if (id === 'heel_toe_mm') return strikeWord(value)
  if (id === 'low_point_cm') return `${signed(value)} cm`
  if (id === 'carry_lost_pct') return `${value.toFixed(0)} %`
  return degreesWord(value, props.student.handedness)
}
/** More than chance, against the newest lesson before with the same club. */
function sureOf(moved: readonly Shape['MovedOut'][], id: string): string {
  const one = moved.find((m) => m.name === id && m.sure)
  return one ? movedBy(one, props.student.handedness) : ''
}
const clubs = (step: Shape['StepOut']) =>
  step.clubs.map((id) => known.club(id)?.name ?? id).join(', ') || '–'
const { words } = useSpeaker(() => props.student.handedness)
const sign = (id: string) => words(known.sign(id)?.name.toLowerCase() ?? id)
const cause = (id: string | null) => (id ? words(known.cause(id)?.label ?? id) : '–')
const drill = (id: string | null) => (id ? words(known.drill(id)?.name ?? id) : '–')
</script>

<template>
  <div v-if="steps.length > 1" class="wide" tabindex="0" role="region" aria-label="Progress">
    <h2>Along time</h2>
    <ProgressStrips :steps="steps" :cause="cause" />
    <details class="numbers">
      <summary>Numbers</summary>
      <table data-testid="progress">
        <thead>
          <tr>
            <th scope="col" />
            <th v-for="s in steps" :key="s.lesson_id" scope="col">{{ dayWord(s.started_at) }}</th>
            <th v-if="overall.length > 0" scope="col">first to last</th>
          </tr>
        </thead>
        <tbody>
          <tr>
            <th scope="row">club</th>
            <td v-for="s in steps" :key="s.lesson_id">{{ clubs(s) }}</td>
            <td v-if="overall.length > 0" />
          </tr>
          <tr v-for="[id, word] in ROWS" :key="id">
            <th scope="row">{{ word }}</th>
            <td v-for="s in steps" :key="s.lesson_id">
              {{ shown(id, s.values[id]) }}
              <span class="moved">{{ sureOf(s.moved, id) }}</span>
            </td>
            <td v-if="overall.length > 0" class="moved">{{ sureOf(overall, id) }}</td>
          </tr>
          <tr>
            <th scope="row">pressure</th>
            <td v-for="s in steps" :key="s.lesson_id">{{ s.signs.map(sign).join(', ') || '–' }}</td>
            <td v-if="overall.length > 0" />
          </tr>
          <tr>
            <th scope="row">cause</th>
            <td v-for="s in steps" :key="s.lesson_id">
              {{ cause(s.cause) }}<span v-if="s.verdict">, {{ s.verdict }}</span>
            </td>
            <td v-if="overall.length > 0" />
          </tr>
          <tr>
            <th scope="row">drill</th>
            <td v-for="s in steps" :key="s.lesson_id">
              {{ drill(s.drill) }}<span v-if="s.passes">, {{ s.passes }} right</span>
            </td>
            <td v-if="overall.length > 0" />
          </tr>
        </tbody>
      </table>
      <p v-if="steps.some((s) => s.moved.length > 0)" class="note">
        In bold: how far it moved with the same club, where that is more than chance would make of
        one number in ten.
      </p>
    </details>
  </div>
</template>

<style scoped>
.wide {
  overflow-x: auto;
  margin-top: 28px;
}
.numbers summary {
  min-height: 44px;
  line-height: 44px;
  cursor: pointer;
}
h2 {
  font-size: var(--text-title);
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
  border-bottom: 1px solid var(--line);
}
.moved {
  font-weight: var(--strong);
}
span.moved {
  display: block;
}
.note {
  margin-top: 10px;
  color: var(--quiet);
}
th {
  font-weight: 400;
  color: var(--quiet);
}
</style>
