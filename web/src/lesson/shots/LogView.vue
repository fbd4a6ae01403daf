<script setup lang="ts">
// What is touched to log a ball: the turf, the face, a word for the contact.
import { computed, ref } from 'vue'
import type { LoggedShot, Shape } from '@/api/client'
import ClubFace from '@/drawing/ClubFace.vue'
import GroundPlan from '@/drawing/GroundPlan.vue'
import { useLessonContext } from '@/lesson/lessonContext'
import ContactStrip from '@/lesson/shots/ContactStrip.vue'
import ShapeStrip from '@/lesson/shots/ShapeStrip.vue'
import OffTheFace from '@/lesson/shots/OffTheFace.vue'
import type { BallEntry } from '@/lesson/shots/useBallEntry'
import { scatterOf, type ReadBlock } from '@/lesson/shots/useReadings'
import { useSettings } from '@/ui/settings'
import { feet } from '@/ui/words'

const props = defineProps<{
  entry: BallEntry
  kind: string
  chain: readonly string[]
  prediction: Shape['SeenOut'] | null
  readings: ReadBlock | null
  /** Balls of the lesson before, laid under. */
  under: readonly LoggedShot[]
  /** On a phone one drawing at a time; null: all of them. */
  only: 'turf' | 'face' | 'word' | null
}>()
const { hand, speaker } = useLessonContext()
const emit = defineEmits<{ filled: [part: 'turf' | 'face' | 'word'] }>()

const settings = useSettings()
const { shots, newest, currentId, chosenId } = props.entry
/** A touch beside the face waits for an answer. */
const missed = ref(false)
const current = computed(() => shots.value.find((s) => s.id === currentId.value) ?? null)
const footWords = computed(() => feet(speaker.value))
const strikeLit = computed(() =>
  props.chain.includes('heel_strike') ? 'heel' : props.chain.includes('toe_strike') ? 'toe' : null,
)
function strike(at: { heelToeMm: number; lowHighMm: number }): void {
  missed.value = false
  props.entry.strike(at)
  emit('filled', 'face')
}
function divot(at: Parameters<BallEntry['divot']>[0]): void {
  props.entry.divot(at)
  emit('filled', 'turf')
}
function contact(word: Parameters<BallEntry['contact']>[0]): void {
  missed.value = false
  props.entry.contact(word)
  emit('filled', 'word')
}
const has = (part: 'turf' | 'face' | 'word') => props.only === null || props.only === part
const seenWords = { front: 'as you look at the face', player: 'as the player sees it' }
</script>

<template>
  <div v-if="only !== 'word'" :class="['close-up', { one: only !== null }]">
    <figure v-if="has('turf')">
      <figcaption>
        Touch where the divot began <span class="quiet">cm ahead of the ball</span>
      </figcaption>
      <GroundPlan
        :hand="hand"
        :shots="shots"
        :newest="newest"
        :changing="chosenId"
        :under="under"
        :chain="chain"
        :foot-words="footWords"
        :predicted-low-cm="prediction?.low_point_cm?.value ?? null"
        :low-point="readings?.delivery.low_point_cm ?? null"
        @touched="divot"
      />
    </figure>
    <figure v-if="has('face')">
      <figcaption>
        Touch the face: strike
        <v-btn
          class="seen"
          variant="text"
          size="small"
          @click="settings.faceSeen = settings.faceSeen === 'front' ? 'player' : 'front'"
        >
          {{ seenWords[settings.faceSeen] }}
        </v-btn>
      </figcaption>
      <ClubFace
        :hand="hand"
        :shots="shots"
        :newest="newest"
        :kind="kind"
        :under="under"
        :seen="settings.faceSeen"
        :lit="strikeLit"
        :predicted-mm="prediction?.heel_toe_mm?.value ?? null"
        :middle="readings?.delivery.heel_toe_mm ?? null"
        :scatter-mm="scatterOf(readings)"
        :reading="false"
        @touched="strike"
        @missed="missed = true"
      />
      <OffTheFace v-if="missed" @contact="contact" @slip="missed = false" />
    </figure>
  </div>
  <div v-if="has('word')" class="in-words">
    <ShapeStrip v-if="only === null" @shape="entry.shape" />
    <ContactStrip :contact="current?.observed.contact ?? null" @contact="contact" />
  </div>
</template>

<style scoped>
.in-words {
  flex: none;
  display: grid;
  grid-template-columns: 5fr 7fr;
  gap: 10px;
}
@media (max-width: 1100px) and (min-width: 1001px) {
  .in-words {
    grid-template-columns: 6fr 7fr;
  }
}
.in-words > :only-child {
  grid-column: 1 / -1;
}
.close-up {
  flex: none;
  display: grid;
  grid-template-columns: 430fr 330fr;
  gap: 16px;
  height: 238px;
}
figure {
  position: relative;
  display: flex;
  flex-direction: column;
  min-height: 0;
  min-width: 0;
}
figure svg {
  flex: 1;
  min-height: 0;
}
figcaption {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0 12px;
  font-size: var(--text-small);
}
.seen {
  height: 24px;
  min-height: 24px;
  padding: 0 4px;
  font-weight: 400;
  text-decoration: underline;
}
/* as high as the range is, so that nothing moves from one to the next */
.close-up.one {
  grid-template-columns: 1fr;
  height: var(--one-drawing);
}
</style>
