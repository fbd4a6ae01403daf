<script setup lang="ts">
// What came back after the lesson: practice, the course, and whether the cause was right.
import { newId } from '@/sync/page'
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import { ask, client, type Shape } from '@/api/client'
import { useAttempt } from '@/api/useAttempt'
import { useKnowledge } from '@/api/knowledge'
import { useCoaching } from '@/lesson/useCoaching'
import { useLessonContext } from '@/lesson/lessonContext'
import { dayWord } from '@/ui/dates'
import OneOf from '@/ui/OneOf.vue'
import { vTyped } from '@/ui/typed'
import { keepOld, typedNumber } from '@/ui/units'
const known = useKnowledge()
const { open, lesson, words } = useLessonContext()

const emit = defineEmits<{ change: [body: Shape['FollowUpIn']] }>()

type Outcome = NonNullable<Shape['FollowUpOut']['verdict']>
const VERDICTS: readonly { id: Outcome; word: string }[] = [
  { id: 'confirmed', word: 'Confirmed' },
  { id: 'partly', word: 'Partly' },
  { id: 'rejected', word: 'Rejected' },
]
const kept = computed(() => lesson.value.follow_up)
const coaching = useCoaching(open)
const next = computed(() => {
  const id = coaching.found.value?.next_in_line
  return id ? words(known.cause(id)?.name ?? id) : null
})
const router = useRouter()
const { busy, problem, attempt } = useAttempt()
/** The same however often it is asked for: one lesson takes it up. */
const takenUpAs = newId()
async function reopen(): Promise<void> {
  const params = { path: { lesson_id: lesson.value.id } }
  const body = { id: takenUpAs, zone: Intl.DateTimeFormat().resolvedOptions().timeZone }
  const begun = await attempt(() =>
    ask(client.POST('/api/lessons/{lesson_id}/reopen', { params, body })),
  )
  if (begun) void router.push({ name: 'lesson', params: { id: begun.id, stage: 'listen' } })
}
function move(input: HTMLInputElement): void {
  if (input.value) emit('change', { due_on: input.value })
  else input.value = kept.value?.due_on ?? ''
}
const text = (value: number | null | undefined) => (value == null ? '' : String(value))
const MOST = { practised: 100, passes: 10_000 } as const
function count(name: keyof typeof MOST, event: Event): void {
  const input = event.target as HTMLInputElement
  const number = typedNumber(input.value)
  if (number != null && Number.isInteger(number) && number >= 0 && number <= MOST[name])
    emit('change', { [name]: number })
  else keepOld(input, text(kept.value?.[name]))
}
</script>

<template>
  <div v-if="kept" class="follow" data-testid="follow-up">
    <h3>
      What came back
      <span v-if="kept.answered_at" class="quiet">asked on {{ dayWord(kept.answered_at) }}</span>
    </h3>
    <label v-if="!kept.answered_at" class="day">
      Ask on
      <input
        class="native"
        type="date"
        required
        :value="kept.due_on"
        @change="(e) => move(e.target as HTMLInputElement)"
      />
    </label>
    <div class="row">
      <label
        >Times practised
        <input
          v-typed="text(kept.practised)"
          class="native short"
          inputmode="numeric"
          @change="(e) => count('practised', e)"
        />
      </label>
      <label
        >Right in all
        <input
          v-typed="text(kept.passes)"
          class="native short"
          inputmode="numeric"
          @change="(e) => count('passes', e)"
        />
      </label>
    </div>
    <label class="wide"
      >On the course
      <textarea
        v-typed="kept.course"
        class="native"
        rows="2"
        maxlength="2000"
        @change="(e) => emit('change', { course: (e.target as HTMLTextAreaElement).value })"
      />
    </label>
    <p v-if="next" class="quiet">When that holds, next in line is “{{ next }}”.</p>
    <p class="quiet">Was it the cause?</p>
    <OneOf
      name="Was it the cause?"
      :words="VERDICTS"
      :on="kept.verdict"
      @chosen="(verdict) => emit('change', { verdict })"
    />
    <div v-if="kept.verdict" class="again">
      <span class="quiet">
        {{ kept.verdict === 'confirmed' ? 'The next lesson' : 'Reopen it' }}: the same club, a short
        new baseline beside this one.
      </span>
      <v-btn
        :color="kept.verdict === 'confirmed' ? undefined : 'primary'"
        :variant="kept.verdict === 'confirmed' ? 'outlined' : 'flat'"
        :loading="busy"
        data-testid="reopen"
        @click="reopen"
      >
        {{ kept.verdict === 'confirmed' ? 'Start it' : 'Reopen in a new lesson' }}
      </v-btn>
      <p v-if="problem" role="alert">{{ problem.message }} {{ problem.hint }}</p>
    </div>
  </div>
</template>

<style scoped>
.follow {
  display: grid;
  gap: 8px;
  padding-top: 8px;
  border-top: 1px solid var(--line);
}
h3 {
  font-size: var(--text-body);
}
.row {
  display: flex;
  gap: 16px;
}
.day {
  display: flex;
  align-items: center;
  gap: 10px;
}
.wide {
  display: grid;
}
.again {
  display: grid;
  gap: 6px;
  justify-items: start;
}
.short {
  width: 72px;
}
.follow :deep(button) {
  padding: 0 12px;
}
textarea.native {
  padding: 8px;
}
</style>
