<script setup lang="ts">
// What the trace amounts to: its signs, its numbers, the looks it answers by itself.
import { computed } from 'vue'
import { useKnowledge } from '@/api/knowledge'
import type { Read } from '@/drawing/pressure'
import { useLessonContext } from '@/lesson/lessonContext'
import type { Trace } from '@/lesson/pressure/useTraces'
import { ANSWER_WORDS, capital, say } from '@/ui/words'

const props = defineProps<{
  read: Read
  trace: Trace
}>()
const { speaker } = useLessonContext()
const known = useKnowledge()
defineEmits<{ forget: []; swap: []; remove: [] }>()

const school = computed(() => {
  const named = known.all.schools.pressure.options.find((o) => o.id === props.read.corridor_of)
  const drill = known.drill(props.read.corridor_drill)
  return drill ? `${named?.name ?? ''}, as “${drill.name.toLowerCase()}” has it` : named?.name
})
const signs = computed(() =>
  props.read.signs
    .filter((s) => s.there)
    .map((s) => ({ ...s, name: known.sign(s.id)?.name ?? s.id })),
)
const FORCE_WORDS = { sideways: 'sideways', turning: 'turning', up: 'upward' } as const
const shiftWord = (s: number) =>
  `shift starts ${Math.abs(s).toFixed(2)} s ${s > 0 ? 'after' : 'before'} the top`
const numbers = computed(() => {
  const m = props.read.measures
  const said = [
    // shares at a few moments cannot tell when something starts
    ...(props.trace.typed ? [] : [shiftWord(m.shift_from_top_s)]),
    `lead foot ${m.trail_peak.value.toFixed(0)} % at the least, ${m.lead_peak.value.toFixed(0)} % at most, ${m.lead_pct.impact?.toFixed(0) ?? '?'} % at impact`,
  ]
  if (m.press_before_start_pct !== null && m.press_before_start_pct >= 2)
    said.push(`presses ${m.press_before_start_pct.toFixed(0)} points forward before the start`)
  if (m.peaks.length > 1)
    said.push(`the forces peak ${m.peaks.map((p) => FORCE_WORDS[p.force]).join(', then ')}`)
  if (m.path_ratio !== null)
    said.push(`the trace runs ${m.path_ratio.toFixed(1)} times the straight way`)
  if (m.loop) said.push('it crosses itself')
  for (const [foot, seconds] of Object.entries(m.heel_up_s)) {
    if (seconds >= 0.03) said.push(`${foot} heel in the air for ${seconds.toFixed(2)} s`)
  }
  return said
})
const answers = computed(() =>
  props.read.answers
    .filter((a) => a.answer !== null)
    .sort((a, b) => b.share - a.share)
    .map((a) => ({
      ...a,
      label: known.check(a.check_id)?.label ?? a.check_id,
      word: a.answer ? ANSWER_WORDS[a.answer].toLowerCase() : '',
    })),
)
const yes = computed(() => answers.value.filter((a) => a.answer !== 'no'))
const no = computed(() => answers.value.filter((a) => a.answer === 'no'))
const differ = computed(() => answers.value.filter((a) => a.otherwise.length > 0))
</script>

<template>
  <div class="says">
    <div>
      <p class="signs" role="status" data-testid="signs">
        <strong v-if="signs.length">{{
          signs.map((s) => say(`${s.name}: ${s.words}`, speaker)).join('. ')
        }}</strong>
        <strong v-else>No sign of trouble by this school.</strong>
        <span v-if="read.a_style">
          Falls back toward the trail foot before impact, with sound contact: a style of skilled
          players, not a fault.
        </span>
      </p>
      <p class="quiet" data-testid="numbers">
        {{ capital(numbers.map((n) => say(n, speaker)).join('; ')) }}.
      </p>
      <p class="quiet small">
        Judged by: {{ school }}.
        <template v-if="!trace.counts"
          >Made with a drill or after a change: compared, not counted.</template
        >
        <template v-for="remark in read.remarks" :key="remark.text"> {{ remark.text }}. </template>
      </p>
      <p v-if="read.maybe_swapped" class="swapped" role="note">
        The feet may have been recorded the wrong way round.
      </p>
      <div class="row">
        <v-btn
          size="small"
          :variant="read.maybe_swapped ? 'outlined' : 'text'"
          @click="$emit('swap')"
        >
          Exchange the feet
        </v-btn>
        <v-btn v-if="trace.named.length" size="small" variant="text" @click="$emit('forget')">
          Estimate the events
        </v-btn>
        <v-btn size="small" variant="text" @click="$emit('remove')">Delete this trace</v-btn>
      </div>
    </div>
    <div class="answers" data-testid="trace-answers">
      <p v-for="a in yes" :key="a.check_id">
        <strong>{{ say(a.label, speaker) }}: {{ a.word }}</strong>
        {{ ' ' }}<span class="quiet number">{{ (100 * a.share).toFixed(0) }} %</span>
      </p>
      <p v-if="no.length" class="quiet small">
        Not: {{ no.map((a) => say(a.label, speaker)).join(', ') }}.
      </p>
      <p v-for="a in differ" :key="`differ-${a.check_id}`" class="differs" role="note">
        {{ a.otherwise.join(' and ') }} says otherwise: {{ say(a.label, speaker) }}.
      </p>
    </div>
  </div>
</template>

<style scoped>
.says {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 232px;
  gap: 12px;
  font-size: var(--text-small);
}
.signs {
  font-size: var(--text-body);
}
.small {
  font-size: var(--text-small);
}
.row {
  display: flex;
  gap: 8px;
}
.swapped,
.differs {
  font-weight: var(--strong);
  border-left: 4px solid var(--ink);
  padding-left: 8px;
}
@media (max-width: 600px) {
  .says {
    grid-template-columns: 1fr;
  }
}
</style>
