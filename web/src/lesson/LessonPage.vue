<script setup lang="ts">
// One lesson: the stage on the left, the decision always in view on the right.
import { useKnowledge } from '@/api/knowledge'
import { computed, defineAsyncComponent, ref, watch, type Component } from 'vue'
import DecisionColumn from '@/lesson/decide/DecisionColumn.vue'
import KeysHelp from '@/lesson/KeysHelp.vue'
import LessonHeader from '@/lesson/LessonHeader.vue'
import LookStage from '@/lesson/look/LookStage.vue'
import ImportDialog from '@/lesson/shots/ImportDialog.vue'
import ShotsStage from '@/lesson/shots/ShotsStage.vue'
import { useWhatIf } from '@/lesson/decide/useWhatIf'
import { useBallEntry } from '@/lesson/shots/useBallEntry'
import { BESIDE_THE_DECISION, stageOf, type Stage } from '@/lesson/stages'
import { provideLessonContext } from '@/lesson/lessonContext'
import { useClock } from '@/lesson/useClock'
import { useLesson } from '@/lesson/useLesson'
import { useLessonKeys } from '@/lesson/useLessonKeys'
import { useSettings } from '@/ui/settings'
import StateMessage from '@/ui/StateMessage.vue'

const ListenStage = defineAsyncComponent(() => import('@/lesson/listen/ListenStage.vue'))
const PressureStage = defineAsyncComponent(() => import('@/lesson/pressure/PressureStage.vue'))
const DecideStage = defineAsyncComponent(() => import('@/lesson/decide/DecideStage.vue'))
const DrillStage = defineAsyncComponent(() => import('@/lesson/drill/DrillStage.vue'))
const RetestStage = defineAsyncComponent(() => import('@/lesson/retest/RetestStage.vue'))
const SendStage = defineAsyncComponent(() => import('@/lesson/send/SendStage.vue'))

const props = defineProps<{ id: string; stage?: string }>()
const known = useKnowledge()
const settings = useSettings()
const open = useLesson(props.id)
const { lesson, diagnosis, failure, refusal } = open
provideLessonContext(open)
void open.load()

const blockId = ref<string | null>(null)
watch(lesson, (now) => {
  const blocks = now?.blocks ?? []
  if (!blocks.some((b) => b.id === blockId.value)) blockId.value = blocks[0]?.id ?? null
})
const entry = useBallEntry(open, () => blockId.value)
const chosenCause = ref<string | null>(null)
/** The chosen cause; when none is chosen and the case is settled, the one to start with. */
const shownCause = computed(() => {
  const ranking = diagnosis.value?.ranking
  return chosenCause.value ?? (ranking?.enough ? ranking.start_with : null)
})
const whatIf = useWhatIf(open, shownCause)
/** Touching the open cause closes it: '' is none, and stays none. */
function touchCause(id: string): void {
  chosenCause.value = shownCause.value === id ? '' : id
}
const showKeys = ref(false)
const importing = ref(false)
const stage = computed(() => stageOf(props.stage))
const beside = computed(() => BESIDE_THE_DECISION.includes(stage.value) && !open.filmTouched.value)
const PLAIN: Partial<Record<Stage, Component>> = {
  listen: ListenStage,
  look: LookStage,
  decide: DecideStage,
  drill: DrillStage,
  retest: RetestStage,
  send: SendStage,
}
const clock = useClock(props.id, stage, lesson)
useLessonKeys({ open, entry, settings, chosenCause, showKeys, blockId, stage })
watch(lesson, (now) => {
  if (now) document.title = `${now.student.name} · Firm Footing`
})
</script>

<template>
  <StateMessage
    v-if="failure"
    kind="error"
    :title="failure.message"
    :hint="failure.hint"
    @retry="open.load"
  />
  <StateMessage
    v-else-if="known.error"
    kind="error"
    :title="known.error.message"
    :hint="known.error.hint"
    @retry="known.load"
  />
  <StateMessage v-else-if="!lesson || !known.knowledge" kind="loading" title="Opening the lesson" />
  <div v-else class="lesson">
    <LessonHeader
      :stage="stage"
      :clock="clock"
      @keys="showKeys = !showKeys"
      @import="importing = true"
    />
    <v-alert
      v-if="refusal"
      class="refusal"
      type="error"
      variant="tonal"
      closable
      role="alert"
      @click:close="refusal = null"
    >
      {{ refusal.message }} {{ refusal.hint }}
    </v-alert>
    <main :class="['body', { wide: !beside }]">
      <ShotsStage
        v-if="stage === 'shots'"
        v-model:block="blockId"
        class="stage"
        :entry="entry"
        :cause="shownCause"
        :what-if="whatIf"
      />
      <PressureStage v-else-if="stage === 'pressure'" class="stage" />
      <component :is="PLAIN[stage]" v-else class="stage" @block="(id: string) => (blockId = id)" />
      <DecisionColumn
        v-if="beside"
        v-model:block="blockId"
        class="column"
        :what-if="whatIf"
        :opened="shownCause"
        @touch-cause="touchCause"
      />
    </main>
    <ImportDialog
      v-if="blockId"
      v-model="importing"
      :lesson-id="id"
      :block-id="blockId"
      @taken="open.load"
    />
    <KeysHelp v-if="showKeys" @close="showKeys = false" />
  </div>
</template>

<style scoped>
.lesson {
  display: flex;
  flex-direction: column;
  height: 100dvh;
}
.body {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 444px;
}
.body.wide {
  grid-template-columns: minmax(0, 1fr);
}
.stage {
  min-width: 0;
  min-height: 0;
  background: var(--paper);
}
/* in its place before the stage has arrived */
.column {
  grid-column: 2;
  min-height: 0;
  border-left: 2px solid var(--ink);
}
/* over the page, which must not move from under a finger */
.refusal {
  position: fixed;
  top: 68px;
  left: 50%;
  transform: translateX(-50%);
  z-index: 20;
  max-width: min(720px, calc(100vw - 24px));
  background: var(--surface);
}
@media (max-width: 1000px) {
  .lesson {
    height: auto;
    min-height: 100dvh;
  }
  .body {
    grid-template-columns: minmax(0, 1fr);
  }
  .column {
    grid-column: auto;
    border-left: 0;
    border-top: 2px solid var(--ink);
  }
}
@media (max-width: 1199px) and (min-width: 1001px) {
  .body {
    grid-template-columns: minmax(0, 1fr) 390px;
  }
}
</style>
