<script setup lang="ts">
// The swings recorded, one to be shown; the odd one out is named, and those made with a drill.
import { useLessonContext } from '@/lesson/lessonContext'
import type { Trace } from '@/lesson/pressure/useTraces'

const chosen = defineModel<string | null>({ required: true })
const props = defineProps<{ traces: readonly Trace[]; odd: string | null }>()
const { lesson } = useLessonContext()

function word(trace: Trace): string {
  if (trace.id === props.odd) return 'odd one out'
  const block = lesson.value.blocks.find((b) => b.id === trace.block_id)
  return block && block.kind !== 'baseline' ? block.kind : ''
}
</script>

<template>
  <div v-if="traces.length" class="tape" role="group" aria-label="Traces">
    <button
      v-for="(t, i) in traces"
      :key="t.id"
      type="button"
      :class="{ on: t.id === chosen, odd: t.id === odd }"
      :aria-pressed="t.id === chosen"
      :title="t.name || `Trace ${i + 1}`"
      @click="chosen = t.id"
    >
      <span class="number">{{ i + 1 }}</span>
      <span v-if="word(t)" class="small">{{ word(t) }}</span>
    </button>
  </div>
</template>

<style scoped>
.tape {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
button {
  min-width: 48px;
  min-height: 48px;
  padding: 0 8px;
  border: 1.5px solid var(--line);
  border-radius: var(--corner);
  background: var(--surface);
}
.odd {
  border-style: dashed;
}
.on {
  background: var(--ink);
  color: var(--surface);
}
.small {
  display: block;
  font-size: var(--text-tiny);
}
</style>
