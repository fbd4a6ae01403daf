<script setup lang="ts">
// Causes that are commoner or rarer here than shipped, looks at which this eye is wrong more often.
import { computed } from 'vue'
import type { Shape } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import ColleaguesPart from '@/casebook/ColleaguesPart.vue'
import LearnedChoices from '@/casebook/LearnedChoices.vue'
import LearnedRow from '@/casebook/LearnedRow.vue'
import { useLearned } from '@/casebook/useLearned'
import { dayWord } from '@/ui/dates'
import StateMessage from '@/ui/StateMessage.vue'
import WhenLoaded from '@/ui/WhenLoaded.vue'
import { capital, count } from '@/ui/words'

const known = useKnowledge()
const { learned, error, refetch, hold } = useLearned()
const most = computed(() =>
  Math.max(...(learned.value?.moved ?? []).flatMap((m) => [m.shipped, m.here]), 0.01),
)
/** What was said beside the numbers that stand in the tables. */
const favourite = computed(() => {
  const { moved = [], looks = [], said = [] } = learned.value ?? {}
  const numbers = moved.length + looks.length
  return said.slice(numbers ? 1 + numbers : 2)
})
const missing = computed(() =>
  learned.value ? Math.max(0, learned.value.least - learned.value.outcomes) : 0,
)

type Look = Shape['MovedLook']
/** Of yes and no, what is another here. */
const kinds = ({ false_yes, false_no }: Look) => [
  ...(false_yes ? [{ word: 'yes where it is not', rate: false_yes }] : []),
  ...(false_no ? [{ word: 'no where it is', rate: false_no }] : []),
]
const rates = (look: Look) =>
  kinds(look).map(({ rate }) => [rate.files, rate.here] as [number, number])
const words = (look: Look) => kinds(look).map(({ word }) => word)
const lookName = (id: string) =>
  id === 'every_look' ? 'At every look' : capital(known.check(id)?.label ?? id)
</script>

<template>
  <WhenLoaded v-slot="{ data }" :data="learned" :error="error" @retry="refetch">
    <section aria-label="What was learned" data-testid="learned">
      <p v-if="data.waiting" role="status">
        {{ capital(count(data.waiting, 'lesson')) }} still to be studied; this goes on by itself.
      </p>
      <StateMessage
        v-if="data.outcomes === 0 && !data.moved.length"
        inside
        kind="empty"
        :title="`No outcome ${data.since ? `since ${dayWord(data.since)} ` : ''}is known yet.`"
        hint="Fix a measure and hit a retest, or enter at the next lesson what came back: each is an outcome."
      />
      <template v-else>
        <p class="lead">
          {{ data.said[0] }}
          <template v-if="missing && !data.moved.length">
            Nothing moves before {{ data.least }} are known: {{ missing }} more.
          </template>
          <template v-else-if="!data.moved.length && !data.looks.length">{{
            data.said[1]
          }}</template>
        </p>
        <p v-for="s in favourite" :key="s">
          {{ s }}
        </p>
        <table v-if="data.moved.length">
          <caption>
            How common causes are, as shipped and here
          </caption>
          <tbody>
            <LearnedRow
              v-for="m in data.moved"
              :id="m.cause"
              :key="m.cause"
              :name="known.cause(m.cause)?.name ?? m.cause"
              :bars="[[m.shipped, m.here]]"
              :most="most"
              :on="
                data.students
                  ? `expected in ${m.expected.toFixed(1)} of ${String(data.students)}`
                  : 'by colleagues’ casebooks'
              "
              :held="m.held"
              @hold="(yes) => hold(m.cause, yes)"
            />
          </tbody>
        </table>
        <table v-if="data.looks.length">
          <caption>
            How often your eye is wrong, as shipped and here
          </caption>
          <tbody>
            <LearnedRow
              v-for="l in data.looks"
              :id="l.look"
              :key="l.look"
              :name="lookName(l.look)"
              :bars="rates(l)"
              :most="0.45"
              :words="words(l)"
              :on="`by ${count(l.answers, 'answer')}`"
              :held="l.held"
              @hold="(yes) => hold(l.look, yes)"
            />
          </tbody>
        </table>
        <p class="quiet">
          A lesson teaches with all that was seen in it and with what became of its decision, never
          by the decision alone. What chance would do moves nothing, and nothing moves by more than
          a factor of four.
        </p>
      </template>
      <LearnedChoices />
      <ColleaguesPart />
      <p v-if="data.outcomes" class="files">
        <v-btn href="/api/casebook/cases.zip" download>Save the cases</v-btn>
        <v-btn href="/api/casebook/learned.json" download>Save what was learned</v-btn>
        <span class="quiet">Both without names and notes.</span>
      </p>
    </section>
  </WhenLoaded>
</template>

<style scoped>
.lead {
  font-size: var(--text-lead);
  margin-bottom: 10px;
}
table {
  width: 100%;
  border-collapse: collapse;
  margin-bottom: 16px;
}
caption {
  text-align: left;
  font-weight: 700;
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
}
.files {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
  margin-top: 14px;
}
</style>
