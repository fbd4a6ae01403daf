<script setup lang="ts">
// Decisions and what became of them: how often the ranking's first was confirmed.
import { computed, shallowRef } from 'vue'
import { ApiError, ask, client, type Shape } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import { dayWord } from '@/ui/dates'
import StateMessage from '@/ui/StateMessage.vue'

const known = useKnowledge()
const book = shallowRef<Shape['CasebookOut'] | null>(null)
const failure = shallowRef<ApiError | null>(null)
async function load(): Promise<void> {
  try {
    book.value = await ask(client.GET('/api/casebook'))
    failure.value = null
  } catch (error) {
    failure.value = error as ApiError
  }
}
void load()
const name = (id: string | null) => (id ? (known.causes.get(id)?.name ?? id) : '')
const sentence = computed(() => {
  const b = book.value
  if (!b || b.answered === 0) return 'Nothing has come back yet.'
  const first = b.first_answered
    ? ` Of ${String(b.first_answered)} decided as the ranking had it, ${String(b.first_confirmed)} came true.`
    : ''
  return `Of ${String(b.answered)} that came back, ${String(b.confirmed)} ${b.confirmed === 1 ? 'was' : 'were'} confirmed.${first}`
})
</script>

<template>
  <main class="page">
    <p><router-link to="/">The day</router-link></p>
    <h1>Casebook</h1>
    <StateMessage
      v-if="failure"
      inside
      kind="error"
      :title="failure.message"
      :hint="failure.hint"
      @retry="load"
    />
    <StateMessage v-else-if="!book" inside kind="loading" title="Opening the casebook" />
    <StateMessage
      v-else-if="book.cases.length === 0"
      inside
      kind="empty"
      title="No decision yet."
      hint="Decide on a cause in a lesson; what became of it is kept here."
    />
    <template v-else>
      <p class="sum" data-testid="casebook-sum">{{ sentence }}</p>
      <table>
        <thead>
          <tr>
            <th scope="col">When</th>
            <th scope="col">Student</th>
            <th scope="col">Decided</th>
            <th scope="col">The ranking had first</th>
            <th scope="col">What became of it</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="c in book.cases" :key="c.lesson_id">
            <td>{{ dayWord(c.decided_at) }}</td>
            <td>
              <router-link :to="{ name: 'lesson', params: { id: c.lesson_id, stage: 'send' } }">{{
                c.student_name
              }}</router-link>
            </td>
            <td class="strong">{{ name(c.cause) }}</td>
            <td>{{ c.agreed ? 'the same' : name(c.ranked_first) }}</td>
            <td>{{ c.verdict ?? 'not asked yet' }}</td>
          </tr>
        </tbody>
      </table>
    </template>
  </main>
</template>

<style scoped>
h1 {
  font-size: 28px;
}
.sum {
  font-size: 20px;
  margin: 8px 0 16px;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th,
td {
  text-align: left;
  padding: 10px 12px 10px 0;
  border-bottom: 1px solid rgb(var(--v-theme-line));
}
a {
  color: inherit;
}
</style>
