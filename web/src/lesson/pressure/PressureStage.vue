<script setup lang="ts">
// Pressure: traces of the mat against the school's corridor, or feel tests where there is no mat.
import { useLessonContext } from '@/lesson/lessonContext'
import ChooseOne from '@/ui/ChooseOne.vue'
import { mdiPause, mdiPlay } from '@mdi/js'
import { computed, ref } from 'vue'
import { useKnowledge } from '@/api/knowledge'
import ForceStrip from '@/drawing/ForceStrip.vue'
import FootPrints from '@/drawing/FootPrints.vue'
import PressureCurve from '@/drawing/PressureCurve.vue'
import type { EventName } from '@/drawing/pressure'
import FeelTests from '@/lesson/pressure/FeelTests.vue'
import TraceCover from '@/lesson/pressure/TraceCover.vue'
import TraceImport from '@/lesson/pressure/TraceImport.vue'
import TraceSays from '@/lesson/pressure/TraceSays.vue'
import TypedMat from '@/lesson/pressure/TypedMat.vue'
import TraceTape from '@/lesson/pressure/TraceTape.vue'
import { SPEEDS, usePlayer } from '@/lesson/pressure/usePlayer'
import { underCurve, useTraces } from '@/lesson/pressure/useTraces'
import OneOf from '@/ui/OneOf.vue'
import { useSettings } from '@/ui/settings'
import StateMessage from '@/ui/StateMessage.vue'
import { feet, say } from '@/ui/words'
const { open, lesson, speaker } = useLessonContext()

const BEFORE_S = 0.3
const settings = useSettings()
const known = useKnowledge()
const { traces, together, shown, chosenId, ready, problem } = useTraces(open)
const means = ref<'mat' | 'feel'>('mat')
const MEANS = [
  { id: 'mat', word: 'Mat' },
  { id: 'feel', word: 'No mat' },
] as const
const footWords = computed(() => feet(speaker.value))
/** What was read, its signs in the words the instructor chose. */
const read = computed(() => {
  const found = shown.value?.read
  if (!found) return null
  const signs = found.signs.map((s) => ({ ...s, words: say(s.words, speaker.value) }))
  return { ...found, signs }
})
const span = computed(() => {
  const events = read.value?.events
  return { from: (events?.address.t_s ?? 0) - BEFORE_S, to: events?.finish.t_s ?? 1 }
})
const player = usePlayer(span)

const laid = ref<string | null>(null)
const underWords = computed(() => [
  { id: '', word: 'nothing' },
  ...(together.value ? [{ id: 'mean', word: 'the mean and spread' }] : []),
  ...traces.value.flatMap((t, i) =>
    t.read && t.id !== shown.value?.id
      ? [{ id: t.id, word: t.name || `trace ${String(i + 1)}` }]
      : [],
  ),
])
/** The mean when there is one, unless something else was chosen. */
const under = computed(() => {
  const known = underWords.value.some((w) => w.id === laid.value)
  return known && laid.value !== null ? laid.value : together.value ? 'mean' : ''
})
const underlaid = computed(() =>
  shown.value ? underCurve(under.value, shown.value, traces.value, together.value) : null,
)
const uncovered = ref(new Set<string>())
const covered = computed(
  () => settings.feelFirst && shown.value !== null && !uncovered.value.has(shown.value.id),
)
function uncover(): void {
  if (shown.value) uncovered.value = new Set(uncovered.value).add(shown.value.id)
}

function move(event: EventName, t: number): void {
  if (!shown.value || !read.value) return
  const named = Object.fromEntries(
    shown.value.named.map((name) => [name, read.value?.events[name].t_s ?? 0]),
  )
  open.changeTrace(shown.value.id, { events: { ...named, [event]: t } })
}
function forget(): void {
  if (shown.value) open.changeTrace(shown.value.id, { events: {} })
}
const SPEED_WORDS = { 1: '1×', 0.5: '½×', 0.25: '¼×', 0.1: '0.1×' } as const
const speedWords = SPEEDS.map((s) => ({ id: String(s), word: SPEED_WORDS[s] }))
</script>

<template>
  <section class="pressure" aria-label="Pressure">
    <div class="top">
      <OneOf name="Means" :words="MEANS" :on="means" @chosen="(m) => (means = m)" />
      <TraceTape
        v-if="means === 'mat'"
        v-model="chosenId"
        :traces="traces"
        :odd="together?.odd ?? null"
      />
      <label v-if="means === 'mat'" class="first">
        <input v-model="settings.feelFirst" type="checkbox" /> Ask the feel first
      </label>
      <TraceImport v-if="means === 'mat' && ready" :lesson-id="lesson.id" />
      <TypedMat v-if="means === 'mat' && ready" />
    </div>
    <FeelTests v-if="means === 'feel'" :limits="lesson.student.limits" />
    <template v-else>
      <v-alert v-if="problem" type="error" variant="tonal" role="alert">
        {{ problem.message }} {{ problem.hint }}
      </v-alert>
      <StateMessage v-if="!ready && !problem" inside kind="loading" title="Reading the traces" />
      <StateMessage
        v-else-if="ready && !shown"
        inside
        kind="empty"
        title="No pressure trace yet."
        hint="A mat sends its swings here as they are made. A trace can also be brought in from a table of samples, and without a mat there are feel tests."
      />
      <TraceCover v-else-if="shown && covered" @uncover="uncover" />
      <p v-else-if="shown && !read" class="problem" role="alert">
        This trace cannot be read as a swing: {{ shown.problem }} It is kept as it was recorded.
      </p>
      <template v-else-if="shown && read">
        <div class="drawings">
          <div class="curves">
            <PressureCurve
              :read="read"
              :now="player.now.value"
              :under="underlaid"
              :foot-words="footWords"
              @moved="move"
              @scrubbed="player.seek"
            />
            <ForceStrip :read="read" :now="player.now.value" />
          </div>
          <FootPrints
            :read="read"
            :now="player.now.value"
            :hand="lesson.student.handedness"
            :foot-words="footWords"
          />
        </div>
        <div class="player">
          <v-btn
            :icon="player.playing.value ? mdiPause : mdiPlay"
            :aria-label="player.playing.value ? 'Pause' : 'Play the swing'"
            data-testid="play"
            @click="player.toggle"
          />
          <OneOf
            name="Speed"
            :words="speedWords"
            :on="String(player.speed.value)"
            @chosen="(s) => (player.speed.value = Number(s) as typeof player.speed.value)"
          />
          <span class="number time" data-testid="moment">{{ player.now.value.toFixed(2) }} s</span>
          <ChooseOne
            class="under"
            name="Laid under"
            :options="underWords"
            :on="under"
            @chosen="(w) => (laid = w)"
          />
        </div>
        <p v-if="traces.length === 1" class="quiet told">{{ known.all.trace_told }}</p>
        <TraceSays
          :read="read"
          :trace="shown"
          @forget="forget"
          @swap="
            open.changeTrace(shown.id, { swapped: !shown.swapped, was: { swapped: shown.swapped } })
          "
          @remove="open.deleteTrace(shown.id)"
        />
      </template>
    </template>
  </section>
</template>

<style scoped>
.pressure {
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding: 10px 16px 12px 20px;
  overflow-y: auto;
}
.top {
  flex: none;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 14px;
}
.first {
  margin-left: auto;
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 48px;
  font-size: var(--text-small);
}
.first input {
  width: 22px;
  height: 22px;
}
.drawings {
  flex: 1 0 380px;
  max-height: 480px;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 232px;
  gap: 12px;
}
.drawings > * {
  min-height: 0;
}
.curves {
  display: flex;
  flex-direction: column;
}
.curves > :first-child {
  flex: 1;
  min-height: 0;
}
.player {
  flex: none;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 14px;
}
.time {
  min-width: 66px;
}
.under {
  display: flex;
  align-items: center;
  gap: 8px;
  font-size: var(--text-small);
}
.told {
  max-width: 70ch;
}
.problem {
  padding: 16px 0;
}
@media (max-width: 600px) {
  .drawings {
    grid-template-columns: 1fr;
    height: auto;
  }
  .drawings > :first-child {
    height: 390px;
  }
}
</style>
