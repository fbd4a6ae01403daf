<script setup lang="ts">
// A returning student starts with the last lesson beside this one, and what home practice showed.
import { computed } from 'vue'
import { useKnowledge } from '@/api/knowledge'
import { useOpenLesson } from '@/lesson/openLesson'
import { useLast } from '@/lesson/useLast'
import { dayWord } from '@/ui/dates'
import { count } from '@/ui/words'

const known = useKnowledge()
const { open, lesson, words } = useOpenLesson()
const last = useLast(open)

const limits = computed(() =>
  lesson.value.student.limits.map(
    (id) => known.all.cautions.limits.find((l) => l.id === id)?.name.toLowerCase() ?? id,
  ),
)
const balls = computed(() =>
  (last.value?.baselines ?? []).map(
    ({ club, shots }) => `${count(shots.length, 'ball')} with ${known.club(club)?.name ?? club}`,
  ),
)
const rows = computed(() => {
  const before = last.value
  if (!before) return []
  const back = before.follow_up
  const drill = known.drill(before.drill)?.name
  const home =
    back?.practised == null
      ? ''
      : `, at home ${count(back.practised, 'time')}, ${String(back.passes ?? 0)} right`
  return [
    { what: 'They said', said: before.complaint && `“${before.complaint}”` },
    { what: 'Cue', said: before.cue && `“${words(before.cue)}”` },
    {
      what: 'Drill',
      said:
        drill &&
        `${drill}: ${String(before.right)} right, ${String(before.not_yet)} not yet${home}`,
    },
    { what: 'On the course', said: back?.course && `“${back.course}”` },
    { what: 'Limits', said: limits.value.join(', ') },
    {
      what: 'Balls',
      said: balls.value.length ? `${balls.value.join(', ')}; under the new ones` : '',
    },
  ].filter((row) => row.said)
})
const cause = computed(() => {
  const id = last.value?.cause
  return id ? { id, name: words(known.cause(id)?.name ?? id) } : null
})
const verdict = computed(() => last.value?.follow_up?.verdict ?? 'not asked yet')
const isTakenUp = computed(() => lesson.value.decisions.some((d) => d.cause === cause.value?.id))

/** The old cause, and the drill that went with it. */
function takeUp(): void {
  const before = last.value
  if (!before?.cause) return
  open.decide(before.cause, `Taken up again from the lesson of ${dayWord(before.started_at)}.`)
  if (before.drill) open.changeLesson({ drill: before.drill })
}
</script>

<template>
  <aside v-if="last" class="back" aria-label="From the last lesson" data-testid="came-back">
    <p class="title">
      <strong>Lesson of {{ dayWord(last.started_at) }}</strong>
      <template v-if="cause"
        >: {{ cause.name }}, <strong>{{ verdict }}</strong></template
      >
      <template v-else>: nothing was decided</template>
    </p>
    <dl>
      <template v-for="row in rows" :key="row.what">
        <dt>{{ row.what }}</dt>
        <dd>{{ row.said }}</dd>
      </template>
    </dl>
    <div class="acts">
      <v-btn v-if="cause && !isTakenUp" color="primary" variant="flat" @click="takeUp">
        Take this cause up again
      </v-btn>
      <span v-else-if="cause" class="strong">Taken up again.</span>
      <span v-if="lesson.reopens || isTakenUp">A short new baseline first.</span>
      <v-btn variant="text" :to="{ name: 'lesson', params: { id: last.lesson_id, stage: 'send' } }">
        Open that lesson
      </v-btn>
    </div>
  </aside>
</template>

<style scoped>
.back {
  display: grid;
  gap: 8px;
  padding: 12px 16px;
  border-left: 4px solid var(--slate);
  background: var(--panel);
}
.title {
  font-size: var(--text-lead);
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 2px 16px;
}
dt {
  color: var(--quiet);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
</style>
