<script setup lang="ts">
// How a drill begins, when it is right, when not yet: the posed figure once for each.
import { computed } from 'vue'
import { useKnowledge } from '@/api/knowledge'
import PosedFigure from '@/drawing/PosedFigure.vue'
import { useLessonContext } from '@/lesson/lessonContext'

const props = defineProps<{
  drill: string
  name: string
  large?: boolean
}>()
const { hand } = useLessonContext()
const known = useKnowledge()
const WORDS = { start: 'start', right: 'right', not_yet: 'not yet' } as const
const moments = computed(() => known.all.drill_figures.filter((f) => f.drill === props.drill))
</script>

<template>
  <div :class="['moments', { large }]">
    <figure v-for="m in moments" :key="m.word">
      <PosedFigure
        :view="m.view"
        :pose="m.pose"
        :things="m.things"
        :hand="hand"
        :word="`${name}: ${WORDS[m.word]}`"
      />
      <figcaption>{{ WORDS[m.word] }}</figcaption>
    </figure>
  </div>
</template>

<style scoped>
.moments {
  display: flex;
  gap: 4px;
}
figcaption {
  font-size: var(--text-tiny);
  text-align: center;
}
.large {
  gap: 16px;
}
.large :deep(svg) {
  width: 112px;
  height: 134px;
}
.large figcaption {
  font-size: var(--text-small);
}
</style>
