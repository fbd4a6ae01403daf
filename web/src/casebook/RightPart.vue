<script setup lang="ts">
// Was it right: what was said beside what came true, by how sure it was, by miss, club and source.
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { ask, client } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import ReliabilityDrawing from '@/casebook/ReliabilityDrawing.vue'
import ShareBar from '@/casebook/ShareBar.vue'
import { KNOWN_BY_WORDS } from '@/casebook/words'
import WhenLoaded from '@/ui/WhenLoaded.vue'
import { capital, count } from '@/ui/words'

const known = useKnowledge()
const {
  data: right,
  error,
  refetch,
} = useQuery({
  queryKey: ['casebook-right'],
  queryFn: () => ask(client.GET('/api/casebook/right')),
})
const { data: book } = useQuery({
  queryKey: ['casebook-sums'],
  queryFn: () => ask(client.GET('/api/casebook')),
})
const both = computed(() =>
  right.value && book.value ? { right: right.value, book: book.value } : undefined,
)
const nothing = computed(() =>
  book.value?.decided.of === 0
    ? {
        title: 'Nothing is known yet of any decision.',
        hint: 'Hit a retest whose measure was fixed beforehand, or enter at the next lesson what came back.',
      }
    : null,
)
const FEW = 20
const parts = computed(() => {
  const found = right.value
  if (!found) return []
  return [
    { title: 'By ball flight', list: found.by_miss, word: capital },
    { title: 'By club', list: found.by_club, word: (id: string) => known.club(id)?.name ?? id },
    {
      title: 'By what says so',
      list: found.by_source,
      word: (id: string) => capital(KNOWN_BY_WORDS[id as keyof typeof KNOWN_BY_WORDS]),
    },
  ].filter((p) => p.list.length)
})
const sentence = computed(() => {
  const told = book.value?.decided
  if (!told) return ''
  const were = told.came === 1 ? 'was' : 'were'
  const few = told.of < FEW ? ' So few say little.' : ''
  const decisions = count(told.of, 'decision')
  return `Of ${decisions} whose fate is known, ${String(told.came)} ${were} confirmed.${few}`
})
</script>

<template>
  <WhenLoaded v-slot="{ data }" :data="both" :error="error" :empty="nothing" @retry="refetch">
    <section aria-label="Am I right?">
      <p class="lead" data-testid="casebook-sum">{{ sentence }}</p>
      <div class="two">
        <div>
          <div class="bars">
            <ShareBar word="All decisions" :share="data.book.decided" />
            <ShareBar word="Decided as the ranking had it" :share="data.book.first" />
            <ShareBar word="Decided against it" :share="data.book.against" />
            <p class="quiet">
              The mark is how often it came true; the band is where that lies four times in five.
              Few cases make a wide band.
            </p>
          </div>
          <template v-for="p in parts" :key="p.title">
            <h2>{{ p.title }}</h2>
            <div class="bars">
              <ShareBar
                v-for="one in p.list"
                :key="one.word"
                :word="p.word(one.word)"
                :share="one.share"
              />
            </div>
          </template>
        </div>
        <ReliabilityDrawing v-if="data.right.bands.length" :bands="data.right.bands" />
      </div>
    </section>
  </WhenLoaded>
</template>

<style scoped>
.lead {
  font-size: var(--text-title);
  margin-bottom: 12px;
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 32px;
  align-items: start;
}
.bars :deep(.share) {
  grid-template-columns: minmax(120px, 200px) minmax(60px, 1fr) 236px;
}
.bars {
  display: grid;
  gap: 8px;
}
@media (max-width: 700px) {
  .bars :deep(.share) {
    grid-template-columns: 1fr;
  }
}
@media (max-width: 1000px) {
  .two {
    grid-template-columns: 1fr;
  }
}
</style>
