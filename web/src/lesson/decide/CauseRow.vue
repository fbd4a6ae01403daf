<script setup lang="ts">
// One cause of the list; opened, what it explains and what speaks for and against it.
import { computed } from 'vue'
import type { CauseRank, Diagnosis } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import InBook from '@/casebook/InBook.vue'
import CauseLine from '@/lesson/decide/CauseLine.vue'
import DecideButton from '@/lesson/decide/DecideButton.vue'
import EvidenceLists from '@/lesson/decide/EvidenceLists.vue'
import ExplainsBars from '@/lesson/decide/ExplainsBars.vue'
import type { WhatIf } from '@/lesson/decide/useWhatIf'
import WhyNot from '@/lesson/decide/WhyNot.vue'
import { bringsAbout, SEEN_WORDS, type Row } from '@/lesson/decide/rows'
import { useLessonContext } from '@/lesson/lessonContext'

const props = defineProps<{
  row: Row
  openUp: boolean
  start: boolean
  decided: boolean
  diagnosis: Diagnosis
  whatIf: WhatIf | null
}>()
const known = useKnowledge()
const { open, words, lesson } = useLessonContext()
defineEmits<{ choose: [id: string]; decide: [reason: string] }>()

const cause = computed(() => props.row.cause)
const name = (id: string) => words(known.cause(id)?.name ?? id)
const first = computed(() => props.diagnosis.ranking.causes[0]?.id ?? '')
const without = computed(() =>
  props.whatIf?.cause === cause.value.id ? props.whatIf.sentence : '',
)
const drills = computed(() =>
  props.start ? props.diagnosis.ranking.drills.flatMap((id) => known.drill(id)?.name ?? []) : [],
)
const withheld = computed(() =>
  props.diagnosis.withheld.map((w) => {
    const drill = known.drill(w.id)
    return `${drill?.name ?? w.id} (${w.reason})`
  }),
)
/** The look that shows this cause, while nobody has answered it: one touch rules it out. */
const showing = computed(() => {
  const look = known.all.checks.find((c) => c.shows === cause.value.id)
  return look && !lesson.value.answers.some((a) => a.check_id === look.id) ? look : null
})
const seen = (c: CauseRank) => (c.seen ? `, ${SEEN_WORDS[c.seen].toLowerCase()}` : '')
</script>

<template>
  <li :class="['cause', { open: openUp }]" :data-testid="`cause-${cause.id}`">
    <button type="button" class="head" :aria-expanded="openUp" @click="$emit('choose', cause.id)">
      <CauseLine
        :cause="cause"
        :name="name(cause.id)"
        :decided="decided"
        :first="cause.id === first"
        :badge="diagnosis.decision_status.badge"
      />
    </button>
    <ul v-if="row.bringsAbout.length" class="brings">
      <li v-for="c in row.bringsAbout" :key="c.id" :data-testid="`under-${c.id}`">
        {{ bringsAbout(c) }}: {{ name(c.id) }}{{ seen(c) }}
      </li>
    </ul>
    <div v-if="openUp" class="why">
      <p class="quiet">{{ words(known.cause(cause.id)?.sentence ?? '') }}</p>
      <ExplainsBars :cause="cause" :diagnosis="diagnosis" />
      <EvidenceLists :cause="cause" />
      <InBook :cause="cause.id" />
      <p v-if="start && diagnosis.ranking.ball_next" data-testid="ball-next">
        <span class="strong">What the ball should do next.</span> {{ diagnosis.ranking.ball_next }}
      </p>
      <p v-else-if="without" data-testid="without">
        <span class="strong">Without this cause.</span> {{ without }}
        <span class="quiet">It is dashed on the plan.</span>
      </p>
      <p v-if="drills.length">
        <span class="strong">Drills:</span> {{ words(drills.slice(0, 3).join(' · ')) }}
      </p>
      <p v-if="start && withheld.length" class="quiet">
        Not for this student: {{ words(withheld.join(', ')) }}
      </p>
      <p v-if="showing" class="rule-out">
        {{ words(showing.question) }}
        <v-btn
          size="small"
          data-testid="rule-out"
          @click="open.putAnswer(showing.id, 'no', open.sourceOf(showing.id))"
        >
          Looked: it is not this
        </v-btn>
      </p>
      <WhyNot :cause="cause.id" :diagnosis="diagnosis" />
      <DecideButton
        v-if="!decided"
        :first="cause.id === first"
        :start="start"
        :first-name="`“${name(first)}”`"
        @decide="(reason) => $emit('decide', reason)"
      />
    </div>
  </li>
</template>

<style scoped>
.cause {
  position: relative;
  padding: 2px 10px 4px;
  border-radius: var(--corner);
}
.cause.open {
  --length: var(--clay);
  background: var(--panel);
}
.head {
  width: 100%;
  min-height: 48px;
  padding: 4px 0 0;
  text-align: left;
}
.open .head :deep(.name) {
  font-weight: var(--strong);
}
.brings {
  list-style: none;
  margin: 0 0 4px 14px;
  padding-left: 12px;
  border-left: 2px solid var(--line);
  font-size: var(--text-small);
}
.rule-out {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 4px 12px;
}
.why {
  display: grid;
  gap: 6px;
  padding: 4px 0 8px;
  font-size: var(--text-small);
}
</style>
