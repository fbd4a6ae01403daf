<script setup lang="ts">
// What the film measures so far, what each number answers, and what is still to be touched.
import { computed } from 'vue'
import { useKnowledge } from '@/api/knowledge'
import { EVENTS, wantedBy } from '@/lesson/look/film/marking'
import type { useFilm } from '@/lesson/look/film/useFilm'

const props = defineProps<{ ruler: ReturnType<typeof useFilm> }>()
/** A measure was asked for: its picture is wanted. */
const emit = defineEmits<{ asked: [] }>()
const known = useKnowledge()

function askFor(measure: string): void {
  props.ruler.askFor(measure)
  emit('asked')
}
const rows = computed(() =>
  props.ruler.measures.value.map((measure) => {
    const found = props.ruler.read.value?.measures.find((m) => m.id === measure.id)
    const event = EVENTS.find((e) => e.id === measure.event)?.word.toLowerCase() ?? ''
    const marked = props.ruler.marks.value?.events ?? {}
    return {
      id: measure.id,
      name: `${measure.name}, ${event}`,
      value: found ? `${found.value.toFixed(0)}${measure.unit === 'deg' ? '°' : ' cm'}` : null,
      doubt: found ? `± ${(1.96 * found.sd).toFixed(0)}` : '',
      answers: (found?.answers ?? []).map((a) => ({
        label: known.check(a.check)?.label ?? a.check,
        word: a.answer === 'yes' || a.answer === 'no' ? a.answer : 'unclear',
      })),
      ready: wantedBy(measure).every((w) => w.event in marked),
    }
  }),
)
</script>

<template>
  <section aria-labelledby="film-measures">
    <h2 id="film-measures">Measures, as seen from here</h2>
    <p class="quiet">Nineteen times in twenty the truth lies within ±.</p>
    <p v-if="ruler.read.value?.problem" class="quiet">{{ ruler.read.value.problem }}</p>
    <ul data-testid="film-measures">
      <li v-for="row in rows" :key="row.id">
        <span class="name">{{ row.name }}</span>
        <template v-if="row.value">
          <span class="strong number">{{ row.value }}</span>
          <span class="quiet number">{{ row.doubt }}</span>
          <span class="answers">
            <span v-for="a in row.answers" :key="a.label">{{ a.label }}: {{ a.word }}</span>
          </span>
        </template>
        <v-btn
          v-else
          size="small"
          variant="text"
          :disabled="!row.ready || !ruler.marks.value?.scale"
          :aria-label="`Measure ${row.name}`"
          @click="askFor(row.id)"
          >Measure</v-btn
        >
      </li>
    </ul>
    <p v-if="ruler.read.value?.leaves">{{ ruler.read.value.leaves }}</p>
  </section>
</template>

<style scoped>
ul {
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
  min-height: 48px;
  border-bottom: 1px solid var(--line);
}
.name {
  flex: 1 1 220px;
}
.answers {
  flex: 1 1 200px;
}
</style>
