<script setup lang="ts">
// One look: the question, what to look for, its seconds, one touch to answer.
import { computed, ref } from 'vue'
import type { Answer, AnswerWord, Knowledge, Source } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import PosedFigure from '@/drawing/PosedFigure.vue'
import { useOpenLesson } from '@/lesson/openLesson'
import { ANSWER_WORDS, say } from '@/ui/words'

type Check = Knowledge['checks'][number]
const props = defineProps<{
  check: Check
  answers: Answer[]
  suggested: boolean
  blockId?: string | null
}>()
const { open, hand, speaker } = useOpenLesson()

const ALL_SOURCES: Source[] = ['look', 'film', 'mat', 'plate', 'monitor', 'feel']
const known = useKnowledge()
const figure = computed(() => known.knowledge?.figures?.find((f) => f.check === props.check.id))
const source = ref<Source>(props.answers.at(-1)?.source ?? props.check.sources[0] ?? 'look')
const mine = computed(() =>
  props.answers.find((a) => a.source === source.value && a.block_id === (props.blockId ?? null)),
)
const others = computed(() => props.answers.filter((a) => a !== mine.value))

/** What was answered before the stage was opened is one line; what is answered now moves nothing. */
const folded = ref(mine.value !== undefined)
const choosing = ref(false)
const othersSay = computed(() =>
  others.value.map((a) => {
    const when = a.block_id ? 'after, ' : props.blockId ? 'before, ' : ''
    return `${when}${a.source}: ${ANSWER_WORDS[a.answer].toLowerCase()}`
  }),
)

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
      ><span class="quiet">, by {{ [mine.source, ...othersSay].join(' · ') }}</span></span
    >
    <button
      type="button"
      class="chip"
      :aria-label="`Change: ${check.question}`"
      @click="folded = false"
    >
      Change
    </button>
  </li>
  <li v-else :class="['check', { suggested }]">
    <div class="words">
      <p class="question">{{ say(check.question, speaker) }}</p>
      <p class="quiet small">
        <span v-if="suggested" class="tells">would tell most now · </span
        >{{ say(check.look_for, speaker) }}
        <span v-for="said in othersSay" :key="said"> · {{ said }}</span>
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
      <span class="quiet small">{{ check.seconds }} s, by</span>
      <select
        v-if="choosing"
        v-model="source"
        class="native"
        :aria-label="`Source for: ${check.question}`"
        @change="choosing = false"
      >
        <option v-for="s in ALL_SOURCES" :key="s" :value="s">{{ s }}</option>
      </select>
      <button
        v-else
        type="button"
        class="chip"
        :aria-label="`${source}: by another means? ${check.question}`"
        @click="choosing = true"
      >
        {{ source }}
      </button>
    </div>
    <div class="answers" role="group" :aria-label="check.question">
      <button
        v-for="(label, word) in ANSWER_WORDS"
        :key="word"
        type="button"
        :class="{ on: mine?.answer === word }"
        :aria-pressed="mine?.answer === word"
        @click="choose(word)"
      >
        {{ word === 'unknown' ? '?' : label
        }}<span v-if="word === 'unknown'" class="d-sr-only">{{ label }}</span>
      </button>
    </div>
  </li>
</template>

<style scoped>
.check {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 180px 84px auto;
  align-items: center;
  gap: 4px 14px;
  padding: 6px 10px;
  border-bottom: 1px solid rgb(var(--v-theme-line));
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
  min-height: 44px;
  padding: 0 12px;
  border: 1.5px solid rgb(var(--v-theme-line));
  border-radius: 22px;
  background: rgb(var(--v-theme-surface));
}
.figures :deep(svg) {
  width: 88px;
  height: 104px;
}
.suggested {
  background: rgb(var(--v-theme-panel));
  border-radius: 8px;
}
.figures {
  display: flex;
  grid-column: 2;
}
.figures figcaption {
  font-size: 12px;
  text-align: center;
}
.by {
  grid-column: 3;
}
.answers {
  grid-column: 4;
}
.tells {
  font-weight: 700;
}
.small {
  font-size: 14px;
}
.by {
  display: grid;
  justify-items: end;
}
.answers {
  display: flex;
}
.answers button {
  min-width: 52px;
  min-height: 48px;
  padding: 0 8px;
  border: 1.5px solid rgb(var(--v-theme-ink));
  background: rgb(var(--v-theme-surface));
}
.answers button + button {
  border-left: 0;
}
.answers button:first-child {
  border-radius: 10px 0 0 10px;
}
.answers button:last-child {
  border-radius: 0 10px 10px 0;
}
.answers .on {
  background: rgb(var(--v-theme-ink));
  color: rgb(var(--v-theme-surface));
  font-weight: 700;
}
@media (max-width: 700px) {
  .check {
    grid-template-columns: 1fr auto;
  }
  .words {
    grid-column: 1 / -1;
  }
  .figures {
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
