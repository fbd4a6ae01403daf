<script setup lang="ts">
// A trace from a table of samples: what is in it is said before it is kept.
import { newId } from '@/sync/page'
import { computed, ref } from 'vue'
import { ApiError, ask, client, type Shape } from '@/api/client'
import { useLessonContext } from '@/lesson/lessonContext'
import { textOf } from '@/lesson/shots/tableText'
import ChooseOne from '@/ui/ChooseOne.vue'
import { count } from '@/ui/words'

const props = defineProps<{ lessonId: string }>()
const { open } = useLessonContext()

const MOST_SAID = 4
const fileName = ref('')
const preview = ref<Shape['TracePreview'] | null>(null)
const failure = ref<ApiError | null>(null)
const input = ref<HTMLInputElement | null>(null)
const said = computed(() => {
  const found = preview.value
  if (!found) return ''
  const parts = [count(found.count, 'sample')]
  if (found.rate_hz !== null) parts.push(`${found.rate_hz.toFixed(0)} a second`)
  if (found.seconds !== null) parts.push(`${found.seconds.toFixed(1)} s`)
  if (found.ignored.length) parts.push(`not read: ${found.ignored.join(', ')}`)
  return parts.join(' · ')
})

const text = ref('')
/** What may be chosen for a column; the first is nothing. */
const fields = computed(() => [
  { id: '', word: 'not read' },
  ...Object.entries(preview.value?.fields ?? {}).map(([id, word]) => ({ id, word })),
])
const byHand = ref(false)
const asking = computed(() => byHand.value || preview.value?.recorded === null)
async function choose(event: Event): Promise<void> {
  const file = (event.target as HTMLInputElement).files?.[0]
  if (!file) return
  failure.value = null
  preview.value = null
  fileName.value = file.name
  text.value = textOf(new Uint8Array(await file.arrayBuffer()))
  byHand.value = false
  await look(null)
}
async function look(columns: (string | null)[] | null): Promise<void> {
  const params = { path: { lesson_id: props.lessonId } }
  const body = { text: text.value, columns }
  try {
    preview.value = await ask(
      client.POST('/api/lessons/{lesson_id}/traces/preview', { params, body }),
    )
  } catch (error) {
    failure.value = error as ApiError
  }
}
function hold(at: number, field: string): void {
  byHand.value = true
  const columns = preview.value?.columns ?? []
  void look(columns.map((c, i) => (i === at ? field || null : c)))
}
function keep(): void {
  if (!preview.value?.recorded) return
  open.putTrace(newId(), {
    recorded: preview.value.recorded,
    block_id: null,
    name: fileName.value.slice(0, 80),
  })
  done()
}
function done(): void {
  preview.value = null
  failure.value = null
  if (input.value) input.value.value = ''
}
</script>

<template>
  <div class="bring">
    <v-btn @click="input?.click()">Bring in</v-btn>
    <input
      ref="input"
      class="d-sr-only"
      tabindex="-1"
      type="file"
      accept=".csv,.tsv,.txt,text/csv,text/plain"
      aria-label="Table of samples"
      @change="choose"
    />
    <v-alert v-if="failure" type="error" variant="tonal" role="alert">
      {{ failure.message }} {{ failure.hint }}
    </v-alert>
    <div v-if="preview" class="found" data-testid="trace-preview">
      <p>
        <strong>{{ fileName }}</strong>: {{ said }}
      </p>
      <p v-if="preview.problem" role="alert">
        {{ preview.problem }}
        {{ preview.recorded ? 'It is not kept.' : 'Say what the columns hold.' }}
      </p>
      <table v-if="asking" class="columns" data-testid="trace-columns">
        <tbody>
          <tr v-for="(heading, i) in preview.headings" :key="i">
            <th scope="row">{{ heading }}</th>
            <td class="quiet">{{ preview.rows.map((r) => r[i]).join(' · ') }}</td>
            <td>
              <ChooseOne
                unlabelled
                :name="`${heading} holds`"
                :options="fields"
                :on="preview.columns[i] ?? ''"
                @chosen="(f) => hold(i, f)"
              />
            </td>
          </tr>
        </tbody>
      </table>
      <v-btn v-else variant="text" @click="byHand = true">The columns hold something else</v-btn>
      <ul v-if="preview.bad.length">
        <li v-for="b in preview.bad.slice(0, MOST_SAID)" :key="`${b.line} ${b.heading}`">
          Line {{ b.line }}, {{ b.heading }} “{{ b.cell }}”: {{ b.reason }}
        </li>
        <li v-if="preview.bad.length > MOST_SAID">
          and {{ preview.bad.length - MOST_SAID }} more; the good samples are kept
        </li>
      </ul>
      <p v-for="r in preview.remarks" :key="r.text" class="quiet">{{ r.text }}</p>
      <p v-if="preview.maybe_swapped">
        The feet may have been recorded the wrong way round; they can be exchanged once it is kept.
      </p>
      <div class="row">
        <v-btn
          :disabled="preview.problem !== null || preview.recorded === null"
          data-testid="keep-trace"
          @click="keep"
        >
          Keep the trace
        </v-btn>
        <v-btn variant="text" @click="done">Leave it</v-btn>
      </div>
    </div>
  </div>
</template>

<style scoped>
.bring {
  display: contents;
  font-size: var(--text-small);
}
.bring > :not(button, input) {
  flex-basis: 100%;
}
.found {
  padding: 10px 14px;
  border: 1.5px solid var(--line);
  border-radius: var(--corner);
}
ul {
  padding-left: 20px;
}
.row {
  display: flex;
  gap: 8px;
  margin-top: 8px;
}
.columns {
  border-collapse: collapse;
}
.columns th,
.columns td {
  padding: 4px 12px 4px 0;
  text-align: left;
}
</style>
