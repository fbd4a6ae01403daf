<script setup lang="ts">
// The plan of the ground: range above; below it what is touched to log a ball (shoes, turf, face), or
// what the balls show. A ball is up to three touches.
import { useKnowledge } from '@/api/knowledge'
import { computed, ref, watch } from 'vue'
import type { Shot } from '@/api/client'
import type { Touch } from '@/drawing/marks'
import RangeFan from '@/drawing/RangeFan.vue'
import type { WhatIf } from '@/lesson/decide/useWhatIf'
import { useLessonContext } from '@/lesson/lessonContext'
import { useLast } from '@/lesson/useLast'
import { dayWord } from '@/ui/dates'
import BallDetails from '@/lesson/shots/BallDetails.vue'
import BallTape from '@/lesson/shots/BallTape.vue'
import BlockBar from '@/lesson/shots/BlockBar.vue'
import ChainLine from '@/lesson/shots/ChainLine.vue'
import DrillDone from '@/lesson/shots/DrillDone.vue'
import LogView from '@/lesson/shots/LogView.vue'
import PatternLine from '@/lesson/shots/PatternLine.vue'
import PatternNotes from '@/lesson/shots/PatternNotes.vue'
import TargetLine from '@/lesson/shots/TargetLine.vue'
import ShapeStrip from '@/lesson/shots/ShapeStrip.vue'
import ReadView from '@/lesson/shots/ReadView.vue'
import { expectedCarryM } from '@/lesson/shots/expectedCarry'
import type { BallEntry } from '@/lesson/shots/useBallEntry'
import { useReadings } from '@/lesson/shots/useReadings'
import OneOf from '@/ui/OneOf.vue'
import { useSettings } from '@/ui/settings'
import { fromMetres } from '@/ui/units'
import { usePhone } from '@/ui/usePhone'
import { capital } from '@/ui/words'

const block = defineModel<string | null>('block', { required: true })
const props = defineProps<{
  entry: BallEntry
  cause: string | null
  whatIf: WhatIf | null
}>()
const known = useKnowledge()
const { open, lesson, diagnosis, hand, words } = useLessonContext()

const settings = useSettings()
const shown = computed(() => lesson.value.blocks.find((b) => b.id === block.value))
const { shots, newest, currentId, chosenId } = props.entry
const expectedM = computed(() =>
  expectedCarryM(
    shown.value?.club ?? '',
    lesson.value.blocks,
    known.all,
    diagnosis.value?.usual_carry_m,
  ),
)
const last = useLast(open)
/** The balls of the lesson before with this club, under a baseline or a retest. */
const under = computed(() => {
  if (shown.value === undefined || shown.value.kind === 'trial') return []
  return last.value?.baselines.find((b) => b.club === shown.value?.club)?.shots ?? []
})
const current = computed(() => shots.value.find((s) => s.id === currentId.value) ?? null)
/** The chosen ball's values stand open beside the drawings. */
const byNumber = ref(false)
watch(chosenId, (now) => {
  if (now === null) byNumber.value = false
})
const kind = computed(() => known.club(shown.value?.club)?.kind ?? 'iron')
const isTeed = computed(
  () => shown.value?.teed ?? known.club(shown.value?.club)?.head.teed ?? false,
)
const view = ref<'log' | 'read'>('log')
const { block: readings, since } = useReadings(open, block, () => view.value === 'read')
const reading = computed(() => view.value === 'read' && readings.value !== null)
const tracks = computed(
  () =>
    new Map(
      readings.value?.balls.map((b) => [
        b.shot_id,
        { places: b.track, startDeg: b.start_deg, curveDeg: b.curve_deg },
      ]) ?? [],
    ),
)
const wild = computed(
  () => new Set(readings.value?.balls.filter((b) => b.wild).map((b) => b.shot_id) ?? []),
)
const chain = computed(
  () => diagnosis.value?.ranking.causes.find((c) => c.id === props.cause)?.chain ?? [],
)
const way = computed(() => {
  const found = props.cause === null ? undefined : diagnosis.value?.ball_ways[props.cause]
  return found && (found.start_deg !== 0 || found.curve_deg !== 0) ? found : null
})
/** Laid over a retest: what was predicted when it was decided; else what the open cause predicts. */
const prediction = computed(() => {
  const decided = lesson.value.decisions.at(-1)?.prediction
  if (shown.value?.kind === 'retest' && decided) return decided.without
  return props.cause && props.whatIf?.cause === props.cause ? props.whatIf.without : null
})
const predictedFlight = computed(() => {
  const seen = prediction.value
  if (!seen?.start_deg) return null
  const share = (seen.carry_pct?.value ?? 100) / 100
  return {
    startDeg: seen.start_deg.value,
    curveDeg: seen.curve_deg?.value ?? null,
    carryM: share * expectedM.value,
  }
})
/** The ball that is being noted: the chosen one, else the newest while it is open, else the next. */
const targetBall = computed(() => {
  const at = shots.value.findIndex((s) => s.id === currentId.value)
  return at === -1 ? shots.value.length : at
})
/** On a phone one drawing at a time, in the order in which one sees it. */
type Part = 'range' | 'turf' | 'face' | 'word'
const isPhone = usePhone()
const part = ref<Part>('range')
const only = computed(() => (isPhone.value && !reading.value ? part.value : null))
const parts = computed<{ id: Part; word: string }[]>(() => [
  { id: 'range', word: 'Range' },
  ...(isTeed.value ? [] : [{ id: 'turf' as const, word: 'Turf' }]),
  { id: 'face', word: 'Face' },
  { id: 'word', word: 'Contact' },
])
/** On to the next part once one is filled; after the last a new ball begins at the range. */
function filled(which: Part): void {
  if (!isPhone.value || chosenId.value !== null) return
  const at = parts.value.findIndex((p) => p.id === which)
  part.value = parts.value[at + 1]?.id ?? 'range'
}
function flown(touch: Touch): void {
  props.entry.flight(touch)
  const ball = shots.value.find((s) => s.id === currentId.value)
  if (ball?.observed.curve != null) filled('range') // a start alone still waits for its landing
}
function shaped(noted: Shot): void {
  props.entry.shape(noted)
  filled('range')
}
watch(currentId, (now) => {
  if (now === null) part.value = 'range'
})
const blockWord = computed(() => {
  const club = known.club(shown.value?.club)?.name ?? ''
  const carry = fromMetres(expectedM.value, settings.distance).toFixed(0)
  const kind = shown.value?.kind === 'baseline' ? '' : `${capital(shown.value?.kind ?? '')}, `
  return `${kind}${club}, ${carry} ${settings.distance}`
})
const views = computed(() => [
  { id: 'log' as const, word: 'Log' },
  { id: 'read' as const, word: 'Read', disabled: readings.value === null },
])
</script>

<template>
  <section class="shots" aria-label="Shots">
    <details v-if="isPhone && shown" class="block-fold">
      <summary>{{ blockWord }}</summary>
      <BlockBar v-model="block" :block="shown" />
    </details>
    <OneOf
      v-if="only"
      class="parts"
      name="What is noted"
      :words="parts"
      :on="part"
      @chosen="(id) => (part = id)"
    />
    <DrillDone
      v-if="isPhone && shown?.kind === 'trial' && !reading"
      class="done-below"
      :entry="entry"
    />
    <div v-if="only === null || only === 'range'" class="range-box">
      <BlockBar v-if="shown && !isPhone" v-model="block" class="block-bar" :block="shown" />
      <DrillDone
        v-if="!isPhone && shown?.kind === 'trial' && !reading"
        class="done"
        :entry="entry"
      />
      <p class="hint quiet">
        <template v-if="reading">Touch a ball to choose it<br /></template>
        <template v-else-if="chosenId">Drag what is wrong,<br />or draw it anew<br /></template>
        <template v-else>Press where it started,<br />let go where it landed<br /></template>
        The fan is drawn wider than it is<template v-if="predictedFlight"
          ><br />Dashed: as predicted without the cause</template
        ><template v-else-if="under.length"
          ><br />Light rings: the baseline of {{ dayWord(last?.started_at ?? '') }}</template
        >
      </p>
      <RangeFan
        :hand="hand"
        :shots="shots"
        :newest="newest"
        :changing="chosenId"
        :expected-m="expectedM"
        :unit="settings.distance"
        :way="way"
        :predicted="predictedFlight"
        :reading="reading"
        :under="under"
        :tracks="tracks"
        :wild="wild"
        :scrolls-above="isPhone"
        @touched="flown"
        @chosen="entry.choose"
      />
    </div>
    <ShapeStrip v-if="isPhone && only === 'range'" @shape="shaped" />
    <div class="between">
      <!-- what does not fit scrolls, by keyboard too -->
      <div class="says" role="region" aria-label="In words" tabindex="0">
        <PatternLine
          :brief="chain.length > 0 && !reading"
          :block="readings"
          :balls="shots.length"
        />
        <PatternNotes
          v-if="reading && readings"
          :block="readings"
          :since="since ?? []"
          :unit="settings.distance"
        />
        <TargetLine
          v-if="shown?.own_targets"
          :block="shown"
          :ball="targetBall"
          :unit="settings.distance"
        />
        <ChainLine v-else-if="chain.length" :chain="chain" :words="words" />
      </div>
      <OneOf name="View" :words="views" :on="view" @chosen="(id) => (view = id)" />
    </div>
    <ReadView
      v-if="reading && readings"
      :entry="entry"
      :block="readings"
      :kind="kind"
      :teed="isTeed"
    />
    <LogView
      v-else-if="only !== 'range'"
      :only="only"
      :entry="entry"
      :kind="kind"
      :chain="chain"
      :prediction="prediction"
      :readings="readings"
      :under="under"
      @filled="filled"
    />
    <BallTape v-model:by-number="byNumber" :entry="entry" :reading="reading" />
    <BallDetails
      v-if="byNumber && current && !reading"
      :shot="current"
      :unit="settings.distance"
      :entry="entry"
      @close="byNumber = false"
    />
  </section>
</template>

<style scoped>
.shots {
  position: relative;
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding: 10px 20px 12px;
}
.range-box {
  position: relative;
  flex: 1 1 200px;
  min-height: 150px;
}
.block-bar {
  position: absolute;
  left: 0;
  top: 0;
}
.done {
  position: absolute;
  right: 0;
  top: 0;
}
.hint {
  position: absolute;
  right: 0;
  bottom: 0;
  text-align: right;
  font-size: var(--text-small);
  pointer-events: none;
}
.between {
  flex: none;
  border-bottom: 2px solid var(--line);
  padding-bottom: 4px;
}
/* the chain of an opened cause has its room kept, so that no drawing moves when it comes */
.between {
  display: flex;
  align-items: flex-end;
  gap: 16px;
  height: 76px;
}
.says {
  flex: 1;
  min-width: 0;
  max-height: 100%;
  overflow-y: auto;
}
/* beside the range, not over it; the words under the block's fields, where the height is there */
@media (min-width: 601px) {
  .range-box {
    padding-left: 206px;
  }
}
@media (min-width: 1001px), (min-width: 601px) and (max-height: 560px) {
  .range-box {
    padding-left: 262px;
  }
}
@media (min-width: 1001px), (min-width: 601px) and (max-height: 560px) {
  .hint {
    right: auto;
    left: 0;
    text-align: left;
  }
}
/* the stages take a row of their own under 1240 pixels, so the range is lower there */
@media (min-width: 1001px) and (max-width: 1239px) and (max-height: 809px) and (min-height: 561px),
  (min-width: 1240px) and (max-height: 769px) and (min-height: 561px) {
  .hint {
    display: none;
  }
}
@media (max-width: 1000px) {
  .range-box {
    flex: none;
    height: 30vh;
  }
}
/* a phone on its side: the page scrolls, and nothing lies over anything */
@media (max-height: 560px) and (max-width: 1000px) {
  .range-box {
    height: 240px;
  }
}
@media (max-width: 600px) {
  .shots {
    --one-drawing: 44dvh;
    padding: 8px 16px 12px;
  }
  .block-fold summary {
    min-height: 44px;
    line-height: 44px;
    font-weight: var(--strong);
  }
  .parts :deep(button) {
    flex: 1;
  }
  .range-box {
    height: var(--one-drawing);
  }
  .hint {
    display: none;
  }
  .done-below {
    order: 1;
    justify-items: start;
    max-width: none;
    text-align: left;
  }
  /* what the balls show follows what is touched */
  .between {
    order: 1;
    flex-wrap: wrap;
    height: auto;
    min-height: 76px;
    border: 0;
  }
}
</style>
