<script setup lang="ts">
// One cause: how sure, in a word, a number and a length; opened, what spoke for and against it.
import { computed } from 'vue'
import type { CauseRank, Diagnosis, Knowledge, Lesson } from '@/api/client'
import WhyNot from '@/lesson/decide/WhyNot.vue'
import { useSettings } from '@/ui/settings'
import type { WhatIf } from '@/lesson/decide/useWhatIf'
import { ANSWER_WORDS, evidenceWord, patternWords, say, sureWord, timesWord } from '@/ui/words'

const props = defineProps<{
  cause: CauseRank
  openUp: boolean
  start: boolean
  decided: boolean
  diagnosis: Diagnosis
  knowledge: Knowledge
  lesson: Lesson
  whatIf: WhatIf | null
}>()
defineEmits<{ choose: []; decide: [] }>()

const SHOWN = 4
const LEAST_BITS = 0.2
const BROUGHT_ABOUT = 0.25
const settings = useSettings()
const known = computed(() => props.knowledge.causes.find((c) => c.id === props.cause.id))
const hand = computed(() => props.lesson.student.handedness)
const speaker = computed(() => ({ hand: hand.value, sides: settings.sides }))
const percent = computed(() => Math.round(100 * props.cause.probability))
const answers = computed(
  () =>
    new Map(props.lesson.answers.map((a) => [a.check_id, ANSWER_WORDS[a.answer].toLowerCase()])),
)
/** Much likelier to be there than to be where it starts: something upstream may bring it about. */
const follows = computed(() => props.cause.probability - props.cause.root > BROUGHT_ABOUT)
const without = computed(() =>
  props.whatIf?.cause === props.cause.id ? patternWords(props.whatIf.without, hand.value) : '',
)
type Bits = CauseRank['for']
const worth = (list: Bits) => list.filter((e) => Math.abs(e.bits) >= LEAST_BITS).slice(0, SHOWN)
const sides = computed(() => [
  { title: 'Likelier with this cause', list: worth(props.cause.for) },
  { title: 'Likelier without it', list: worth(props.cause.against) },
])
const drills = computed(() =>
  props.start
    ? props.diagnosis.ranking.drills.flatMap(
        (id) => props.knowledge.drills.find((d) => d.id === id)?.name ?? [],
      )
    : [],
)
function inWords(id: string): string {
  return say(
    evidenceWord(id, props.diagnosis, props.knowledge, answers.value, hand.value),
    speaker.value,
  )
}
</script>

<template>
  <li :class="['cause', { open: openUp }]" :data-testid="`cause-${cause.id}`">
    <button type="button" class="head" :aria-expanded="openUp" @click="$emit('choose')">
      <span class="name">{{ say(known?.name ?? cause.id, speaker) }}</span>
      <span class="quiet word">{{ sureWord(diagnosis.words[cause.id] ?? '') }}</span>
      <span class="number">{{ percent }}</span>
      <span class="bar" aria-hidden="true"><span :style="{ width: `${percent}%` }" /></span>
    </button>
    <p v-if="decided || start || follows" class="tags">
      <span v-if="decided" class="tag decided">Decided</span>
      <span v-if="start" class="tag">Start here</span>
      <span v-if="follows" class="quiet">may follow from something before it</span>
    </p>
    <div v-if="openUp" class="why">
      <p class="quiet">{{ say(known?.sentence ?? '', speaker) }}</p>
      <template v-for="side in sides" :key="side.title">
        <p v-if="side.list.length" class="strong">{{ side.title }}</p>
        <ul>
          <li v-for="e in side.list" :key="e.evidence">
            <span class="bits" aria-hidden="true"
              ><span :style="{ width: `${Math.min(100, Math.abs(e.bits) * 25)}%` }"
            /></span>
            {{ inWords(e.evidence) }}
            <span class="quiet" :title="`${Math.abs(e.bits).toFixed(1)} bits`">{{
              timesWord(e.bits, '', '')
            }}</span>
          </li>
        </ul>
      </template>
      <p v-if="without" data-testid="without">
        <span class="strong">Without it</span> {{ without }}
        <span class="quiet">(dashed on the plan)</span>
      </p>
      <p v-if="drills.length">
        <span class="strong">Drills</span> {{ say(drills.slice(0, 3).join(' · '), speaker) }}
      </p>
      <p v-if="start && diagnosis.withheld.length" class="quiet">
        Kept back:
        {{
          diagnosis.withheld
            .map(
              (w) => `${knowledge.drills.find((d) => d.id === w.id)?.name ?? w.id} (${w.reason})`,
            )
            .join(', ')
        }}
      </p>
      <WhyNot
        :lesson="lesson.id"
        :cause="cause.id"
        :diagnosis="diagnosis"
        :knowledge="knowledge"
        :in-words="inWords"
        :say="(text) => say(text, speaker)"
      />
      <button v-if="!decided" type="button" class="decide" @click="$emit('decide')">
        Decide on this cause
      </button>
    </div>
  </li>
</template>

<style scoped>
.cause {
  position: relative;
  padding: 2px 10px 4px;
  border-radius: 10px;
}
.cause.open {
  background: rgb(var(--v-theme-panel));
}
.head {
  display: grid;
  grid-template-columns: 1fr auto 34px;
  align-items: baseline;
  gap: 2px 10px;
  width: 100%;
  min-height: 48px;
  padding: 4px 0 0;
  text-align: left;
}
.name {
  font-size: 17px;
}
.open .name {
  font-weight: 700;
}
.word {
  font-size: 15px;
}
.head .number {
  font-size: 20px;
  text-align: right;
}
.bar {
  grid-column: 1 / -1;
  height: 8px;
  border-radius: 4px;
  background: rgb(var(--v-theme-surface-variant));
}
.bar span {
  display: block;
  height: 100%;
  min-width: 3px;
  border-radius: 4px;
  background: rgb(var(--v-theme-slate));
}
.open .bar {
  background: rgb(var(--v-theme-surface));
}
.open .bar span {
  background: rgb(var(--v-theme-clay));
}
.tags {
  display: flex;
  gap: 8px;
  margin-top: 4px;
}
.tag {
  flex: none;
  padding: 0 8px;
  border: 1.5px solid rgb(var(--v-theme-ink));
  border-radius: 6px;
  font-size: 14px;
  font-weight: 700;
}
.tag.decided {
  background: rgb(var(--v-theme-ink));
  color: rgb(var(--v-theme-surface));
}
.why {
  display: grid;
  gap: 3px;
  padding: 4px 0 8px;
  font-size: 15px;
}
.why ul {
  list-style: none;
  padding: 0;
}
.why li {
  display: grid;
  grid-template-columns: 40px 1fr auto;
  align-items: baseline;
  gap: 8px;
}
.bits {
  height: 8px;
}
.bits span {
  display: block;
  height: 100%;
  min-width: 3px;
  border-radius: 2px;
  background: rgb(var(--v-theme-ink));
}
.decide {
  justify-self: start;
  min-height: 48px;
  padding: 0 16px;
  margin-top: 4px;
  border: 2px solid rgb(var(--v-theme-ink));
  border-radius: 10px;
  background: rgb(var(--v-theme-surface));
  font-weight: 700;
}
</style>
