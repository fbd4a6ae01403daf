<script setup lang="ts">
// The balls as a tape: the newest stands out, an earlier one can be chosen to be changed.
import { computed, useTemplateRef, watch } from 'vue'
import type { LoggedShot } from '@/api/client'
import { useLessonContext } from '@/lesson/lessonContext'
import type { BallEntry } from '@/lesson/shots/useBallEntry'
import { toMiddle } from '@/ui/toMiddle'
import { count, degreesWord, directionWord, strikeWord } from '@/ui/words'

const byNumber = defineModel<boolean>('byNumber', { required: true })
const props = defineProps<{ entry: BallEntry; reading: boolean }>()
const { hand } = useLessonContext()
const { shots, newest, chosenId, openId } = props.entry

const says = computed(() => {
  if (chosenId.value !== null) {
    const number = String(numberOf(chosenId.value))
    return props.reading ? `Ball ${number} is chosen` : `Changing ball ${number}`
  }
  if (openId.value !== null && numberOf(openId.value) > 0)
    return `Ball ${String(numberOf(openId.value))} is open`
  return `Next: ball ${String(shots.value.length + 1)}`
})
const tape = useTemplateRef<HTMLElement>('tape')
watch(
  [tape, newest, chosenId, () => shots.value.length],
  () => {
    toMiddle(tape.value, chosenId.value === null ? '.newest' : '.chosen')
  },
  { flush: 'post' },
)
function numberOf(id: string): number {
  return shots.value.findIndex((s) => s.id === id) + 1
}
function inWords(shot: LoggedShot): string {
  const { start, curve, contact, heel_toe_mm } = shot.observed
  const parts = []
  if (!start && shot.observed.start_deg != null)
    parts.push(`starts ${degreesWord(shot.observed.start_deg, hand.value)}`)
  if (start) parts.push(`starts ${directionWord(start, hand.value)}`)
  if (curve)
    parts.push(curve === 'straight' ? 'no curve' : `curves ${directionWord(curve, hand.value)}`)
  if (contact) parts.push(contact)
  if (heel_toe_mm != null) parts.push(strikeWord(heel_toe_mm))
  const noted = Object.values(shot.observed).filter((value) => value != null).length
  if (parts.length === 0 && noted > 0) return `${count(noted, 'number')} measured`
  return parts.join(', ') || 'nothing noted'
}
</script>

<template>
  <div class="row">
    <ol ref="tape" class="tape" aria-label="Balls">
      <li v-for="(shot, i) in shots" :key="shot.id">
        <button
          type="button"
          :class="{ newest: shot.id === newest, chosen: shot.id === chosenId }"
          :aria-pressed="shot.id === chosenId"
          :aria-label="`Ball ${i + 1}: ${inWords(shot)}`"
          :title="inWords(shot)"
          @click="entry.choose(shot.id)"
        >
          {{ i + 1 }}
        </button>
      </li>
    </ol>
    <span class="quiet says" role="status">{{ says }}</span>
    <!-- their room is kept: the tape must not change its size under a finger -->
    <div :class="['acts', { away: !chosenId || reading }]">
      <v-btn :aria-expanded="byNumber" @click="byNumber = !byNumber">By number</v-btn>
      <v-btn @click="entry.remove">Delete<span class="key" aria-hidden="true">Del</span></v-btn>
    </div>
    <v-btn class="next" @click="entry.next">
      {{ chosenId ? 'Done' : 'Next ball' }}<span class="key" aria-hidden="true">Enter</span>
    </v-btn>
  </div>
</template>

<style scoped>
.row {
  flex: none;
  display: flex;
  align-items: center;
  gap: 12px;
}
.tape {
  flex: 1;
  display: flex;
  gap: 6px;
  padding: 3px;
  margin: -3px;
  list-style: none;
  overflow-x: auto;
}
.tape button {
  min-width: 48px;
  min-height: 48px;
  border: 1.5px solid var(--line);
  border-radius: var(--corner);
  background: var(--surface);
  font-variant-numeric: tabular-nums;
}
.tape button.newest {
  background: var(--ink);
  color: var(--surface);
  font-weight: var(--strong);
}
.tape button.chosen {
  outline: 3px solid var(--slate);
  outline-offset: -1px;
}
.says {
  font-size: var(--text-small);
  white-space: nowrap;
}
@media (max-width: 1240px) {
  .says {
    position: absolute;
    clip-path: inset(50%);
  }
}
.acts {
  display: flex;
  gap: 8px;
}
.acts.away {
  visibility: hidden;
}
@media (max-width: 600px) {
  .row {
    flex-wrap: wrap;
    justify-content: space-between;
  }
  .tape {
    flex: 1 1 100%;
  }
}
.next {
  border-width: 2px;
}
</style>
