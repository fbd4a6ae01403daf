<script setup lang="ts">
// One page to take home: as it will be printed, beside the words that may be changed.
import { computed, ref, useTemplateRef, watch } from 'vue'
import type { Shape } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import { useLessonContext } from '@/lesson/lessonContext'
import FollowUpForm from '@/lesson/send/FollowUpForm.vue'
import NextLesson from '@/lesson/send/NextLesson.vue'
import HandOver from '@/lesson/send/HandOver.vue'
import { isDecided, useCoaching, useSheet } from '@/lesson/useCoaching'
import ChooseOne from '@/ui/ChooseOne.vue'
import { useSettings } from '@/ui/settings'
import StateMessage from '@/ui/StateMessage.vue'
import { vTyped } from '@/ui/typed'
import { keepOld, typedNumber } from '@/ui/units'
const known = useKnowledge()
const { open, lesson } = useLessonContext()

const settings = useSettings()
const sheet = useSheet(open)
const coaching = useCoaching(open)
const found = computed(() => sheet.found.value)
const base = computed(() => `/api/lessons/${lesson.value.id}`)
const query = computed(() => {
  const { sides, place } = settings
  const by = lesson.value.given_by || settings.by
  return new URLSearchParams({ sides, by, place }).toString()
})
/** Another address after every change, so that the page is drawn anew. */
const shown = ref('')
watch(
  [found, query],
  () => {
    shown.value = `${base.value}/sheet.html?${query.value}&v=${lesson.value.revision}`
  },
  { immediate: true },
)
const unagreed = computed(
  () => lesson.value.student.age_group === 'junior' && !lesson.value.student.guardian_agreed,
)
const WORDS = [
  { id: 'miss', label: 'The miss' },
  { id: 'cause', label: 'The one cause' },
  { id: 'cue', label: 'Cue' },
  { id: 'thought', label: 'One thought on the course' },
  { id: 'rescue', label: 'For one ball, when the miss comes back' },
] as const
const drills = computed(() =>
  (coaching.found.value?.cards ?? [])
    .filter((c) => !c.withheld)
    .flatMap((c) => known.drill(c.drill) ?? []),
)
const DRILLS = [
  { id: 'rehearsal', label: 'Rehearsal' },
  { id: 'ball_drill', label: 'With a ball' },
] as const

function change(part: Partial<Shape['SheetWords']>): void {
  open.changeLesson({ sheet: { ...lesson.value.sheet, ...part } })
}
function minutes(event: Event): void {
  const input = event.target as HTMLInputElement
  const number = typedNumber(input.value)
  if (number != null && Number.isInteger(number) && number >= 1 && number <= 120)
    change({ minutes: number })
  else keepOld(input, String(found.value?.minutes ?? ''))
}
const drillWords = computed(() => [
  { id: '', word: 'none' },
  ...drills.value.map((d) => ({ id: d.id, word: d.name })),
])
const value = (event: Event) => (event.target as HTMLTextAreaElement).value
/** The day to ask: the check-in of the plan, unless another one is chosen. */
const chosenDay = ref<string | null>(null)
const askOn = computed({
  get: () => chosenDay.value ?? found.value?.check_in ?? '',
  set: (day) => {
    chosenDay.value = day
  },
})
const drillName = (id: string | null) => known.drill(id)?.name ?? null
const page = useTemplateRef<HTMLIFrameElement>('page')
function print(): void {
  page.value?.contentWindow?.print()
}
function send(): void {
  if (!found.value) return
  open.followUp({ due_on: askOn.value })
  open.changeLesson({ finished: true })
}
</script>

<template>
  <section v-if="!lesson.decisions.length" aria-label="Send">
    <StateMessage
      inside
      kind="empty"
      title="Nothing is decided yet."
      hint="The sheet is about one cause: decide on it first, with or against the ranking."
    >
      <v-btn class="mt-4" :to="{ name: 'lesson', params: { id: lesson.id, stage: 'decide' } }"
        >Decide</v-btn
      >
    </StateMessage>
  </section>
  <StateMessage
    v-else-if="!isDecided(lesson)"
    inside
    kind="loading"
    title="The sheet is drawn as soon as the decision is saved."
  />
  <section v-else class="send" aria-label="Send">
    <iframe
      v-if="found"
      ref="page"
      class="printed"
      title="The sheet as it is printed"
      :src="shown"
    />
    <div class="words">
      <h2>What goes home</h2>
      <template v-if="found">
        <label v-for="w in WORDS" :key="w.id">
          <span class="quiet">{{ w.label }}</span>
          <textarea
            v-typed="found[w.id]"
            class="native"
            rows="2"
            maxlength="2000"
            @change="(e) => change({ [w.id]: value(e) })"
          />
        </label>
        <template v-if="drills.length > 0">
          <ChooseOne
            v-for="d in DRILLS"
            :key="d.id"
            :name="d.label"
            :options="drillWords"
            :on="found[d.id] ?? ''"
            @chosen="(id) => change({ [d.id]: id || null })"
          />
        </template>
        <p v-if="drills.length && !found.rehearsal && !found.ball_drill" class="quiet" role="note">
          No drill was tried in this lesson: choose one above if one is to go home.
        </p>
        <label>
          <span class="quiet">Practice, minutes a day</span>
          <input
            v-typed="String(found.minutes)"
            class="native short"
            inputmode="numeric"
            aria-label="Practice, minutes a day"
            @change="minutes"
          />
        </label>
        <HandOver :sheet="found" :query="query" :drill-name="drillName" @print="print" />
        <NextLesson />
        <form v-if="!lesson.follow_up" class="then" @submit.prevent="send">
          <label>
            Ask how it went on
            <input v-model="askOn" class="native" type="date" required aria-label="Ask on" />
          </label>
          <v-btn type="submit" color="primary" variant="flat" data-testid="send-home">
            Close the lesson
          </v-btn>
          <span class="quiet small"
            >{{ lesson.student.name }} is then on the list to follow up.</span
          >
        </form>
        <FollowUpForm v-else @change="open.followUp" />
        <p v-if="unagreed" class="strong" role="note">
          A guardian has not agreed yet to film and data: ask before anything goes out.
        </p>
        <p class="quiet small">
          Health notes are never on the sheet. Film is not stored by this program.
        </p>
      </template>
    </div>
  </section>
</template>

<style scoped>
.send {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  grid-template-rows: minmax(0, 1fr);
  min-height: 0;
}
.printed {
  width: 100%;
  height: 100%;
  min-height: 640px;
  border: 0;
  background: #fff;
}
.words {
  display: grid;
  align-content: start;
  gap: 10px;
  padding: 16px 20px;
  overflow-y: auto;
  border-left: 2px solid var(--ink);
}
h2 {
  font-size: var(--text-title);
}
label {
  display: grid;
  gap: 2px;
}
.short {
  width: 86px;
}
textarea.native {
  padding: 8px;
  resize: vertical;
}
.then {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px 14px;
  padding-top: 10px;
  border-top: 1px solid var(--line);
}
.small {
  font-size: var(--text-small);
}
@media (max-width: 900px) {
  .send {
    grid-template-columns: 1fr;
    grid-template-rows: auto;
  }
  .words {
    border-left: 0;
    border-top: 2px solid var(--ink);
  }
}
</style>
