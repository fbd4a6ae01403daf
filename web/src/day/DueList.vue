<script setup lang="ts">
// Who is to be asked how it went since the lesson: one touch leads to what is to be asked.
import type { Shape } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import { dayWord } from '@/ui/dates'
import { useSettings } from '@/ui/settings'
import { say } from '@/ui/words'

defineProps<{ due: readonly Shape['DueOut'][] }>()
const known = useKnowledge()
const settings = useSettings()
const name = ({ cause, handedness }: Shape['DueOut']) => {
  const text = cause ? (known.cause(cause)?.name.toLowerCase() ?? cause) : 'the lesson'
  return say(text, { hand: handedness, sides: settings.sides })
}
</script>

<template>
  <div v-if="due.length" class="due" data-testid="due">
    <h2>To follow up</h2>
    <ul>
      <li v-for="d in due" :key="d.lesson_id">
        <router-link :to="{ name: 'lesson', params: { id: d.lesson_id, stage: 'send' } }">
          <strong>{{ d.student_name }}</strong>
          <span>{{ name(d) }}</span>
          <span :class="d.late ? 'strong' : 'quiet'"
            >{{ d.late ? 'since' : 'on' }} {{ dayWord(d.due_on) }}</span
          >
        </router-link>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.due {
  padding: 10px 16px;
  border: 2px solid var(--ink);
  border-radius: var(--corner);
}
h2 {
  font-size: var(--text-title);
}
ul {
  list-style: none;
  padding: 0;
}
a {
  display: grid;
  grid-template-columns: 1fr 1.6fr auto;
  gap: 12px;
  align-items: center;
  min-height: 48px;
  color: inherit;
  text-decoration: none;
}
a:hover strong {
  text-decoration: underline;
}
</style>
