<script setup lang="ts">
// Which look, or which few balls, would tell the first two causes apart.
import { computed } from 'vue'
import { useKnowledge } from '@/api/knowledge'
import AnswerButtons from '@/lesson/decide/AnswerButtons.vue'
import { useBetween, useSeparating } from '@/lesson/decide/useApart'
import { useLessonContext } from '@/lesson/lessonContext'

const props = defineProps<{
  one: string
  other: string
}>()
const known = useKnowledge()
const { open, words } = useLessonContext()

const pair = () => ({ one: props.one, other: props.other })
const between = useBetween(open, pair)
const separating = useSeparating(open, pair)
const look = computed(() => {
  const best = between.found.value?.checks[0]
  return known.check(best?.id) ?? null
})
const block = computed(() => separating.found.value?.[0] ?? null)
const drill = computed(() => known.drill(block.value?.drill))
</script>

<template>
  <section class="apart" aria-label="What would tell them apart" data-testid="tell-apart">
    <h2>What would tell the first two apart</h2>
    <div class="ways">
      <div v-if="look">
        <p class="question">{{ words(look.question) }}</p>
        <p class="quiet">{{ words(look.look_for) }}</p>
        <AnswerButtons
          @answer="(a) => look && open.putAnswer(look.id, a, open.sourceOf(look.id))"
        />
      </div>
      <p v-else class="quiet">No look is left that would tell them apart.</p>
      <div v-if="block && drill">
        <p>
          <span class="strong">{{ block.balls }} balls with “{{ words(drill.name) }}”</span> would
          point to the right one about {{ Math.round(block.tells * 10) }} times in 10.
        </p>
        <p class="quiet">They are hit from the Shots stage, under “A few balls”.</p>
      </div>
    </div>
  </section>
</template>

<style scoped>
.apart {
  padding: 12px 16px;
  border: 2.5px solid var(--ink);
  border-radius: var(--corner);
  background: var(--surface);
}
h2 {
  margin-bottom: 6px;
  font-size: var(--text-body);
}
.ways {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(280px, 1fr));
  gap: 12px 28px;
}
.question {
  font-size: var(--text-lead);
  font-weight: var(--strong);
}
</style>
