<script setup lang="ts">
// Compare two or three causes side by side, decide on one, then say it in the student's language.
import type { Diagnosis } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import { computed, useTemplateRef, watch } from 'vue'
import CauseLine from '@/lesson/decide/CauseLine.vue'
import CompareCard from '@/lesson/decide/CompareCard.vue'
import CueBench from '@/lesson/decide/CueBench.vue'
import { bringsAbout, rowsOf } from '@/lesson/decide/rows'
import TellApart from '@/lesson/decide/TellApart.vue'
import { useCompared } from '@/lesson/decide/useCompared'
import { useLessonContext } from '@/lesson/lessonContext'
import { useCoaching } from '@/lesson/useCoaching'
import { dayWord } from '@/ui/dates'
import StateMessage from '@/ui/StateMessage.vue'

const known = useKnowledge()
const { open, lesson, diagnosis, words } = useLessonContext()

const LISTED = 7
const coaching = useCoaching(open)
const { compared, without, toggle, still } = useCompared(open)
const decided = computed(() => lesson.value.decisions.at(-1) ?? null)
const ranking = computed(() => diagnosis.value?.ranking ?? null)
const nameOf = (id: string) => words(known.cause(id)?.name ?? id)
/** The likeliest, those that are compared, and those that were decided on before. */
const rows = computed(() => {
  const kept = new Set([...compared.value, ...lesson.value.earlier.map((e) => e.cause)])
  const all = ranking.value ? rowsOf(ranking.value) : []
  return all.filter((r, i) => i < LISTED || kept.has(r.cause.id))
})
/** What became of it in an earlier lesson. */
function fateOf(id: string): string {
  const earlier = lesson.value.earlier.find((e) => e.cause === id)
  const verdict = earlier?.follow_up?.verdict
  return earlier && verdict
    ? `In the lesson of ${dayWord(earlier.started_at)} it was ${verdict}.`
    : ''
}
/** In the order in which they were put side by side, whatever the ranking does meanwhile. */
const cards = computed(() =>
  compared.value.flatMap((id) => ranking.value?.causes.find((c) => c.id === id) ?? []),
)
/** Once it is decided the cues are what comes next: they are brought into sight. */
const cues = useTemplateRef<HTMLElement>('cues')
watch(
  () => [decided.value?.id, coaching.found.value?.decided] as const,
  ([id, ready], [before]) => {
    if (id !== undefined && (id !== before || ready))
      cues.value?.scrollIntoView?.({ block: 'start' })
  },
  { flush: 'post' },
)
const firstThen = computed(() => {
  const kept = decided.value?.ranking as Partial<Diagnosis['ranking']> | undefined
  const spoke =
    (kept?.pattern?.balls ?? 0) > 0 ||
    kept?.causes?.some((c) => c.for.length > 0 || c.against.length > 0)
  return spoke ? (kept?.causes?.[0]?.id ?? null) : null
})
</script>

<template>
  <section class="stage" aria-label="Decide">
    <StateMessage
      v-if="!diagnosis || !ranking"
      inside
      kind="loading"
      title="Weighing the evidence"
    />
    <template v-else>
      <header class="verdict">
        <p v-if="decided" class="decided" data-testid="decided">
          <strong>Decided: {{ nameOf(decided.cause) }}.</strong>
          <span v-if="decided.reason" class="quiet">“{{ decided.reason }}”</span>
          <span v-if="firstThen && firstThen !== decided.cause" class="quiet">
            “{{ nameOf(firstThen) }}” stood first then.
          </span>
        </p>
        <p v-if="decided && coaching.found.value?.next_in_line" data-testid="next-in-line">
          When that holds, next in line is “{{ nameOf(coaching.found.value.next_in_line) }}”; not
          today.
        </p>
        <h1 data-testid="verdict-headline">{{ words(diagnosis.decision_status.headline) }}</h1>
        <p class="quiet">{{ words(diagnosis.decision_status.detail) }}</p>
        <p v-if="ranking.unexplained" class="quiet">{{ words(ranking.unexplained) }}</p>
        <p v-if="diagnosis.schools_say" class="quiet" data-testid="schools">
          {{ words(diagnosis.schools_say) }}
        </p>
        <p
          v-if="diagnosis.decision_status.kind === 'not_enough'"
          class="thin"
          role="note"
          data-testid="thin"
        >
          Deciding now would be a guess.
        </p>
      </header>
      <div ref="cues">
        <CueBench v-if="coaching.found.value?.decided" :cues="coaching.found.value.cues" />
      </div>
      <div class="columns">
        <nav class="list" aria-label="Causes to compare">
          <ol>
            <li v-for="row in rows" :key="row.cause.id">
              <button
                type="button"
                :class="{ on: compared.includes(row.cause.id) }"
                :aria-pressed="compared.includes(row.cause.id)"
                :data-testid="`row-${row.cause.id}`"
                @click="toggle(row.cause.id)"
              >
                <CauseLine
                  :cause="row.cause"
                  :name="nameOf(row.cause.id)"
                  :decided="decided?.cause === row.cause.id"
                  :first="ranking.causes[0]?.id === row.cause.id"
                  :badge="diagnosis.decision_status.badge"
                />
              </button>
              <p v-for="c in row.bringsAbout" :key="c.id" class="brings">
                {{ bringsAbout(c) }}: {{ nameOf(c.id) }}
              </p>
              <p v-if="fateOf(row.cause.id)" class="quiet fate">{{ fateOf(row.cause.id) }}</p>
            </li>
          </ol>
        </nav>
        <div
          class="cards"
          :style="{ '--cards': Math.max(1, cards.length) }"
          :inert="still ? undefined : true"
          data-testid="cards"
        >
          <CompareCard
            v-for="cause in cards"
            :key="cause.id"
            :cause="cause"
            :diagnosis="diagnosis"
            :what-if="without.get(cause.id) ?? null"
            :earlier="fateOf(cause.id)"
            @decide="(reason) => open.decide(cause.id, reason)"
            @leave="toggle(cause.id)"
          />
          <p v-if="cards.length === 0" class="quiet">
            Touch two or three causes on the list to compare them.
          </p>
        </div>
      </div>
      <TellApart v-if="cards[0] && cards[1]" :one="cards[0].id" :other="cards[1].id" />
    </template>
  </section>
</template>

<style scoped>
.stage {
  display: grid;
  align-content: start;
  gap: 14px;
  padding: 14px 20px 24px;
  overflow-y: auto;
}
h1 {
  font-size: var(--text-title);
}
.decided {
  display: flex;
  flex-wrap: wrap;
  gap: 0 8px;
  margin-bottom: 4px;
  font-size: var(--text-lead);
}
.columns {
  display: grid;
  grid-template-columns: 264px minmax(0, 1fr);
  gap: 16px;
  align-items: start;
}
ol {
  list-style: none;
  padding: 0;
  display: grid;
  gap: 6px;
}
.list button {
  width: 100%;
  min-height: 52px;
  padding: 6px 12px;
  text-align: left;
  border: 1.5px solid var(--line);
  border-radius: var(--corner);
  background: var(--surface);
}
.list .on {
  border: 2.5px solid var(--ink);
}
.thin {
  margin-top: 6px;
  padding: 6px 12px;
  border-left: 4px solid var(--ink);
  background: var(--panel);
}
.fate {
  padding: 2px 12px;
  font-size: var(--text-small);
}
.brings {
  margin: 2px 0 0 14px;
  padding-left: 12px;
  border-left: 2px solid var(--line);
  font-size: var(--text-small);
}
.cards {
  display: grid;
  grid-template-columns: repeat(var(--cards), minmax(0, 1fr));
  gap: 14px;
  align-items: stretch;
}
@media (max-width: 1000px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
  .cards {
    order: -1;
    grid-template-columns: repeat(auto-fit, minmax(280px, 1fr));
  }
}
</style>
