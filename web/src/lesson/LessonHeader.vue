<script setup lang="ts">
// Whose lesson, which stage, what can be undone, whether all is saved.
import { useLessonContext } from '@/lesson/lessonContext'
import { mdiArrowULeftTop, mdiArrowURightTop } from '@mdi/js'
import { computed, ref, watch } from 'vue'
import type { Shape } from '@/api/client'
import { useOutbox } from '@/sync/outbox'
import LessonClock from '@/lesson/LessonClock.vue'
import NoteButton from '@/lesson/NoteButton.vue'
import LessonMenu from '@/lesson/LessonMenu.vue'
import { STAGES, type Stage } from '@/lesson/stages'
import { handicapWord } from '@/ui/handicap'
import SettingsMenu from '@/ui/SettingsMenu.vue'
import { toMiddle } from '@/ui/toMiddle'
import { count } from '@/ui/words'
import NotTaken from '@/sync/waiting/NotTaken.vue'

const props = defineProps<{
  stage: Stage
  clock: Shape['ClockOut'] | null
}>()
const { open, lesson } = useLessonContext()
defineEmits<{ keys: []; import: [] }>()

/** Stages that hold something already. */
const begun = computed<Record<Stage, boolean>>(() => ({
  listen: lesson.value.listen.misses.length > 0 || lesson.value.complaint !== '',
  shots: open.shots.value.length > 0,
  look: lesson.value.answers.length > 0,
  pressure: lesson.value.traces > 0,
  decide: lesson.value.decisions.length > 0,
  drill: lesson.value.repetitions.length > 0,
  retest: lesson.value.blocks.some((b) => b.kind === 'retest' && b.shots.length > 0),
  send: lesson.value.follow_up !== null,
}))
const about = computed(() => {
  const { handedness, handicap } = lesson.value.student
  const parts = [handedness === 'left' ? 'left-handed' : 'right-handed']
  if (handicap !== null) parts.push(`handicap ${handicapWord(handicap)}`)
  return parts.join(' · ')
})
/** On a phone the stages are wider than the screen: the open one is moved to the middle. */
const stages = ref<HTMLElement | null>(null)
watch(
  [stages, () => props.stage],
  () => {
    toMiddle(stages.value, '.here')
  },
  { flush: 'post' },
)
const outbox = useOutbox()
/** Something was taken back here that the server has not heard of yet. */
const takenBack = computed(() => outbox.waiting(lesson.value.id).some((w) => w.kind === 'undo'))
const refused = computed(() => outbox.state.entries.some((e) => e.refused))
const saved = computed(() => {
  const { state, waiting } = open.saving.value
  if (state === 'saved') return 'Saved'
  if (state === 'saving') return 'Saving'
  if (outbox.state.keepsNothing) return `Not kept here: ${count(waiting, 'change')}. Do not leave`
  return `No connection: ${count(waiting, 'change')} kept here`
})
</script>

<template>
  <header class="bar">
    <div class="who">
      <h1>
        <router-link class="name" :to="{ name: 'student', params: { id: lesson.student.id } }">{{
          lesson.student.name
        }}</router-link>
      </h1>
      <span class="quiet">{{ about }}</span>
    </div>
    <nav ref="stages" aria-label="Stages">
      <router-link
        v-for="s in STAGES"
        :key="s.id"
        :class="{ here: stage === s.id }"
        :to="{ name: 'lesson', params: { id: lesson.id, stage: s.id } }"
        :aria-label="begun[s.id] ? `${s.word}, begun` : s.word"
      >
        {{ s.word }}
        <span :class="['tick', { begun: begun[s.id] }]" aria-hidden="true">✓</span>
      </router-link>
    </nav>
    <div class="tools">
      <div class="clock-room">
        <LessonClock v-if="clock" :clock="clock" />
      </div>
      <span :class="['saved', 'quiet', { all: saved === 'Saved' && !refused }]">
        <span :class="{ unseen: refused }" role="status" data-testid="saved">{{ saved }}</span>
        <NotTaken v-if="refused" />
      </span>
      <v-btn
        variant="text"
        :icon="mdiArrowULeftTop"
        :disabled="!lesson.undo && open.saving.value.state === 'saved'"
        :aria-label="lesson.undo ? `Undo ${lesson.undo}` : 'Undo'"
        :title="lesson.undo ? `Undo ${lesson.undo} (Ctrl+Z)` : 'Nothing to undo'"
        data-testid="undo"
        @click="open.undo"
      />
      <v-btn
        variant="text"
        :icon="mdiArrowURightTop"
        :disabled="!lesson.redo && !takenBack"
        :aria-label="lesson.redo ? `Redo ${lesson.redo}` : 'Redo'"
        :title="lesson.redo ? `Redo ${lesson.redo} (Ctrl+Y)` : 'Nothing to redo'"
        data-testid="redo"
        @click="open.redo"
      />
      <NoteButton />
      <LessonMenu @import="$emit('import')" @keys="$emit('keys')" />
      <SettingsMenu />
    </div>
  </header>
</template>

<style scoped>
.bar {
  flex: none;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: flex-end;
  gap: 4px 14px;
  min-height: 64px;
  padding: 4px 12px 4px 20px;
  border-bottom: 2px solid var(--ink);
  background: var(--surface);
}
.who {
  display: grid;
  margin-right: auto;
  line-height: 1.2;
}
h1 {
  font-size: var(--text-lead);
  line-height: 1.2;
}
.name {
  font-weight: var(--strong);
  color: inherit;
  text-decoration: none;
}
.who .quiet {
  font-size: var(--text-small);
}
nav {
  display: flex;
  flex-wrap: wrap;
  gap: 2px;
}
nav a {
  display: grid;
  align-content: center;
  justify-items: center;
  line-height: 1.15;
  min-height: 52px;
  padding: 0 7px;
  color: inherit;
  font-size: var(--text-body);
  text-decoration: none;
  border-bottom: 4px solid transparent;
}
nav a.here {
  font-weight: var(--strong);
  border-bottom-color: var(--ink);
}
.tick {
  font-size: var(--text-tiny);
  line-height: 14px;
  visibility: hidden;
}
.tick.begun {
  visibility: visible;
}
.tools {
  display: flex;
  align-items: center;
}
/* kept free until the clock arrives: a stage must not move from under a finger */
.clock-room {
  width: 176px;
  min-height: 48px;
  text-align: right;
}
/* as wide as what it says without a connection: the stages beside it must not move then */
.saved {
  width: 138px;
  font-size: var(--text-small);
  line-height: 1.2;
  margin-right: 8px;
  text-align: right;
}
/* said to screen readers; its place is taken by what needs a hand */
.unseen {
  position: absolute;
  clip-path: inset(50%);
}
/* the stages take a line of their own below name and tools */
@media (max-width: 1239px) {
  nav {
    order: 1;
    width: 100%;
    justify-content: space-between;
  }
  .tools {
    margin-left: auto;
  }
}
/* on a phone one line of stages, moved sideways; that all is saved is not worth a line */
@media (max-width: 600px) {
  nav {
    flex-wrap: nowrap;
    overflow-x: auto;
  }
  nav a {
    flex: none;
  }
  .tools {
    width: 100%;
  }
  .clock-room {
    margin-right: auto;
    text-align: left;
  }
  .bar {
    position: relative;
  }
  .saved {
    position: absolute;
    top: 8px;
    right: 8px;
  }
  .saved.all {
    position: absolute;
    clip-path: inset(50%);
  }
}
/* one row from the first paint on, whatever arrives late */
@media (min-width: 1240px) {
  .bar,
  nav {
    flex-wrap: nowrap;
  }
  .who {
    min-width: 0;
  }
}
@media (max-width: 440px) {
  .tools :deep(.v-btn--icon) {
    width: 44px;
  }
}
</style>
