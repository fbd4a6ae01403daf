<script setup lang="ts">
// One tap for each repetition, judged in the feel or in the real swing; both are counted apart.
import { computed, watch } from 'vue'
import type { Shape } from '@/api/client'
import { useLessonContext } from '@/lesson/lessonContext'
import OneOf from '@/ui/OneOf.vue'

const props = defineProps<{
  drill: string
  ladder: Shape['LadderOut']
}>()
const { open, lesson } = useLessonContext()

const SHOWN = 24
const JUDGED = [
  { id: 'feel', word: 'In the feel' },
  { id: 'real', word: 'In the real swing' },
] as const
const TAPS = [
  { result: 'early', word: 'Not yet: early', key: 'E' },
  { result: 'pass', word: 'Right', key: 'R' },
  { result: 'late', word: 'Not yet: late', key: 'L' },
] as const
const MARKS = { pass: '●', early: '◁', late: '▷' } as const

/** Without a ball it is a rehearsal, with one the real swing, unless it is said otherwise. */
watch(
  () => props.ladder.steps[props.ladder.at]?.ball ?? false,
  (ball) => {
    open.judgedReal.value = ball
  },
  { immediate: true },
)
const results = computed(() => lesson.value.repetitions.filter((r) => r.drill === props.drill))
const counted = computed(() => {
  const said = (real: boolean, where: string) => {
    const some = results.value.filter((r) => r.real === real)
    const right = some.filter((r) => r.result === 'pass').length
    return some.length ? [`${where} ${String(right)} of ${String(some.length)} right`] : []
  }
  return [...said(false, 'in the feel'), ...said(true, 'in the real swing')].join(', ')
})
</script>

<template>
  <OneOf
    class="judged"
    name="Judged"
    :words="JUDGED"
    :on="open.judgedReal.value ? 'real' : 'feel'"
    @chosen="(id) => (open.judgedReal.value = id === 'real')"
  />
  <div class="taps" role="group" aria-label="Repetition">
    <v-btn
      v-for="tap in TAPS"
      :key="tap.result"
      stacked
      :class="{ big: tap.result === 'pass' }"
      :aria-label="tap.word"
      @click="open.tapRepetition(drill, tap.result)"
    >
      {{ tap.word }} <span class="key">{{ tap.key }}</span>
    </v-btn>
  </div>
  <p class="marks">
    <span v-for="r in results.slice(-SHOWN)" :key="r.id" aria-hidden="true">{{
      MARKS[r.result]
    }}</span>
    <span class="quiet" data-testid="counted"> {{ counted }}</span>
  </p>
</template>

<style scoped>
.taps {
  display: grid;
  grid-template-columns: 1fr 1.4fr 1fr;
  gap: 8px;
  margin-top: 12px;
}
.taps .v-btn {
  height: 88px;
  border-width: 2px;
  font-size: var(--text-lead);
  font-weight: 400;
}
.taps .v-btn.big {
  font-size: var(--text-head);
  font-weight: var(--strong);
}
.marks {
  margin-top: 8px;
  font-size: var(--text-lead);
  letter-spacing: 3px;
}
.marks .quiet {
  font-size: var(--text-small);
  letter-spacing: 0;
}
</style>
