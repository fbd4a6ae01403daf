<script setup lang="ts">
// The chain from the foot to the ball, drawn downward: each link on its own step.
import { useKnowledge } from '@/api/knowledge'
import { useLessonContext } from '@/lesson/lessonContext'
import { computed } from 'vue'
import { capital } from '@/ui/words'

const props = defineProps<{
  chain: readonly string[]
}>()
const { words } = useLessonContext()
const known = useKnowledge()
const STEP_PX = 26
const LEFT_PX = 12
const links = computed(() =>
  props.chain.map((id, i) => ({
    id,
    word: capital(words(known.link(id))),
    y: 14 + i * STEP_PX,
    isCause: i === 0,
  })),
)
const height = computed(() => 14 + (props.chain.length - 1) * STEP_PX + 14)
</script>

<template>
  <svg
    class="chain"
    width="100%"
    :height="height"
    role="img"
    :aria-label="`From the cause to the ball: ${links.map((l) => l.word).join(', then ')}`"
  >
    <line :x1="LEFT_PX" y1="14" :x2="LEFT_PX" :y2="height - 20" />
    <path
      class="tip"
      :d="`M${LEFT_PX - 5} ${height - 24}L${LEFT_PX} ${height - 14}L${LEFT_PX + 5} ${height - 24}`"
    />
    <g v-for="link in links" :key="link.id">
      <circle :class="{ first: link.isCause }" :cx="LEFT_PX" :cy="link.y" r="6" />
      <text :x="LEFT_PX + 16" :y="link.y + 5" :class="{ strong: link.isCause }">
        {{ link.word }}
      </text>
    </g>
  </svg>
</template>

<style scoped>
.chain {
  display: block;
  overflow: visible;
}
line,
.tip {
  stroke: var(--ink);
  stroke-width: 2;
  fill: none;
}
circle {
  fill: var(--surface);
  stroke: var(--ink);
  stroke-width: 2;
}
.first {
  fill: var(--ink);
}
text {
  font-size: var(--text-small);
}
.strong {
  font-weight: var(--strong);
}
</style>
