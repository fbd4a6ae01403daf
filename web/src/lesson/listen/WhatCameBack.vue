<script setup lang="ts">
// A returning student starts with the last lesson: what came of it is asked and entered here.
import { before } from '@/sync/changedFields'
import { computed } from 'vue'
import { useKnowledge } from '@/api/knowledge'
import { useLessonContext } from '@/lesson/lessonContext'
import { ask, client, type Shape } from '@/api/client'
import { useAttempt } from '@/api/useAttempt'
import { KNOWN_BY_WORDS } from '@/casebook/words'
import LastTime from '@/lesson/look/LastTime.vue'
import { useLastOf } from '@/lesson/useLast'
import OneOf from '@/ui/OneOf.vue'
import { vTyped } from '@/ui/typed'
import { keepOld, typedNumber } from '@/ui/units'
import { dayWord, localDay } from '@/ui/dates'
import { count } from '@/ui/words'

const known = useKnowledge()
const { open, lesson, words } = useLessonContext()
const { last, readAgain } = useLastOf(open)

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
/** "retest confirmed it": what the lesson itself said of its decision. */
const measured = computed(() => {
  const FOUND = {
    confirmed: 'confirmed it',
    partly: 'partly confirmed it',
    rejected: 'spoke against it',
  }
  return Object.entries(last.value?.measured ?? {})
    .map(([by, fate]) => `${KNOWN_BY_WORDS[by as keyof typeof KNOWN_BY_WORDS]} ${FOUND[fate]}`)
    .join(', ')
})
const rows = computed(() => {
  const before = last.value
  if (!before) return []
  const drill = known.drill(before.drill)?.name
  return [
    { what: 'They said', said: before.complaint && `“${before.complaint}”` },
    { what: 'Cue', said: before.cue && `“${words(before.cue)}”` },
    {
      what: 'Drill',
      said: drill && `${drill}: ${String(before.right)} right, ${String(before.not_yet)} not yet`,
    },
    { what: 'Found then', said: measured.value },
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
const back = computed(() => last.value?.follow_up ?? null)
const FATES = [
  { id: 'confirmed', word: 'It was the cause' },
  { id: 'partly', word: 'Partly' },
  { id: 'rejected', word: 'It was not' },
] as const
const { problem, attempt } = useAttempt()
/** It is kept with that lesson, and asked on the day it is said. */
async function cameBack(body: Shape['FollowUpIn']): Promise<void> {
  const id = last.value?.lesson_id
  if (id === undefined) return
  const today = localDay(new Date())
  const params = { path: { lesson_id: id } }
  const whole = back.value ? { ...body, was: before(back.value, body) } : { due_on: today, ...body }
  await attempt(() =>
    ask(
      client.POST('/api/lessons/{lesson_id}/changes', {
        params,
        body: { kind: 'follow-up', body: whole },
      }),
    ),
  )
  await readAgain()
}
const MOST = { practised: 100, passes: 10_000 } as const
const text = (value: number | null | undefined) => (value == null ? '' : String(value))
function typedCount(name: keyof typeof MOST, event: Event): void {
  const input = event.target as HTMLInputElement
  const number = typedNumber(input.value)
  if (number != null && Number.isInteger(number) && number >= 0 && number <= MOST[name])
    void cameBack({ [name]: number })
  else keepOld(input, text(back.value?.[name]))
}
const looked = computed(() =>
  (last.value?.answers ?? []).flatMap((a) => {
    const check = known.check(a.check_id)
    const answered = lesson.value.answers.some((x) => x.check_id === a.check_id && !x.block_id)
    return check && check.view !== 'belief' && !answered ? [{ ...check }] : []
  }),
)
const isTakenUp = computed(() => lesson.value.decisions.some((d) => d.cause === cause.value?.id))

/** The old cause, and the drill that went with it. */
function takeUp(): void {
  const earlier = last.value
  if (!earlier?.cause) return
  open.decide(earlier.cause, `Taken up again from the lesson of ${dayWord(earlier.started_at)}.`)
  if (earlier.drill) open.changeLesson({ drill: earlier.drill })
}
</script>

<template>
  <aside v-if="last" class="back" aria-label="From the last lesson" data-testid="came-back">
    <p class="title">
      <strong>Lesson of {{ dayWord(last.started_at) }}</strong>
      <template v-if="cause">: {{ cause.name }}</template>
      <template v-else>: nothing was decided</template>
    </p>
    <dl>
      <template v-for="row in rows" :key="row.what">
        <dt>{{ row.what }}</dt>
        <dd>{{ row.said }}</dd>
      </template>
    </dl>
    <div v-if="cause" class="home">
      <label
        >Practised, times
        <input
          v-typed="text(back?.practised)"
          class="native short"
          inputmode="numeric"
          @change="(e) => typedCount('practised', e)"
        />
      </label>
      <label
        >Right in all
        <input
          v-typed="text(back?.passes)"
          class="native short"
          inputmode="numeric"
          @change="(e) => typedCount('passes', e)"
        />
      </label>
      <label class="course"
        >On the course
        <input
          v-typed="back?.course ?? ''"
          class="native"
          maxlength="2000"
          @change="(e) => cameBack({ course: (e.target as HTMLInputElement).value })"
        />
      </label>
      <OneOf
        name="What came of it"
        :words="FATES"
        :on="back?.verdict ?? null"
        @chosen="(verdict) => cameBack({ verdict })"
      />
      <p v-if="problem" role="alert">{{ problem.message }} {{ problem.hint }}</p>
    </div>
    <details v-if="looked.length" class="looked">
      <summary>{{ count(looked.length, 'look') }} of last time, still so?</summary>
      <ul>
        <li v-for="c in looked" :key="c.id">
          <span>{{ words(c.label) }}</span> <LastTime :check="c.id" :question="c.question" />
        </li>
      </ul>
    </details>
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
.home {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px 14px;
}
.home label {
  display: grid;
  font-size: var(--text-small);
}
.home .short {
  width: 86px;
}
.home .course {
  flex: 1 1 200px;
}
.looked summary {
  min-height: 44px;
  line-height: 44px;
}
.looked ul {
  list-style: none;
  padding: 0;
}
.looked li {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: center;
  min-height: 44px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
</style>
