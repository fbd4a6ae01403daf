<script setup lang="ts">
// What the mat says of the change: signs gone or still there, shares that moved.
import { computed } from 'vue'
import type { Shape } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import { EVENT_WORDS } from '@/drawing/pressure'
import TracesLaid from '@/drawing/TracesLaid.vue'
import { useLessonContext } from '@/lesson/lessonContext'
import { capital, count, feet } from '@/ui/words'

const props = defineProps<{
  compared: Shape['TracesComparedOut']
}>()
const { speaker } = useLessonContext()
const known = useKnowledge()
const footWords = computed(() => feet(speaker.value))
const names = (ids: readonly string[]) =>
  ids.map((id) => known.sign(id)?.name.toLowerCase() ?? id).join(', ')
const signs = computed(() => {
  const { gone, still, new: fresh } = props.compared
  const said = [
    gone.length ? `gone: ${names(gone)}` : '',
    still.length ? `still there: ${names(still)}` : '',
    fresh.length ? `new: ${names(fresh)}` : '',
  ].filter(Boolean)
  return said.length ? `${capital(said.join('; '))}.` : 'No sign of trouble before or after.'
})
</script>

<template>
  <div class="over">
    <div class="words">
      <h2>Trace over trace</h2>
      <p class="quiet">
        {{ count(compared.before.swings, 'swing') }} before, {{ compared.after.swings }} after
      </p>
      <p class="strong" data-testid="trace-signs">{{ signs }}</p>
      <table>
        <tbody>
          <tr v-for="s in compared.shares" :key="s.event">
            <th scope="row">{{ EVENT_WORDS[s.event] }}</th>
            <td>{{ s.before.toFixed(0) }} → {{ s.after.toFixed(0) }} %</td>
            <td class="quiet">{{ s.sure ? 'more than chance' : 'within chance' }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <TracesLaid :compared="compared" :foot-words="footWords" />
  </div>
</template>

<style scoped>
.over {
  display: grid;
  grid-template-columns: minmax(280px, 2fr) minmax(0, 3fr);
  gap: 16px;
}
.over > svg {
  height: 220px;
}
h2 {
  font-size: var(--text-lead);
}
th {
  text-align: left;
  font-weight: 400;
}
th,
td {
  padding: 2px 12px 2px 0;
  font-size: var(--text-small);
}
@media (max-width: 700px) {
  .over {
    grid-template-columns: 1fr;
  }
}
</style>
