<script setup lang="ts">
// The looks that together tell most in three minutes, by standing place; answered in a row.
import { useQuery } from '@tanstack/vue-query'
import { computed, onUnmounted, ref, watch } from 'vue'
import { ask, client } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import ByMeans from '@/lesson/decide/ByMeans.vue'
import AnswerButtons from '@/lesson/decide/AnswerButtons.vue'
import { useLessonContext } from '@/lesson/lessonContext'
import { ANSWER_WORDS, capital, count, VIEW_WORDS } from '@/ui/words'

const known = useKnowledge()
const { open, lesson, words } = useLessonContext()

/** A round stays as it was planned while its looks are answered. */
const rounds = ref(0)
const { data: round, error: problem } = useQuery({
  queryKey: computed(() => ['lesson', open.id, 'round', rounds.value]),
  queryFn: () => {
    const params = { path: { lesson_id: open.id } }
    return ask(client.GET('/api/lessons/{lesson_id}/round', { params }))
  },
  staleTime: Infinity,
  gcTime: 0,
})
/** Looks that could not be told before and are asked again. */
const askedAgain = ref(new Set<string>())
const answered = (id: string) =>
  !askedAgain.value.has(id) && lesson.value.answers.some((a) => a.check_id === id && !a.block_id)
watch(open.lastAnswer, (last) => {
  if (last) askedAgain.value.delete(last.check)
})
const looks = computed(() =>
  (round.value?.checks ?? []).flatMap((look) => {
    const check = known.check(look.id)
    return check ? [{ ...look, check, done: answered(look.id) }] : []
  }),
)
const said = (id: string) => {
  const answer = lesson.value.answers.filter((a) => a.check_id === id && !a.block_id).at(-1)
  return answer ? ANSWER_WORDS[answer.answer].toLowerCase() : ''
}
const next = computed(() => looks.value.find((l) => !l.done) ?? null)

function askAgain(): void {
  const untold = lesson.value.answers.filter((a) => a.answer === 'unknown' && !a.block_id)
  askedAgain.value = new Set(untold.map((a) => a.check_id))
}
askAgain()
function another(): void {
  rounds.value++
  askAgain()
}

watch(next, (look) => {
  open.askLook(look)
})
onUnmounted(() => {
  open.askLook(null)
})
</script>

<template>
  <div class="round" data-testid="look-round">
    <p v-if="problem" role="alert">{{ problem.message }} {{ problem.hint }}</p>
    <p v-else-if="!round" class="quiet">Choosing the looks</p>
    <p v-else-if="looks.length === 0">No further look would change where to start.</p>
    <template v-else>
      <p class="quiet">{{ count(looks.length, 'look') }} in {{ round.seconds }} s, in this order</p>
      <ol>
        <li
          v-for="(look, i) in looks"
          :key="look.id"
          :class="{ done: look.done, now: look === next }"
        >
          <span v-if="look.check.view !== looks[i - 1]?.check.view" class="place">{{
            VIEW_WORDS[look.check.view]
          }}</span>
          <span class="what"
            >{{ words(look === next ? look.check.question : capital(look.check.label))
            }}<strong v-if="look.done">: {{ said(look.id) }}</strong></span
          >
        </li>
      </ol>
      <ByMeans v-if="next" :check="next.check" />
      <AnswerButtons v-if="next" @answer="open.answerAsked" />
      <v-btn v-else class="again" variant="text" @click="another">Another round</v-btn>
    </template>
  </div>
</template>

<style scoped>
.round {
  display: grid;
  gap: 4px;
}
ol {
  list-style: none;
  padding: 0;
  display: grid;
  gap: 2px;
}
li {
  display: grid;
  grid-template-columns: 104px 1fr;
  font-size: var(--text-body);
}
.place {
  font-weight: 400;
  color: var(--quiet);
}
.what {
  grid-column: 2;
}
.now {
  font-weight: var(--strong);
}
.done {
  color: var(--quiet);
}
.again {
  justify-self: start;
}
</style>
