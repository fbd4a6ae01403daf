<script setup lang="ts">
// One look: the question, what to look for, its seconds, one touch to answer.
import { computed, ref } from 'vue'
import type { Answer, AnswerWord, Knowledge, Source } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import PosedFigure from '@/drawing/PosedFigure.vue'
import LastTime from '@/lesson/look/LastTime.vue'
import { useLessonContext } from '@/lesson/lessonContext'
import ChooseOne from '@/ui/ChooseOne.vue'
import OneOf from '@/ui/OneOf.vue'
import { ANSWER_WORDS, capital, MEANS_WORDS, say } from '@/ui/words'

type Check = Knowledge['checks'][number]
const props = defineProps<{
  check: Check
  answers: Answer[]
  suggested: boolean
  blockId?: string | null
}>()
const { open, hand, speaker, diagnosis } = useLessonContext()

const ALL_SOURCES: Source[] = ['look', 'film', 'mat', 'plate', 'monitor', 'feel']
const ANSWERS = (Object.keys(ANSWER_WORDS) as AnswerWord[]).map((id) =>
  id === 'unknown' ? { id, word: '?', say: ANSWER_WORDS[id] } : { id, word: ANSWER_WORDS[id] },
)
const MEANS = ALL_SOURCES.map((id) => ({ id, word: capital(MEANS_WORDS[id]) }))
const known = useKnowledge()
const figure = computed(() => known.knowledge?.figures?.find((f) => f.check === props.check.id))
const source = ref<Source>(props.answers.at(-1)?.source ?? open.sourceOf(props.check.id))
const mine = computed(() =>
  props.answers.find((a) => a.source === source.value && a.block_id === (props.blockId ?? null)),
)
const others = computed(() => props.answers.filter((a) => a !== mine.value))

/** What was answered before the stage was opened is one line; what is answered now moves nothing. */
const folded = ref(mine.value !== undefined)
const choosing = ref(false)
/** Another means corrects how it was seen; a second look by other means is said to be one. */
const again = ref(false)
function seenBy(means: Source): void {
  if (mine.value && !again.value) open.correctMeans(mine.value, means)
  source.value = means
  choosing.value = again.value = false
}
const othersSay = computed(() =>
  others.value.map((a) => {
    const when = a.block_id ? 'after, ' : props.blockId ? 'before, ' : ''
    return `${when}${MEANS_WORDS[a.source]}: ${ANSWER_WORDS[a.answer].toLowerCase()}`
  }),
)

/** What a number says of it, before or after a change; an answer by hand replaces it. */
const measured = computed(() =>
  (diagnosis.value?.measured ?? [])
    .filter((m) => m.check === props.check.id && m.after === (props.blockId != null))
    .map((m) => `Measured: ${m.text}, so ${ANSWER_WORDS[m.answer].toLowerCase()}.`),
)

/** A look that tells more than yes or no: when, and how. */
const finer = computed(() =>
  (props.check.finer ?? []).map((f, i) => ({ ...f, id: String(i), word: f.say })),
)
const told = computed(
  () =>
    finer.value.find((f) => f.answer === mine.value?.answer && f.share === mine.value.share)?.id ??
    null,
)
function tell(id: string): void {
  const said = finer.value.find((f) => f.id === id)
  if (!said) return
  open.putAnswer(props.check.id, said.answer, source.value, props.blockId ?? null, said.share)
}
function choose(word: AnswerWord): void {
  if (mine.value?.answer === word) open.deleteAnswer(mine.value.id)
  else open.putAnswer(props.check.id, word, source.value, props.blockId ?? null)
}
</script>

<template>
  <li v-if="folded && mine" class="check line">
    <span class="question">{{ say(check.question, speaker) }}</span>
    <span
      ><strong>{{ ANSWER_WORDS[mine.answer] }}</strong
      ><span class="quiet">, {{ [MEANS_WORDS[mine.source], ...othersSay].join(' · ') }}</span></span
    >
    <v-btn rounded="pill" :aria-label="`Change: ${check.question}`" @click="folded = false">
      Change
    </v-btn>
  </li>
  <li v-else :class="['check', { suggested }]">
    <div class="words">
      <p class="question">{{ say(check.question, speaker) }}</p>
      <p class="quiet small">
        <span v-if="suggested" class="tells">would tell most now · </span
        >{{ say(check.look_for, speaker) }}
        <span v-for="said in othersSay" :key="said"> · {{ said }}</span>
      </p>
      <LastTime v-if="!blockId" :check="check.id" :question="check.question" />
      <p v-for="said in measured" :key="said" class="small strong" data-testid="measured">
        {{ say(said, speaker) }}
      </p>
    </div>
    <div v-if="figure" class="figures">
      <figure>
        <PosedFigure :view="figure.view" :pose="figure.sound" :hand="hand" word="Sound" />
        <figcaption>sound</figcaption>
      </figure>
      <figure>
        <PosedFigure :view="figure.view" :pose="figure.unsound" :hand="hand" word="If yes" />
        <figcaption>if yes</figcaption>
      </figure>
    </div>
    <div class="by">
      <span class="quiet small">{{ check.seconds }} s</span>
      <ChooseOne
        v-if="choosing"
        unlabelled
        :name="`Source for: ${check.question}`"
        :options="MEANS"
        :on="source"
        @chosen="seenBy"
      />
      <v-btn
        v-else
        class="chip"
        rounded="pill"
        :aria-label="`${MEANS_WORDS[source]}: seen otherwise? ${check.question}`"
        @click="choosing = true"
      >
        {{ MEANS_WORDS[source] }}
      </v-btn>
      <v-btn
        v-if="mine && !choosing"
        class="chip"
        variant="text"
        size="small"
        :aria-label="`Seen a second time, by other means: ${check.question}`"
        @click="choosing = again = true"
      >
        and also
      </v-btn>
    </div>
    <ChooseOne
      v-if="finer.length"
      class="finer"
      name="When, and how?"
      :options="finer"
      :on="told"
      @chosen="tell"
    />
    <OneOf
      class="answers"
      :name="check.question"
      :words="ANSWERS"
      :on="mine?.answer ?? null"
      @chosen="choose"
    />
  </li>
</template>

<style scoped>
.check {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 180px 84px auto;
  align-items: center;
  gap: 4px 14px;
  padding: 6px 10px;
  border-bottom: 1px solid var(--line);
}
.check.line {
  display: flex;
  justify-content: space-between;
  min-height: 52px;
}
.line .question {
  flex: 1;
}
.chip {
  min-width: 68px;
  height: 44px;
  min-height: 44px;
  padding: 0 12px;
  font-weight: 400;
}
.figures :deep(svg) {
  width: 88px;
  height: 104px;
}
.suggested {
  background: var(--panel);
  border-radius: var(--corner);
}
.finer {
  grid-column: 1;
}
.figures {
  display: flex;
  grid-column: 2;
}
.figures figcaption {
  font-size: var(--text-tiny);
  text-align: center;
}
.by {
  grid-column: 3;
}
.answers {
  grid-column: 4;
}
.tells {
  font-weight: var(--strong);
}
.small {
  font-size: var(--text-small);
}
.by {
  display: grid;
  justify-items: end;
}
@media (max-width: 700px) {
  .check {
    grid-template-columns: 1fr auto;
  }
  .words,
  .figures,
  .finer {
    grid-column: 1 / -1;
  }
  .by {
    grid-column: 1;
  }
  .answers {
    grid-column: 2;
  }
}
</style>
