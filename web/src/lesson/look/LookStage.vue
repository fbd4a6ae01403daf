<script setup lang="ts">
// All looks by where one stands for them; the ones that would tell most are marked.
import { useKnowledge } from '@/api/knowledge'
import { computed, defineAsyncComponent, ref } from 'vue'
import CheckRow from '@/lesson/look/CheckRow.vue'
import StanceCard from '@/lesson/look/StanceCard.vue'
import SetupGate from '@/lesson/drill/SetupGate.vue'
import { useLessonContext } from '@/lesson/lessonContext'
import { useBlocks } from '@/lesson/useBlocks'
import { useCoaching } from '@/lesson/useCoaching'
import ChooseOne from '@/ui/ChooseOne.vue'
import OneOf from '@/ui/OneOf.vue'
import { usePhone } from '@/ui/usePhone'
import { VIEW_WORDS } from '@/ui/words'

// the ruler is large, and wanted by those who film
const FilmRuler = defineAsyncComponent(() => import('@/lesson/look/film/FilmRuler.vue'))

const known = useKnowledge()
const { open, lesson, diagnosis } = useLessonContext()

const emit = defineEmits<{ block: [id: string] }>()

const coaching = useCoaching(open)
const blocks = useBlocks(
  open,
  () => lesson.value,
  (id) => {
    emit('block', id)
  },
)
const SUGGESTED = 3
type View = keyof typeof VIEW_WORDS
const shown = ref<View | 'all'>('all')
const suggested = computed(
  () => new Set(diagnosis.value?.ranking.next_checks.slice(0, SUGGESTED).map((c) => c.id)),
)
const views = computed(() =>
  (Object.keys(VIEW_WORDS) as View[])
    .filter((view) => view !== 'belief')
    .map((view) => {
      const checks = known.all.checks.filter((c) => c.view === view)
      const answered = checks.filter((c) => lesson.value.answers.some((a) => a.check_id === c.id))
      return { view, title: VIEW_WORDS[view], checks, answered: answered.length }
    }),
)
const first = computed(() =>
  (diagnosis.value?.ranking.next_checks ?? [])
    .slice(0, SUGGESTED)
    .flatMap((c) => known.check(c.id) ?? []),
)
/** Seen with what was hit last after a change; null: before anything was changed. */
const changed = computed(
  () => lesson.value.blocks.filter((b) => b.kind !== 'baseline').at(-1) ?? null,
)
const when = ref<'before' | 'after'>('before')
const WHENS = [
  { id: 'before', word: 'Before' },
  { id: 'after', word: 'After' },
] as const
const by = ref<'looks' | 'film'>('looks')
const BY = [
  { id: 'looks', word: 'Looks' },
  { id: 'film', word: 'Film' },
] as const
const blockId = computed(() => (when.value === 'after' ? (changed.value?.id ?? null) : null))
const enough = computed(
  () => diagnosis.value?.decision_status.kind === 'settled' && !lesson.value.decisions.length,
)
/** Those on top are not shown a second time below. */
const onTop = computed(() =>
  when.value === 'before' && shown.value === 'all'
    ? new Set(first.value.map((c) => c.id))
    : new Set(),
)
/** On a phone what would tell most, then one standing place at a time. */
const isPhone = usePhone()
const unfolded = ref<View | null>(null)
const isFolded = (view: View) => isPhone.value && shown.value === 'all' && unfolded.value !== view
const places = computed(() => [
  { id: 'all' as const, word: 'All' },
  ...views.value.map((v) => ({
    id: v.view,
    word: `${v.title} ${String(v.answered)}/${String(v.checks.length)}`,
  })),
])
const visible = computed(() =>
  views.value.filter((v) => shown.value === 'all' || v.view === shown.value),
)
</script>

<template>
  <section class="look" aria-label="Look">
    <div class="filter">
      <OneOf name="By eye or on film" :words="BY" :on="by" @chosen="(w) => (by = w)" />
      <OneOf
        v-if="changed"
        name="Seen before or after the change"
        :words="WHENS"
        :on="when"
        @chosen="(w) => (when = w)"
      />
      <div v-if="by === 'film'" id="film-uses" />
      <ChooseOne
        v-if="by === 'looks' && isPhone"
        class="places"
        name="Standing place"
        :options="places"
        :on="shown"
        @chosen="(p) => (shown = p)"
      />
      <OneOf
        v-else-if="by === 'looks'"
        class="places"
        name="Standing place"
        :words="places"
        :on="shown"
        @chosen="(p) => (shown = p)"
      />
    </div>
    <FilmRuler v-if="by === 'film'" :block-id="blockId" />
    <div v-else class="list" tabindex="0" role="region" aria-label="Looks">
      <SetupGate
        v-if="coaching.found.value"
        :changes="coaching.found.value.setup_changes"
        @hit="blocks.hitWith"
      />
      <p v-if="enough" class="enough" role="note">
        Another look would hardly change the drill:
        <router-link :to="{ name: 'lesson', params: { id: lesson.id, stage: 'decide' } }"
          >decide</router-link
        >, and keep the minutes for the retest.
      </p>
      <section
        v-if="first.length && when === 'before' && shown === 'all'"
        aria-labelledby="view-first"
      >
        <h2 id="view-first">Would tell most now</h2>
        <ul>
          <CheckRow
            v-for="check in first"
            :key="check.id"
            :check="check"
            :answers="lesson.answers.filter((a) => a.check_id === check.id)"
            :suggested="false"
            :hand="lesson.student.handedness"
            :open="open"
          />
        </ul>
      </section>
      <StanceCard v-if="shown === 'all' || shown === 'setup'" />
      <section v-for="v in visible" :key="v.view" :aria-labelledby="`view-${v.view}`">
        <h2 :id="`view-${v.view}`">
          <button
            v-if="isPhone && shown === 'all'"
            type="button"
            class="fold"
            :aria-expanded="!isFolded(v.view)"
            @click="unfolded = isFolded(v.view) ? v.view : null"
          >
            {{ v.title }} <span class="number">{{ v.answered }} of {{ v.checks.length }}</span>
          </button>
          <template v-else>{{ v.title }}</template>
        </h2>
        <ul v-if="!isFolded(v.view)">
          <CheckRow
            v-for="check in v.checks.filter((c) => !onTop.has(c.id))"
            :key="check.id"
            :check="check"
            :answers="lesson.answers.filter((a) => a.check_id === check.id)"
            :suggested="suggested.has(check.id)"
            :hand="lesson.student.handedness"
            :open="open"
            :block-id="blockId"
          />
        </ul>
      </section>
      <p class="quiet film">
        A film stays on this device: only what was touched on it, and the answers, are kept.
      </p>
    </div>
  </section>
</template>

<style scoped>
.look {
  display: flex;
  flex-direction: column;
  padding: 12px 0 0 20px;
}
.filter {
  flex: none;
  display: flex;
  flex-wrap: wrap;
  gap: 10px 6px;
  padding: 0 20px 10px 0;
}
.list {
  flex: 1;
  overflow-y: auto;
  padding-right: 20px;
  padding-bottom: 24px;
}
.film {
  margin-top: 12px;
}
.enough {
  padding: 8px 12px;
  border-left: 4px solid var(--ink);
}
.enough a {
  color: inherit;
}
h2 {
  font-size: var(--text-lead);
  margin: 10px 0 2px;
}
.fold {
  display: flex;
  justify-content: space-between;
  width: 100%;
  min-height: 52px;
  align-items: center;
  border-bottom: 1px solid var(--line);
  font-weight: var(--strong);
}
ul {
  padding: 0;
  list-style: none;
}
.places {
  flex-wrap: wrap;
}
@media (max-width: 600px) {
  .places {
    flex: 1 1 200px;
  }
}
</style>
