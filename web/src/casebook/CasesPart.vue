<script setup lang="ts">
// Decisions and what became of them: the cases by cause, ball flight, club and fate.
import ChooseOne from '@/ui/ChooseOne.vue'
import { useInfiniteQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { ask, client, type Shape } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import { FATE_WORDS, fateWords, NOT_KNOWN } from '@/casebook/words'
import { dayWord } from '@/ui/dates'
import { useSettings } from '@/ui/settings'
import WhenLoaded from '@/ui/WhenLoaded.vue'
import { capital, say } from '@/ui/words'

type Case = Shape['CaseOut']

const known = useKnowledge()
const settings = useSettings()
const {
  data: pages,
  error: failure,
  refetch: load,
  hasNextPage,
  fetchNextPage,
} = useInfiniteQuery({
  queryKey: ['casebook'],
  queryFn: ({ pageParam: before }) =>
    ask(client.GET('/api/casebook', { params: { query: { before } } })),
  initialPageParam: null as string | null,
  getNextPageParam: (last) => (last.more ? (last.cases.at(-1)?.decided_at ?? null) : null),
})
const book = computed(() => {
  const newest = pages.value?.pages[0]
  return newest && { ...newest, cases: pages.value?.pages.flatMap((p) => p.cases) ?? [] }
})
const name = (id: string | null, { handedness }: Case) =>
  id ? say(known.cause(id)?.name ?? id, { hand: handedness, sides: settings.sides }) : ''
const clubName = (id: string | null) => (id ? (known.club(id)?.name ?? id) : '')
const fate = (c: Case) => (c.fate ? FATE_WORDS[c.fate] : NOT_KNOWN)

const FILTERS = [
  { id: 'cause', word: 'Cause', of: (c: Case) => known.cause(c.cause)?.name ?? c.cause },
  { id: 'flight', word: 'Ball flight', of: (c: Case) => c.shape ?? 'not seen' },
  { id: 'club', word: 'Club', of: (c: Case) => clubName(c.club) || 'none' },
  { id: 'fate', word: 'What became of it', of: fate },
] as const
const ALL = 'all'
const chosen = ref<Record<string, string>>({})
const options = computed(() =>
  FILTERS.map((f) => ({
    ...f,
    values: [ALL, ...new Set((book.value?.cases ?? []).map((c) => f.of(c)).sort())].map((v) => ({
      id: v,
      word: v,
    })),
  })),
)
const shown = computed(() =>
  (book.value?.cases ?? []).filter((c) =>
    FILTERS.every((f) => (chosen.value[f.id] ?? ALL) === ALL || chosen.value[f.id] === f.of(c)),
  ),
)
</script>

<template>
  <WhenLoaded
    :data="book"
    :error="failure"
    :empty="
      book?.cases.length === 0
        ? {
            title: 'No decision yet.',
            hint: 'Decide on a cause in a lesson; what became of it is kept here.',
          }
        : null
    "
    @retry="load"
  >
    <div>
      <div class="filters" role="group" aria-label="Which cases">
        <ChooseOne
          v-for="f in options"
          :key="f.id"
          :name="f.word"
          :options="f.values"
          :on="chosen[f.id] ?? ALL"
          @chosen="(v) => (chosen[f.id] = v)"
        />
      </div>
      <p v-if="shown.length === 0" class="quiet">No case is like that.</p>
      <table v-else>
        <thead>
          <tr>
            <th scope="col">When</th>
            <th scope="col">Student</th>
            <th scope="col">Ball flight</th>
            <th scope="col">Club</th>
            <th scope="col">Decided</th>
            <th scope="col">The ranking had first</th>
            <th scope="col">What became of it</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="c in shown" :key="c.lesson_id">
            <td>{{ dayWord(c.decided_at) }}</td>
            <td>
              <router-link :to="{ name: 'lesson', params: { id: c.lesson_id, stage: 'decide' } }">{{
                c.student_name
              }}</router-link>
            </td>
            <td>{{ capital(c.shape ?? 'not seen') }}</td>
            <td>{{ clubName(c.club) }}</td>
            <td class="strong">{{ name(c.cause, c) }}</td>
            <td>
              {{
                c.agreed
                  ? 'the same'
                  : c.ranked_first
                    ? name(c.ranked_first, c)
                    : 'nothing had been seen'
              }}
            </td>
            <td>{{ fateWords(c) }}</td>
          </tr>
        </tbody>
      </table>
      <v-btn v-if="hasNextPage" variant="text" @click="fetchNextPage()">Show older ones</v-btn>
    </div>
  </WhenLoaded>
</template>

<style scoped>
.filters {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 20px;
  margin-bottom: 10px;
}
.filters label {
  display: grid;
  font-size: var(--text-small);
}
.filters > * {
  min-width: 150px;
}
td:first-child,
td:nth-child(4) {
  white-space: nowrap;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th,
td {
  text-align: left;
  padding: 10px 12px 10px 0;
  border-bottom: 1px solid var(--line);
}
a {
  color: inherit;
}
@media (max-width: 700px) {
  table {
    display: block;
    overflow-x: auto;
  }
}
</style>
