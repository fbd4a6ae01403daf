<script setup lang="ts">
// One of the causes held side by side: its chain, what it explains, its evidence, the ball without it.
import { computed } from 'vue'
import type { CauseRank, Diagnosis } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import FlightWithout from '@/drawing/FlightWithout.vue'
import CauseLine from '@/lesson/decide/CauseLine.vue'
import InBook from '@/casebook/InBook.vue'
import ChainDrawn from '@/lesson/decide/ChainDrawn.vue'
import DecideButton from '@/lesson/decide/DecideButton.vue'
import EvidenceLists from '@/lesson/decide/EvidenceLists.vue'
import ExplainsBars from '@/lesson/decide/ExplainsBars.vue'
import { partsOf, startOf } from '@/lesson/decide/rows'
import type { WhatIf } from '@/lesson/decide/useWhatIf'
import { useLessonContext } from '@/lesson/lessonContext'
import { afterColon } from '@/ui/words'

const props = defineProps<{
  cause: CauseRank
  diagnosis: Diagnosis
  whatIf: WhatIf | null
  /** What became of it in an earlier lesson; empty where nothing did. */
  earlier: string
}>()
const known = useKnowledge()
const { lesson, words } = useLessonContext()
defineEmits<{ decide: [reason: string]; leave: [] }>()

const MOST_LOOKS = 3
const nameOf = (id: string) => words(known.cause(id)?.name ?? id)
const first = computed(() => props.diagnosis.ranking.causes[0]?.id ?? '')
const decided = computed(() => lesson.value.decisions.at(-1)?.cause === props.cause.id)
const start = computed(() => startOf(props.diagnosis) === props.cause.id)
/** Whether anything can be shared out; nothing where words alone tell how the ball was met. */
const explains = computed(() => partsOf(props.cause, props.diagnosis).length > 0)
/** Looks that point to it and were not taken; those that show it come first. */
const notLooked = computed(() => {
  const answered = new Set(lesson.value.answers.map((a) => a.check_id))
  const pointed = known.all.checks.filter(
    (c) => !answered.has(c.id) && c.points[props.cause.id] === 'strong',
  )
  const shows = (id: string | null | undefined) => (id === props.cause.id ? 0 : 1)
  return pointed.sort((a, b) => shows(a.shows) - shows(b.shows)).slice(0, MOST_LOOKS)
})
/** Whether anybody saw the balls fly: what was not seen is not drawn. */
const flown = computed(() => {
  const now = props.whatIf?.now
  return Boolean(now?.start_deg ?? now?.curve_deg ?? now?.carry_pct)
})
/** The bars weigh a cause by how likely it is; this supposes it, and says so where it matters. */
const SURE = 0.9
const ballWords = computed(() => {
  const said = props.whatIf?.sentence ?? ''
  return props.cause.probability >= SURE || !said
    ? said
    : `If it is behind these balls: ${afterColon(said)}`
})
</script>

<template>
  <article class="card" :data-testid="`compare-${cause.id}`" :aria-label="nameOf(cause.id)">
    <header>
      <CauseLine
        :cause="cause"
        :name="nameOf(cause.id)"
        :decided="decided"
        :first="cause.id === first"
        :badge="diagnosis.decision_status.badge"
      />
      <p v-if="earlier" class="quiet">{{ earlier }}</p>
    </header>
    <DecideButton
      v-if="!decided"
      :first="cause.id === first"
      :start="start"
      :first-name="`“${nameOf(first)}”`"
      @decide="(reason) => $emit('decide', reason)"
    />
    <section v-if="explains || !diagnosis.ranking.pattern.balls">
      <h2>What it explains of these balls</h2>
      <ExplainsBars :cause="cause" :diagnosis="diagnosis" />
      <p v-if="!diagnosis.ranking.pattern.balls" class="quiet">No balls yet.</p>
    </section>
    <section v-if="whatIf" class="ball">
      <h2>The ball without it{{ flown ? ', dashed' : '' }}</h2>
      <FlightWithout
        v-if="flown"
        :hand="lesson.student.handedness"
        :now="whatIf.now"
        :without="whatIf.without"
        :label="ballWords"
      />
      <p>{{ ballWords }}</p>
    </section>
    <section>
      <h2>From the cause to the ball</h2>
      <ChainDrawn :chain="cause.chain" />
    </section>
    <EvidenceLists :cause="cause" :most="3" />
    <InBook :cause="cause.id" />
    <section v-if="notLooked.length">
      <h2>Not looked at yet</h2>
      <ul class="looks">
        <li v-for="c in notLooked" :key="c.id">{{ words(c.question) }}</li>
      </ul>
    </section>
    <v-btn class="leave" variant="text" @click="$emit('leave')"
      >Take it out of the comparison</v-btn
    >
  </article>
</template>

<style scoped>
.card {
  display: flex;
  flex-direction: column;
  gap: 12px;
  min-width: 0;
  padding: 14px 16px;
  border: 1.5px solid var(--line);
  border-radius: var(--corner);
  background: var(--surface);
}
h2 {
  margin: 0 0 4px;
  font-size: var(--text-small);
}
.looks {
  padding-left: 18px;
  font-size: var(--text-small);
}
.ball p {
  margin-top: 6px;
  font-size: var(--text-small);
}
.leave {
  align-self: start;
  margin-top: auto;
}
</style>
