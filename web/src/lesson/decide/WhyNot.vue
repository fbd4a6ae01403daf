<script setup lang="ts">
// Why this cause and not that one: what separates the two, and the look that would.
import { computed, ref } from 'vue'
import type { Diagnosis } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import { useBetween } from '@/lesson/decide/useApart'
import { useLessonContext } from '@/lesson/lessonContext'
import ChooseOne from '@/ui/ChooseOne.vue'
import { timesWord } from '@/ui/words'

const props = defineProps<{
  cause: string
  diagnosis: Diagnosis
}>()
const { open, words } = useLessonContext()

const FEW = 4
const LEAST_BITS = 0.1
const known = useKnowledge()
const other = ref<string | null>(null)
const { found, problem } = useBetween(open, () =>
  other.value ? { one: props.cause, other: other.value } : null,
)
const name = (id: string) => words(known.cause(id)?.label ?? id)

const others = computed(() =>
  props.diagnosis.ranking.causes
    .filter((c) => c.id !== props.cause)
    .map((c) => ({ id: c.id, word: name(c.id) })),
)
const rows = computed(() =>
  (found.value?.evidence ?? []).filter((e) => Math.abs(e.bits) >= LEAST_BITS).slice(0, FEW),
)
const look = computed(() => {
  const first = found.value?.checks[0]
  const check = first && known.check(first.id)
  return check ? { ...first, question: words(check.question) } : null
})
</script>

<template>
  <div class="why-not" data-testid="why-not">
    <ChooseOne
      name="Why not another cause?"
      :options="others"
      :on="other"
      @chosen="(id) => (other = id)"
    />
    <p v-if="problem" role="alert">{{ problem.message }} {{ problem.hint }}</p>
    <template v-else-if="found">
      <ul>
        <li v-for="row in rows" :key="row.evidence">
          {{ words(row.text) }}:
          <span class="quiet">{{
            timesWord(row.bits, `with ${name(cause)}`, `with ${name(other ?? '')}`)
          }}</span>
        </li>
      </ul>
      <p v-if="rows.length === 0">Nothing seen so far separates the two.</p>
      <p v-if="look">
        <span class="quiet">Would tell them apart, {{ look.seconds }} s:</span> {{ look.question }}
      </p>
    </template>
  </div>
</template>

<style scoped>
.why-not {
  display: grid;
  gap: 4px;
  padding: 6px 0;
}
select {
  max-width: 260px;
}
ul {
  list-style: none;
  padding: 0;
}
</style>
