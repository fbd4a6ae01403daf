<script setup lang="ts">
// Balls from a table: choose the file, see what its columns were taken for, put that right, take in.
import ChooseOne from '@/ui/ChooseOne.vue'
import { useMutation } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { ApiError, ask, client, type Shape } from '@/api/client'
import { textOf } from '@/lesson/shots/tableText'
import { count } from '@/ui/words'

const shown = defineModel<boolean>({ required: true })
const props = defineProps<{ lessonId: string; blockId: string }>()
const emit = defineEmits<{ taken: [] }>()

type Column = Shape['Column']

const LEFT_OUT = ''
const SIDE_WORDS: Record<string, string> = {
  right: '+ is right',
  left: '+ is left',
  toe: '+ is toe',
  heel: '+ is heel',
}
const path = computed(() => ({ path: { lesson_id: props.lessonId } }))
const fileName = ref('')
const text = ref<string | null>(null)
const columns = ref<Column[] | null>(null)
const preview = ref<Shape['TablePreview'] | null>(null)
const {
  mutate: askPreview,
  error: problem,
  reset: forget,
} = useMutation({
  mutationFn: (body: Shape['TableIn']) =>
    ask(client.POST('/api/lessons/{lesson_id}/table/preview', { params: path.value, body })),
})
const result = ref<Shape['TableTaken'] | null>(null)
const failure = ref<ApiError | null>(null)
const busy = ref(false)
/** Cells that can hardly be true are left out unless they are wanted. */
const keepDoubtful = ref(false)
watch(keepDoubtful, look)

watch(shown, (now) => {
  if (now) reset()
})
function reset(): void {
  fileName.value = ''
  text.value = null
  columns.value = null
  result.value = null
  failure.value = null
  keepDoubtful.value = false
  preview.value = null
  forget()
}
async function choose(event: Event): Promise<void> {
  const file = (event.target as HTMLInputElement).files?.[0]
  if (!file) return
  reset()
  fileName.value = file.name
  text.value = textOf(new Uint8Array(await file.arrayBuffer()))
  look()
}
const sent = (table: string) => ({
  text: table,
  columns: columns.value,
  block_id: props.blockId,
  keep_doubtful: keepDoubtful.value,
})
function look(): void {
  if (text.value === null) return
  // the newest question alone is heard when it is answered
  askPreview(sent(text.value), {
    onSuccess: (found) => {
      preview.value = found
    },
  })
}
watch(preview, (now) => {
  if (now) columns.value = now.columns
})
const fieldOf = (id: string | null | undefined) =>
  preview.value?.fields.find((f) => f.id === id) ?? null

function change(at: number, values: Partial<Column>): void {
  if (columns.value === null) return
  columns.value = columns.value.map((c, i) => (i === at ? { ...c, ...values } : c))
  look()
}
function hold(at: number, id: string): void {
  const field = fieldOf(id)
  change(at, {
    field: id === LEFT_OUT ? null : id,
    unit: '', // as the heading names it, else as the numbers make sense
    positive: (field?.positive[0] ?? null) as Column['positive'],
  })
}
const word = (id: string) => ({ id, word: id })
const unitsOf = ({ field }: Column) => (fieldOf(field)?.units ?? []).map(word)
const sidesOf = ({ field }: Column) =>
  (fieldOf(field)?.positive ?? []).map((side) => ({
    id: side as NonNullable<Column['positive']>,
    word: SIDE_WORDS[side] ?? side,
  }))
const fieldsFor = (at: number) => [
  { id: LEFT_OUT, word: 'left out' },
  ...(preview.value?.fields ?? []).map((f) => ({
    id: f.id,
    word: f.name,
    disabled: isTaken(f.id, at),
  })),
]
const isTaken = (id: string, at: number) =>
  columns.value?.some((c, i) => i !== at && c.field === id) ?? false

async function take(): Promise<void> {
  if (text.value === null) return
  busy.value = true
  failure.value = null
  const body = sent(text.value)
  try {
    const call = client.POST('/api/lessons/{lesson_id}/table', { params: path.value, body })
    result.value = await ask(call)
    emit('taken')
  } catch (error) {
    failure.value = error as ApiError
  } finally {
    busy.value = false
  }
}
const fresh = computed(() => (preview.value ? preview.value.balls - preview.value.already : 0))
const doubtful = computed(() => (result.value ?? preview.value)?.doubtful ?? [])
const bad = computed(() => result.value?.bad ?? preview.value?.bad ?? [])
</script>

<template>
  <v-dialog v-model="shown" max-width="1080" scrollable aria-label="Bring in balls from a table">
    <v-card class="pa-5 dialog">
      <h2>Bring in balls from a table</h2>
      <div v-if="result" class="done" role="status">
        <p>
          <strong>{{ count(result.added, 'ball') }} taken in.</strong>
          <template v-if="result.already">
            {{ count(result.already, 'ball') }} were there already and stayed as they were.
          </template>
          Undo takes them back in one step.
        </p>
      </div>
      <template v-else>
        <p class="quiet">
          A file of comma, semicolon or tab separated values, as launch monitors write them: one row
          for each ball. Nothing is kept until you say so.
        </p>
        <label class="file">
          <span v-if="!fileName">Choose a file</span>
          <input
            type="file"
            accept=".csv,.tsv,.txt,text/csv,text/plain"
            aria-label="Table of balls"
            @change="choose"
          />
        </label>
        <v-alert v-if="problem ?? failure" type="error" variant="tonal" role="alert">
          {{ (problem ?? failure)?.message }} {{ (problem ?? failure)?.hint }}
        </v-alert>
        <template v-if="preview && columns">
          <p>
            {{
              preview.remembered
                ? 'These headings are known: the columns are as you agreed last time.'
                : 'What the columns hold was guessed. Put right what is wrong; it is remembered.'
            }}
          </p>
          <div class="scroll">
            <table>
              <thead>
                <tr>
                  <th scope="col">Heading</th>
                  <th scope="col">Holds</th>
                  <th scope="col">In</th>
                  <th scope="col">Side</th>
                  <th scope="col" :colspan="preview.samples.length">First rows</th>
                </tr>
              </thead>
              <tbody>
                <tr
                  v-for="(column, i) in columns"
                  :key="i"
                  :class="{ out: !column.field }"
                  data-testid="column"
                >
                  <th scope="row">{{ column.heading }}</th>
                  <td>
                    <ChooseOne
                      unlabelled
                      :name="`${column.heading} holds`"
                      :options="fieldsFor(i)"
                      :on="column.field ?? LEFT_OUT"
                      @chosen="(id) => hold(i, id)"
                    />
                  </td>
                  <td>
                    <ChooseOne
                      v-if="unitsOf(column).length > 1"
                      unlabelled
                      :name="`Unit of ${column.heading}`"
                      :options="unitsOf(column)"
                      :on="column.unit"
                      @chosen="(unit) => change(i, { unit })"
                    />
                    <template v-else>{{ column.unit }}</template>
                  </td>
                  <td>
                    <ChooseOne
                      v-if="sidesOf(column).length"
                      unlabelled
                      :name="`Side of ${column.heading}`"
                      :options="sidesOf(column)"
                      :on="column.positive ?? null"
                      @chosen="(positive) => change(i, { positive })"
                    />
                  </td>
                  <td v-for="(row, r) in preview.samples" :key="r" class="sample">{{ row[i] }}</td>
                </tr>
              </tbody>
            </table>
          </div>
          <p data-testid="would">
            <strong>{{ count(fresh, 'ball') }} would be taken in.</strong>
            <template v-if="preview.already">
              {{ count(preview.already, 'ball') }} {{ preview.already === 1 ? 'is' : 'are' }} in the
              lesson already.
            </template>
          </p>
        </template>
      </template>
      <div v-if="bad.length" class="bad" data-testid="bad-rows">
        <p>{{ result ? 'Not taken in' : 'This cannot be read and is left out' }}:</p>
        <ul>
          <li v-for="(b, i) in bad" :key="i">
            row {{ b.line }}<template v-if="b.heading">, {{ b.heading }} “{{ b.cell }}”</template>:
            {{ b.reason }}
          </li>
        </ul>
      </div>
      <div v-if="doubtful.length" class="bad" data-testid="doubtful">
        <p>
          <strong>{{ count(doubtful.length, 'value') }} can hardly be true</strong>:
          {{ keepDoubtful ? 'taken in all the same' : 'left out' }}. Is the unit right?
        </p>
        <ul>
          <li v-for="(b, i) in doubtful" :key="i">
            row {{ b.line }}, {{ b.heading }} “{{ b.cell }}”: {{ b.reason }}
          </li>
        </ul>
        <label v-if="!result" class="keep">
          <input v-model="keepDoubtful" type="checkbox" /> Take them in all the same
        </label>
      </div>
      <div class="buttons">
        <v-btn variant="text" @click="shown = false">{{ result ? 'Close' : 'Cancel' }}</v-btn>
        <v-btn v-if="!result" :disabled="fresh === 0" :loading="busy" @click="take">
          Take in {{ count(fresh, 'ball') }}
        </v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.dialog {
  display: flex;
  flex-direction: column;
  gap: 12px;
}
.file {
  display: inline-flex;
  align-items: center;
  align-self: flex-start;
  gap: 12px;
}
.file span {
  font-weight: var(--strong);
}
.scroll {
  flex: 1 1 auto;
  min-height: 120px;
  max-height: 48vh;
  overflow: auto;
  border: 1.5px solid var(--line);
  border-radius: var(--corner);
}
table {
  border-collapse: collapse;
  width: 100%;
  font-size: var(--text-small);
}
th {
  text-align: left;
  padding: 4px 10px;
}
td {
  padding: 2px 10px;
}
.out th,
.out .sample {
  font-weight: 400;
  opacity: 0.7;
}
.sample {
  font-variant-numeric: tabular-nums;
  white-space: nowrap;
}
.bad {
  flex: none;
  max-height: 130px;
  overflow: auto;
  font-size: var(--text-small);
}
.keep {
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: 44px;
}
.bad ul {
  padding-left: 18px;
}
.buttons {
  display: flex;
  justify-content: flex-end;
  gap: 12px;
}
</style>
