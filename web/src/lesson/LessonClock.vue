<script setup lang="ts">
// The lesson's time: used and planned by stage, and when the retest has to begin.
import { computed } from 'vue'
import type { Shape } from '@/api/client'
import { useLessonContext } from '@/lesson/lessonContext'
import { timeWord } from '@/ui/dates'
import { STAGES } from '@/lesson/stages'
import OneOf from '@/ui/OneOf.vue'

const props = defineProps<{ clock: Shape['ClockOut'] }>()
const { open, lesson } = useLessonContext()

const LENGTHS = ['30', '45', '60'].map((id) => ({ id, word: id }))
const minutes = (id: string) => (props.clock.used_s[id] ?? 0) / 60
const used = computed(() => STAGES.reduce((sum, s) => sum + minutes(s.id), 0))
const rows = computed(() =>
  STAGES.map(({ id, word }) => ({
    id,
    word,
    used: minutes(id),
    planned: props.clock.planned_min[id],
  })),
)
/** What is left before the retest has to begin. */
const beforeRetest = computed(() =>
  Math.round(lesson.value.listen.minutes - props.clock.keep_for_retest - used.value),
)
const retestBy = computed(() => timeWord(new Date(Date.now() + 60_000 * beforeRetest.value)))
function setLength(id: string): void {
  open.changeLesson({ listen: { ...lesson.value.listen, minutes: Number(id) } })
}
</script>

<template>
  <v-menu :close-on-content-click="false" location="bottom end">
    <template #activator="{ props: activator }">
      <v-btn v-bind="activator" class="whole" variant="text" data-testid="clock">
        {{ beforeRetest > 0 ? `Retest by ${retestBy}` : 'Time to retest' }}
      </v-btn>
    </template>
    <v-card tag="aside" aria-label="Time of the lesson" class="pa-4" width="330">
      <table>
        <thead>
          <tr>
            <th scope="col">Minutes</th>
            <th scope="col">used</th>
            <th scope="col">planned</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="r in rows" :key="r.id">
            <th scope="row">{{ r.word }}</th>
            <td class="number">{{ r.used.toFixed(0) }}</td>
            <td>{{ r.planned ?? '–' }}</td>
          </tr>
        </tbody>
      </table>
      <p class="kept">
        {{ used.toFixed(0) }} of {{ clock.minutes }} minutes are over. The last
        {{ clock.keep_for_retest }} are for the retest:
        <strong v-if="beforeRetest > 0">begin it by {{ retestBy }}.</strong>
        <strong v-else>it is time to begin it.</strong>
      </p>
      <OneOf
        name="Minutes of the lesson"
        :words="LENGTHS"
        :on="String(lesson.listen.minutes)"
        @chosen="setLength"
      />
    </v-card>
  </v-menu>
</template>

<style scoped>
.whole {
  padding: 0 4px;
  font-weight: 400;
  text-decoration: underline;
  text-underline-offset: 3px;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th {
  text-align: left;
  font-weight: 400;
}
td,
th:not(:first-child) {
  text-align: right;
}
th,
td {
  padding: 3px 0;
}
.kept {
  margin: 10px 0;
}
</style>
