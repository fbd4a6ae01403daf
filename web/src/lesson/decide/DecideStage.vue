<script setup lang="ts">
// Decide on one root, with or against the ranking, then say it in the student's own language.
import { computed, ref, watch } from 'vue'
import { ask, client, type Diagnosis, type Knowledge, type Lesson, type Shape } from '@/api/client'
import { useAsked } from '@/api/useAsked'
import CueBench from '@/lesson/decide/CueBench.vue'
import { useCoaching } from '@/lesson/useCoaching'
import type { OpenLesson } from '@/lesson/useLesson'
import { dayWord } from '@/ui/dates'
import { useSettings } from '@/ui/settings'
import { ANSWER_WORDS, evidenceWord, say, standingWord } from '@/ui/words'

const props = defineProps<{
  open: OpenLesson
  lesson: Lesson
  diagnosis: Diagnosis | null
  knowledge: Knowledge
}>()

const SHOWN = 6
const settings = useSettings()
const speaker = computed(() => ({ hand: props.lesson.student.handedness, sides: settings.sides }))
const coaching = useCoaching(props.lesson.id, () => props.diagnosis)
const decided = computed(() => props.lesson.decisions.at(-1) ?? null)
const first = computed(() => props.diagnosis?.ranking.start_with ?? null)
const name = (id: string) =>
  say(props.knowledge.causes.find((c) => c.id === id)?.name ?? id, speaker.value)
/** The likeliest, and those that were decided on before. */
const roots = computed(() => {
  const all = [...(props.diagnosis?.ranking.causes ?? [])].sort((a, b) => b.root - a.root)
  const before = new Set(props.lesson.earlier.map((e) => e.cause))
  return all.filter((c, i) => i < SHOWN || before.has(c.id))
})
/** Where it stands, and what became of it in an earlier lesson. */
function tagOf(id: string): string {
  const earlier = props.lesson.earlier.find((e) => e.cause === id)
  const verdict = earlier?.follow_up?.verdict
  const fate = earlier && verdict ? `${verdict}, lesson of ${dayWord(earlier.started_at)}` : ''
  return [id === first.value ? 'ranked first' : '', fate].filter(Boolean).join(' · ')
}
/** What is missing, where the evidence cannot carry a decision. */
const thin = computed(() =>
  props.diagnosis?.standing.kind === 'too_little'
    ? standingWord(props.diagnosis, props.knowledge)
    : '',
)
const picked = ref<string | null>(null)
const reason = ref('')
const against = computed(() => picked.value !== null && picked.value !== first.value)
const between = useAsked<Shape['BetweenOut']>()
watch([picked, first], ([one, other]) => {
  const params = {
    path: { lesson_id: props.lesson.id },
    query: { one: one ?? '', other: other ?? '' },
  }
  const call = () => ask(client.GET('/api/lessons/{lesson_id}/between', { params }))
  void between.put(one && other && one !== other ? call() : null)
})
/** Looks that would favour the picked cause, and how. */
const wouldHave = computed(() => {
  const found = between.found.value
  if (!found) return []
  return found.looks.slice(0, 3).flatMap((look) => {
    const check = props.knowledge.checks.find((c) => c.id === look.id)
    if (!check) return []
    const pointed = { ...check.points, ...check.points_thrown, ...check.points_stuck }
    const yes = picked.value !== null && picked.value in pointed
    return [`${check.label}: ${yes ? 'yes' : 'no'}`]
  })
})
const speaksAgainst = computed(() =>
  (between.found.value?.evidence ?? []).filter((e) => e.bits < -0.2).slice(0, 3),
)
const answers = computed(
  () =>
    new Map(props.lesson.answers.map((a) => [a.check_id, ANSWER_WORDS[a.answer].toLowerCase()])),
)
function word(id: string): string {
  const { hand } = speaker.value
  return props.diagnosis
    ? say(evidenceWord(id, props.diagnosis, props.knowledge, answers.value, hand), speaker.value)
    : id
}

function decide(): void {
  if (picked.value === null) return
  props.open.decide(picked.value, reason.value)
  picked.value = null
  reason.value = ''
}
</script>

<template>
  <section class="decide" aria-label="Decide">
    <p v-if="decided" class="decided" data-testid="decided">
      <strong>Decided: {{ name(decided.cause) }}.</strong>
      <span v-if="decided.reason" class="quiet"> {{ decided.reason }}</span>
      <span v-if="decided.ranking.start_with !== decided.cause" class="quiet">
        The ranking had “{{ name(String(decided.ranking.start_with)) }}” first then.
      </span>
    </p>
    <p v-if="thin" class="thin" role="note" data-testid="thin">
      {{ thin }} Deciding now would be a guess.
    </p>
    <h2>
      One root to start with
      <span class="quiet small">how likely it is there and does not come from another cause</span>
    </h2>
    <ul class="roots">
      <li v-for="c in roots" :key="c.id">
        <button
          type="button"
          :class="{ on: picked === c.id }"
          :aria-pressed="picked === c.id"
          @click="picked = picked === c.id ? null : c.id"
        >
          <span>{{ name(c.id) }}</span>
          <span class="tag">{{ tagOf(c.id) }}</span>
          <span class="number">{{ (100 * c.root).toFixed(0) }} %</span>
        </button>
      </li>
    </ul>
    <div v-if="picked" class="pick" data-testid="picked">
      <template v-if="against">
        <p>
          <strong>Against the ranking.</strong> For “{{ name(picked) }}” rather than “{{
            name(first ?? '')
          }}” it would have to be that:
        </p>
        <ul>
          <li v-for="w in wouldHave" :key="w">{{ say(w, speaker) }}</li>
          <li v-if="speaksAgainst.length">
            this misleads: {{ speaksAgainst.map((e) => word(e.evidence)).join('; ') }}
          </li>
        </ul>
      </template>
      <v-textarea
        v-model="reason"
        :label="against ? 'Why this one' : 'Why (may stay empty)'"
        rows="1"
        auto-grow
        maxlength="2000"
      />
      <v-btn
        color="primary"
        variant="flat"
        class="mt-2"
        :disabled="against && reason.trim() === ''"
        data-testid="decide"
        @click="decide"
      >
        Decide on this
      </v-btn>
    </div>
    <CueBench
      v-if="coaching.found.value?.decided"
      :open="open"
      :lesson="lesson"
      :knowledge="knowledge"
      :cues="coaching.found.value.cues"
    />
  </section>
</template>

<style scoped>
.decide {
  display: grid;
  align-content: start;
  gap: 12px;
  padding: 16px 20px 24px;
  overflow-y: auto;
}
.thin {
  padding: 8px 12px;
  border-left: 4px solid rgb(var(--v-theme-ink));
  background: rgb(var(--v-theme-panel));
}
.decided {
  display: flex;
  flex-wrap: wrap;
  gap: 0 8px;
  font-size: 18px;
}
h2 {
  font-size: 18px;
}
.small {
  font-size: 14px;
  font-weight: 400;
}
.roots {
  list-style: none;
  padding: 0;
  display: grid;
  gap: 6px;
}
.roots button {
  display: grid;
  grid-template-columns: 1fr auto 60px;
  align-items: center;
  gap: 12px;
  width: 100%;
  min-height: 52px;
  padding: 0 14px;
  text-align: left;
  border: 1.5px solid rgb(var(--v-theme-line));
  border-radius: 10px;
  background: rgb(var(--v-theme-surface));
}
.roots .number {
  grid-column: 3;
  text-align: right;
}
.roots .on {
  border: 2.5px solid rgb(var(--v-theme-clay));
  font-weight: 700;
}
.tag {
  font-size: 14px;
  font-weight: 400;
}
.pick {
  padding: 12px 16px;
  border-left: 4px solid rgb(var(--v-theme-clay));
}
.pick ul {
  padding-left: 20px;
  margin-bottom: 8px;
}
</style>
