<script setup lang="ts">
// A set-up that is off is changed first: three balls with the change, before any foot drill.
import { computed } from 'vue'
import type { Handedness, Knowledge, Shape } from '@/api/client'
import { capital } from '@/ui/words'
import { useSpeaker } from '@/ui/useSpeaker'

const props = defineProps<{
  knowledge: Knowledge
  changes: Shape['SetupChangeOut'][]
  hand: Handedness
}>()
const emit = defineEmits<{ hit: [drill: string] }>()

const { words } = useSpeaker(() => props.hand)
const shown = computed(() =>
  props.changes.map((change) => ({
    ...change,
    label: props.knowledge.checks.find((c) => c.id === change.check)?.label ?? change.check,
    change: props.knowledge.drills.find((d) => d.id === change.drill)?.essence ?? '',
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
  border-left: 4px solid rgb(var(--v-theme-ink));
  background: rgb(var(--v-theme-panel));
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
