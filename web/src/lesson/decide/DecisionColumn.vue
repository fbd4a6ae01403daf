<script setup lang="ts">
// The decision, always in view: what fits, how sure, and the one look that would tell most.
import { computed, ref } from 'vue'
import { useKnowledge } from '@/api/knowledge'
import CauseRow from '@/lesson/decide/CauseRow.vue'
import NextStep from '@/lesson/decide/NextStep.vue'
import type { WhatIf } from '@/lesson/decide/useWhatIf'
import { useLessonContext } from '@/lesson/lessonContext'
import StateMessage from '@/ui/StateMessage.vue'
import { rowsOf, startOf } from '@/lesson/decide/rows'
import { percentWord, sureWord } from '@/ui/words'

const block = defineModel<string | null>('block', { required: true })
const props = defineProps<{
  opened: string | null
  whatIf: WhatIf | null
}>()
const known = useKnowledge()
const { open, lesson, diagnosis, words } = useLessonContext()
defineEmits<{ touchCause: [id: string] }>()

const FEW = 4
/** Feet as this student has them. */
const all = ref(false)
const ranking = computed(() => diagnosis.value?.ranking ?? null)
const rows = computed(() => {
  const ranked = ranking.value ? rowsOf(ranking.value) : []
  const first = ranked.slice(0, all.value ? ranked.length : FEW)
  const opened = ranked.filter((r) => r.cause.id === props.opened && !first.includes(r))
  return [...first, ...opened]
})
const decided = computed(() => lesson.value.decisions.at(-1)?.cause ?? null)
const outside = computed(() => percentWord(ranking.value?.outside_feet ?? 0))
const disputed = computed(() =>
  (diagnosis.value?.contradictions ?? []).map((id) => known.check(id)?.label ?? id),
)
function countThePast(): void {
  open.changeLesson({ listen: { ...lesson.value.listen, past_left_out: false } })
}
const fromThePast = computed(() =>
  ranking.value?.causes.some((c) => c.for.some((e) => e.evidence.startsWith('history:'))),
)
const nothingYet = computed(
  () =>
    ranking.value?.pattern.balls === 0 && lesson.value.answers.length === 0 && !lesson.value.traces,
)
</script>

<template>
  <aside class="decision" aria-label="Decision">
    <StateMessage
      v-if="!diagnosis || !ranking"
      inside
      kind="loading"
      title="Weighing the evidence"
    />
    <template v-else>
      <header>
        <h2 data-testid="standing">{{ words(diagnosis.decision_status.headline) }}</h2>
        <p v-if="!nothingYet" class="quiet">{{ words(diagnosis.decision_status.detail) }}</p>
        <p v-if="ranking.unexplained" class="quiet" data-testid="unexplained">
          {{ words(ranking.unexplained) }}
        </p>
        <p v-if="disputed.length" data-testid="contradiction">
          Answers disagree: {{ words(disputed.join(', ')) }}. All are kept; look again.
        </p>
        <p v-if="!nothingYet && diagnosis.schools_say" class="quiet" data-testid="schools">
          {{ words(diagnosis.schools_say) }}
        </p>
        <p v-if="lesson.listen.past_left_out" class="quiet" data-testid="past-left-out">
          What earlier lessons found is left out.
          <v-btn size="small" variant="text" @click="countThePast">Count it again</v-btn>
        </p>
      </header>
      <p v-if="nothingYet" class="quiet">
        Before the first ball these numbers only say how common each cause is{{
          fromThePast ? ', and what earlier lessons found' : ''
        }}. Log balls or answer looks, and they move.
      </p>
      <div class="scroll" tabindex="0" role="region" aria-label="Causes">
        <ol class="causes" data-testid="causes">
          <CauseRow
            v-for="row in rows"
            :key="row.cause.id"
            :row="row"
            :open-up="opened === row.cause.id"
            :start="startOf(diagnosis) === row.cause.id"
            :decided="decided === row.cause.id"
            :diagnosis="diagnosis"
            :what-if="whatIf"
            @choose="(id) => $emit('touchCause', id)"
            @decide="(reason) => open.decide(row.cause.id, reason)"
          />
        </ol>
      </div>
      <div class="foot">
        <p class="outside">
          Other than the feet
          <span class="quiet">{{ sureWord(diagnosis?.outside_word ?? '') }}</span>
          <span class="number">{{ outside }}</span>
        </p>
        <v-btn variant="text" size="small" @click="all = !all">
          {{ all ? 'Show the first few' : `Show all ${ranking.causes.length}` }}
        </v-btn>
      </div>
      <NextStep v-model:block="block" class="next" :diagnosis="diagnosis" />
    </template>
  </aside>
</template>

<style scoped>
.decision {
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding: 12px 20px;
  background: var(--surface);
}
h2 {
  font-size: var(--text-lead);
}
.scroll {
  flex: 1;
  min-height: 0;
  overflow-y: auto;
  margin: 0 -8px;
  padding: 0 8px;
}
.causes {
  list-style: none;
  padding: 0;
}
.foot {
  flex: none;
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  font-size: var(--text-small);
}
.foot .v-btn {
  min-width: 0;
  padding: 0 4px;
}
.outside {
  display: flex;
  gap: 8px;
  align-items: baseline;
  padding-left: 10px;
  white-space: nowrap;
}
.next {
  flex: none;
}
</style>
