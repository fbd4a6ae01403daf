<script setup lang="ts">
// What speaks for a cause and against it, and what fits it but another cause explains better.
import { computed } from 'vue'
import type { CauseRank } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import { useLessonContext } from '@/lesson/lessonContext'
import { capital } from '@/ui/words'
const { open, lesson, words } = useLessonContext()

const props = withDefaults(defineProps<{ cause: CauseRank; most?: number }>(), { most: 4 })
const LEAST_BITS = 0.2
const FULL_BAR_BITS = 4
const known = useKnowledge()
const worth = (list: CauseRank['for']) =>
  list.filter((e) => Math.abs(e.bits) >= LEAST_BITS).slice(0, props.most)
const sides = computed(() => [
  { title: 'Speaks for it', list: worth(props.cause.for) },
  { title: 'Speaks against it', list: worth(props.cause.against) },
])
const better = computed(() => props.cause.better_explained.slice(0, 2))
const width = (bits: number) => `${Math.min(100, (100 * Math.abs(bits)) / FULL_BAR_BITS)}%`
/** Why it counts for another: it is a sight of that cause, or that cause explains it better. */
function explainedBetter(e: (typeof better.value)[number]): string {
  if (e.by !== null && known.check(e.evidence)?.shows === e.by)
    return 'it is another cause that was seen'
  return `${name(e.by)} explains it better`
}
/** What an earlier lesson found counts like any other evidence, until somebody takes it away. */
const isOfThePast = (evidence: string) => evidence.startsWith('history:')
function leaveThePastOut(): void {
  open.changeLesson({ listen: { ...lesson.value.listen, past_left_out: true } })
}
function name(id: string | null): string {
  const cause = id === null ? undefined : known.cause(id)
  return cause ? words(`“${cause.label}”`) : 'another cause'
}
</script>

<template>
  <div class="evidence">
    <template v-for="side in sides" :key="side.title">
      <p v-if="side.list.length" class="strong">{{ side.title }}</p>
      <ul v-if="side.list.length">
        <li v-for="e in side.list" :key="e.evidence">
          <span class="bits" aria-hidden="true"><span :style="{ width: width(e.bits) }" /></span>
          <span>
            {{ words(e.text) }}
            <v-btn
              v-if="isOfThePast(e.evidence)"
              size="small"
              variant="text"
              aria-label="Leave out what earlier lessons found"
              @click="leaveThePastOut"
              >Leave it out</v-btn
            >
          </span>
        </li>
      </ul>
    </template>
    <p v-for="e in better" :key="e.evidence" class="quiet">
      {{ capital(words(e.text)) }} fits it too, but {{ explainedBetter(e) }}.
    </p>
    <p v-if="!sides[0]?.list.length && !sides[1]?.list.length && !better.length" class="quiet">
      Nothing noted so far speaks for it or against it.
    </p>
  </div>
</template>

<style scoped>
.evidence {
  display: grid;
  gap: 3px;
  font-size: var(--text-small);
}
ul {
  list-style: none;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 40px 1fr;
  align-items: baseline;
  gap: 8px;
}
.bits {
  height: 8px;
}
.bits span {
  display: block;
  height: 100%;
  min-width: 3px;
  border-radius: 2px;
  background: var(--ink);
}
</style>
