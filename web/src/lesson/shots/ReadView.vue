<script setup lang="ts">
// What the balls show, worked out: flights from the side, turf, face, delivery, lost distance. A ball
// touched anywhere is chosen everywhere.
import { computed } from 'vue'
import type { AnswerWord } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import ClubFace from '@/drawing/ClubFace.vue'
import DeliveryPlan from '@/drawing/DeliveryPlan.vue'
import LostStrip from '@/drawing/LostStrip.vue'
import SideView from '@/drawing/SideView.vue'
import TurfStrip from '@/drawing/TurfStrip.vue'
import { useLessonContext } from '@/lesson/lessonContext'
import type { BallEntry } from '@/lesson/shots/useBallEntry'
import { scatterOf, type ReadBlock } from '@/lesson/shots/useReadings'
import OneOf from '@/ui/OneOf.vue'
import { useSettings } from '@/ui/settings'

const props = defineProps<{
  entry: BallEntry
  block: ReadBlock
  kind: string
  teed: boolean
}>()
const known = useKnowledge()
const { open, lesson, hand } = useLessonContext()

const DEEP_SIDE = 'heel_or_toe_deep_divot'
const settings = useSettings()
const { shots, newest, chosenId } = props.entry
const chosen = computed(() => props.block.balls.find((b) => b.shot_id === chosenId.value) ?? null)
const chosenNumber = computed(() => shots.value.findIndex((s) => s.id === chosenId.value) + 1)
const flown = computed(() =>
  props.block.balls.map((b) => ({ id: b.shot_id, track: b.track, apexM: b.apex_m })),
)
const reach = computed(() =>
  Math.max(props.block.expected_carry_m, ...props.block.balls.map((b) => b.carry_m)),
)
const of = (name: string) => props.block.delivery[name] ?? null
const chosenDelivery = computed(() => {
  const ball = chosen.value?.delivery
  if (!ball) return null
  const value = (name: string) => ball[name]?.value ?? 0
  return { path: value('path_deg'), face: value('face_deg'), attack: value('attack_deg') }
})
const asked = computed(() => known.check(DEEP_SIDE))
const answered = computed(
  () => lesson.value.answers.find((a) => a.check_id === DEEP_SIDE && !a.block_id)?.answer ?? null,
)
const ANSWERS: readonly { id: AnswerWord; word: string }[] = [
  { id: 'yes', word: 'Yes' },
  { id: 'no', word: 'No' },
]
</script>

<template>
  <div class="read">
    <SideView
      class="side"
      :balls="flown"
      :newest="newest"
      :reach-m="reach"
      :unit="settings.distance"
      @chosen="entry.choose"
    />
    <div class="row">
      <div class="turf">
        <TurfStrip
          :shots="shots"
          :newest="newest"
          :low-point="of('low_point_cm')"
          :teed="teed"
          @chosen="entry.choose"
        />
        <div v-if="asked && !teed" class="deep" :title="asked.question">
          Deeper at toe or heel?
          <OneOf
            small
            name="Divots deeper at toe or heel"
            :words="ANSWERS"
            :on="answered"
            @chosen="(word) => open.putAnswer(DEEP_SIDE, word, open.sourceOf(DEEP_SIDE))"
          />
        </div>
      </div>
      <ClubFace
        :hand="hand"
        :shots="shots"
        :newest="newest"
        :kind="kind"
        :seen="settings.faceSeen"
        :lit="null"
        :predicted-mm="null"
        :middle="of('heel_toe_mm')"
        :scatter-mm="scatterOf(block)"
        reading
        @chosen="entry.choose"
      />
      <DeliveryPlan
        :hand="hand"
        :path="of('path_deg')"
        :face="of('face_deg')"
        :attack="of('attack_deg')"
        :chosen="chosenDelivery"
      />
    </div>
    <LostStrip
      :lost="chosen?.lost ?? block.lost"
      :source="block.expected_source"
      :unit="settings.distance"
      :whose="chosen ? `Ball ${chosenNumber}` : 'The block'"
    />
  </div>
</template>

<style scoped>
.read {
  flex: none;
  display: flex;
  flex-direction: column;
  gap: 6px;
}
.side {
  flex: none;
  height: 84px;
}
.row {
  display: grid;
  grid-template-columns: 270fr 210fr 320fr;
  gap: 14px;
  height: 178px;
}
.row > * {
  min-width: 0;
  min-height: 0;
}
.turf {
  display: flex;
  flex-direction: column;
}
.turf svg {
  flex: 1;
  min-height: 0;
}
.deep {
  flex: none;
  display: flex;
  align-items: center;
  gap: 8px;
  font-size: var(--text-small);
}
@media (max-width: 600px) {
  .row {
    grid-template-columns: 1fr;
    height: auto;
  }
}
</style>
