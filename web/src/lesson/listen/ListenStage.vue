<script setup lang="ts">
// What the student says before the first ball: it orders the looks, and some of it is kept private.
import { computed } from 'vue'
import type { AnswerWord, Lesson, Shape } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import LimitDetails from '@/day/LimitDetails.vue'
import WhatCameBack from '@/lesson/listen/WhatCameBack.vue'
import { useLessonContext } from '@/lesson/lessonContext'
import FeelRow from '@/lesson/pressure/FeelRow.vue'
import SomeOf from '@/ui/SomeOf.vue'
import OneOf from '@/ui/OneOf.vue'
import { AGES, capital, say } from '@/ui/words'
const known = useKnowledge()
const { open, lesson, speaker, words } = useLessonContext()

type Listen = Shape['Listen']
const listen = computed(() => lesson.value.listen)
const student = computed(() => lesson.value.student)
const LEGS = [
  { id: 'lead', word: 'Lead' },
  { id: 'trail', word: 'Trail' },
] as const
const legWords = computed(() => LEGS.map((l) => ({ ...l, word: say(l.word, speaker.value) })))
const feels = computed(() => known.all.checks.filter((c) => c.view === 'feel'))
const asked = computed(() => known.all.checks.filter((c) => c.view === 'belief'))
const beliefs = computed(() =>
  asked.value.map((c) => ({ id: c.id, name: capital(words(c.label)) })),
)
const answerTo = (check: string) =>
  lesson.value.answers.find((a) => a.check_id === check && a.source === 'feel' && !a.block_id)
const held = computed(() => asked.value.filter((c) => answerTo(c.id)?.answer === 'yes'))
function toggleBelief(id: string): void {
  const said = answerTo(id)
  if (said?.answer === 'yes') open.deleteAnswer(said.id)
  else open.putAnswer(id, 'yes', 'feel')
}
function toggleCorrected(id: string): void {
  const on = listen.value.corrected ?? []
  change({ corrected: on.includes(id) ? on.filter((c) => c !== id) : [...on, id] })
}
const word = (check: string): AnswerWord | null => answerTo(check)?.answer ?? null

function change(part: Partial<Listen>): void {
  open.changeLesson({ listen: { ...listen.value, ...part } })
}
function toggleMiss(id: string): void {
  const on = listen.value.misses
  change({ misses: on.includes(id) ? on.filter((m) => m !== id) : [...on, id] })
}
const { changeStudent } = open
function toggleLimit(id: Lesson['student']['limits'][number]): void {
  const on = student.value.limits
  changeStudent({ limits: on.includes(id) ? on.filter((l) => l !== id) : [...on, id] })
}
/** Of these it matters on which side they are: no cue or drill loads that leg first. */
const SIDED = ['knee', 'hip', 'ankle', 'shoulder', 'wrist']
const sided = computed(() => student.value.limits.filter((l) => SIDED.includes(l)))
const typed = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <section class="listen" aria-label="Listen">
    <WhatCameBack />
    <div class="two">
      <v-textarea
        label="In the student's words"
        rows="2"
        auto-grow
        maxlength="2000"
        :model-value="lesson.complaint"
        @change="(e: Event) => open.changeLesson({ complaint: typed(e) })"
      />
      <v-textarea
        label="What they feel"
        rows="2"
        auto-grow
        maxlength="2000"
        :model-value="listen.feels"
        @change="(e: Event) => change({ feels: typed(e) })"
      />
    </div>
    <div>
      <h2>The usual miss <span class="quiet small">orders the looks until balls are hit</span></h2>
      <SomeOf
        name="The usual miss"
        :words="known.all.misses"
        :on="listen.misses"
        @toggled="toggleMiss"
      />
    </div>
    <div class="three">
      <v-text-field
        label="Goal"
        maxlength="2000"
        :model-value="listen.goal"
        @change="(e: Event) => change({ goal: typed(e) })"
      />
      <v-text-field
        label="Next round or event"
        maxlength="2000"
        :model-value="listen.event"
        @change="(e: Event) => change({ event: typed(e) })"
      />
      <v-text-field
        label="On"
        type="date"
        :model-value="listen.event_on ?? ''"
        @change="(e: Event) => change({ event_on: typed(e) || null })"
      />
    </div>
    <div class="line">
      <div class="pair">
        <span>Steadier leg</span>
        <OneOf
          name="Steadier leg"
          :words="legWords"
          :on="student.dominant_leg"
          @chosen="(leg) => changeStudent({ dominant_leg: leg })"
        />
      </div>
      <div class="pair">
        <span>Age</span>
        <OneOf
          name="Age"
          :words="AGES"
          :on="student.age_group"
          @chosen="(age) => changeStudent({ age_group: age })"
        />
      </div>
      <label v-if="student.age_group === 'junior'" class="tick">
        <input
          type="checkbox"
          :checked="student.guardian_agreed"
          @change="
            (e) => changeStudent({ guardian_agreed: (e.target as HTMLInputElement).checked })
          "
        />
        a guardian agrees to film and data
      </label>
    </div>
    <v-text-field
      label="Other sports, and what they leave behind"
      maxlength="2000"
      :model-value="listen.background"
      @change="(e: Event) => change({ background: typed(e) })"
    />
    <div class="health">
      <h2>
        Pain, injury, balance, pregnancy
        <span class="quiet small"
          >private: never on the sheet, nor in a case file unless asked</span
        >
      </h2>
      <SomeOf
        name="Limits"
        :words="known.all.cautions.limits"
        :on="student.limits"
        @toggled="toggleLimit"
      />
      <LimitDetails
        v-if="sided.length"
        :limits="sided"
        :model-value="student.limit_details"
        @update:model-value="(details) => changeStudent({ limit_details: details })"
      />
      <v-textarea
        label="Health notes, stiffness"
        rows="1"
        auto-grow
        maxlength="2000"
        :model-value="listen.health"
        @change="(e: Event) => change({ health: typed(e) })"
      />
      <label class="tick">
        <input
          type="checkbox"
          :checked="listen.health_asked"
          @change="(e) => change({ health_asked: (e.target as HTMLInputElement).checked })"
        />
        asked; a doctor or physiotherapist judges bodies, this program does not
      </label>
    </div>
    <div>
      <h2>
        What are they trying to do?
        <span class="quiet small">weak evidence, and often the way in</span>
      </h2>
      <SomeOf
        name="What are they trying to do?"
        :words="beliefs"
        :on="held.map((b) => b.id)"
        @toggled="toggleBelief"
      />
      <ul class="held">
        <li v-for="b in held" :key="b.id">
          <span>{{ words(b.correction ?? '') }}</span>
          <v-btn
            size="small"
            :aria-pressed="listen.corrected?.includes(b.id)"
            :variant="listen.corrected?.includes(b.id) ? 'flat' : 'outlined'"
            color="primary"
            @click="toggleCorrected(b.id)"
          >
            {{ listen.corrected?.includes(b.id) ? 'Put right: on the sheet' : 'I put that right' }}
          </v-btn>
        </li>
      </ul>
    </div>
    <div>
      <h2>What do they feel in the swing? <span class="quiet small">weak evidence</span></h2>
      <FeelRow
        v-for="c in feels"
        :key="c.id"
        :question="say(c.question, speaker)"
        :on="word(c.id)"
        @answer="(w) => open.putAnswer(c.id, w, 'feel')"
      />
    </div>
  </section>
</template>

<style scoped>
.listen {
  display: grid;
  align-content: start;
  gap: 14px;
  padding: 16px 20px 24px;
  overflow-y: auto;
}
h2 {
  font-size: var(--text-lead);
  margin-bottom: 6px;
}
.small {
  font-size: var(--text-small);
  font-weight: 400;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px;
}
.three {
  display: grid;
  grid-template-columns: 2fr 2fr 1.2fr;
  gap: 14px;
}
.pair {
  display: flex;
  align-items: center;
  gap: 12px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 14px;
}
.health {
  display: grid;
  gap: 8px;
}
.tick {
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: 48px;
}
.tick input {
  width: 22px;
  height: 22px;
}
@media (max-width: 700px) {
  .two,
  .three {
    grid-template-columns: 1fr;
  }
}
.held {
  display: grid;
  gap: 6px;
  margin-top: 8px;
  padding: 0;
  list-style: none;
}
.held li {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 12px;
}
</style>
