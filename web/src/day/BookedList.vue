<script setup lang="ts">
// Who comes, when, and what each lesson needs; one touch begins it.
import type { Shape } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import { recentWord, timeWord } from '@/ui/dates'
import { useSettings } from '@/ui/settings'
import { say } from '@/ui/words'

type Booked = Shape['BookedOut']
defineProps<{ booked: readonly Booked[]; busy: boolean }>()
defineEmits<{ begin: [booked: Booked] }>()
const known = useKnowledge()
const settings = useSettings()

/** "To ask how it went, then stays on the trail foot, with mirror press." */
function needs(b: Booked): string {
  const speaker = { hand: b.handedness, sides: settings.sides }
  const parts = []
  if (b.cause && !b.asked) parts.push('ask how it went')
  if (b.cause) parts.push(known.cause(b.cause)?.name.toLowerCase() ?? b.cause)
  const drill = known.drill(b.drill)?.name
  if (drill) parts.push(`with “${drill.toLowerCase()}”`)
  return say(parts.join(', '), speaker)
}
</script>

<template>
  <section v-if="booked.length" aria-labelledby="comes" data-testid="booked">
    <h2 id="comes">
      Who comes <a class="quiet small" href="/api/booked.ics" download>as a calendar</a>
    </h2>
    <ul>
      <li v-for="b in booked" :key="b.lesson_id">
        <span class="strong">{{ recentWord(b.at) }}<br />{{ timeWord(new Date(b.at)) }}</span>
        <span
          ><router-link class="strong" :to="{ name: 'student', params: { id: b.student_id } }">{{
            b.student_name
          }}</router-link
          ><br /><span class="quiet">{{ needs(b) }}</span></span
        >
        <v-btn
          :disabled="busy"
          :aria-label="`Begin the lesson with ${b.student_name}`"
          @click="$emit('begin', b)"
        >
          Begin
        </v-btn>
      </li>
    </ul>
  </section>
</template>

<style scoped>
h2 {
  font-size: var(--text-title);
}
ul {
  list-style: none;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 76px 1fr auto;
  gap: 12px;
  align-items: center;
  padding: 8px 0;
  border-bottom: 1px solid var(--line);
}
a {
  color: inherit;
}
.small {
  font-size: var(--text-small);
  font-weight: 400;
}
</style>
