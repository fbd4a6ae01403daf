<script setup lang="ts">
// One change that the server would not take: why, and what can be done with it.
import { computed } from 'vue'
import type { Entry } from '@/sync/writeStore'
import { useOutbox, type Write } from '@/sync/outbox'
import { writeWord } from '@/sync/writes'
import {
  bothCanBeKept,
  puttingBack,
  rowWord,
  settledConflict,
  valueWord,
  type Choice,
} from '@/sync/waiting/conflict'
import { capital } from '@/ui/words'

const props = defineProps<{ entry: Entry }>()
const outbox = useOutbox()

const said = computed(() => props.entry.refused)
const conflict = computed(() => (said.value?.code === 'conflict' ? said.value : null))
const takenOut = computed(() => (said.value?.code === 'taken_out' ? said.value : null))
/** "Goal"; of a ball, an answer or a note: "Ball, contact" */
const field = computed(() => {
  const name = (conflict.value?.where ?? '').replace(/^\w+\./, '').replaceAll('_', ' ')
  const { kind } = props.entry.write
  return capital(kind === 'lesson' || kind === 'student' ? name : `${writeWord(kind)}, ${name}`)
})
const bothAreWords = computed(() => conflict.value !== null && bothCanBeKept(conflict.value))

function choose(choice: Choice): void {
  if (conflict.value === null) return
  const write = settledConflict(props.entry.write, conflict.value, choice)
  if (write === null) outbox.throwAway(props.entry.name)
  else outbox.resend(props.entry.name, write as Write)
}
</script>

<template>
  <li>
    <template v-if="conflict">
      <h3>{{ field }}: changed on another device too</h3>
      <dl>
        <dt>Here</dt>
        <dd>{{ valueWord(conflict.mine) }}</dd>
        <dt>There</dt>
        <dd>{{ valueWord(conflict.theirs) }}</dd>
      </dl>
      <div class="choices">
        <v-btn v-if="bothAreWords" @click="choose('both')">Keep both</v-btn>
        <v-btn @click="choose('mine')">Keep this one</v-btn>
        <v-btn @click="choose('theirs')">Keep the other's</v-btn>
      </div>
    </template>
    <template v-else-if="takenOut">
      <h3>{{ capital(writeWord(entry.write.kind)) }}: taken out on another device</h3>
      <p>Here it is: {{ rowWord(takenOut.mine) }}.</p>
      <div class="choices">
        <v-btn @click="outbox.resend(entry.name, puttingBack(entry.write))">Put it back</v-btn>
        <v-btn @click="outbox.throwAway(entry.name)">Leave it out</v-btn>
      </div>
    </template>
    <template v-else>
      <h3>{{ capital(writeWord(entry.write.kind)) }}</h3>
      <p>{{ said?.message }} {{ said?.hint }}</p>
      <div class="choices">
        <v-btn @click="outbox.resend(entry.name, entry.write)">Send it again</v-btn>
        <v-btn variant="text" @click="outbox.throwAway(entry.name)">Throw it away</v-btn>
      </div>
    </template>
  </li>
</template>

<style scoped>
li {
  display: grid;
  gap: 8px;
}
h3 {
  font-size: var(--text-lead);
}
dl {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 4px 12px;
}
dt {
  color: var(--quiet);
}
.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
