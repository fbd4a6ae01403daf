<script setup lang="ts">
// A set-up that is off is changed first: three balls with the change, before any foot drill.
import { computed } from 'vue'
import type { Shape } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import { useLessonContext } from '@/lesson/lessonContext'
import { capital } from '@/ui/words'

const props = defineProps<{
  changes: Shape['SetupChangeOut'][]
}>()
const { words } = useLessonContext()
const known = useKnowledge()
const emit = defineEmits<{ hit: [drill: string] }>()

const shown = computed(() =>
  props.changes.map((change) => ({
    ...change,
    label: known.check(change.check)?.label ?? change.check,
    change: known.drill(change.drill)?.essence ?? '',
  })),
)
</script>

<template>
  <div v-if="shown.length" class="gate" role="note" data-testid="setup-gate">
    <strong>Set-up before feet.</strong>
    <div v-for="s in shown" :key="s.check" class="change">
      <span>
        {{ capital(words(s.label)) }}.
        <template v-if="s.tried">Changed, {{ s.balls }} balls hit: see what they say.</template>
        <template v-else>{{ words(s.change) }}</template>
      </span>
      <v-btn v-if="s.drill && !s.tried" @click="emit('hit', s.drill)">
        {{ s.balls ? `${s.balls} of ${s.wanted} balls hit` : `Change it, hit ${s.wanted} balls` }}
      </v-btn>
    </div>
  </div>
</template>

<style scoped>
.gate {
  display: grid;
  gap: 6px;
  padding: 10px 12px;
  margin-bottom: 8px;
  border-left: 4px solid var(--ink);
  background: var(--panel);
}
.change {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 6px 12px;
}
.change span {
  flex: 1 1 240px;
}
</style>
