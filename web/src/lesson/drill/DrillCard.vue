<script setup lang="ts">
// One drill on the table: how it looks, why it fits, what it wants, what to take care of.
import { computed } from 'vue'
import type { Shape } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import DrillFigures from '@/lesson/drill/DrillFigures.vue'
import { useLessonContext } from '@/lesson/lessonContext'
import { say } from '@/ui/words'

const props = defineProps<{
  card: Shape['CardOut']
  lacking: readonly string[]
  chosen: boolean
}>()
const { speaker } = useLessonContext()
const known = useKnowledge()
defineEmits<{ bench: []; lacks: [equipment: string] }>()

const drill = computed(() => known.drill(props.card.drill))
const instead = computed(() => known.drill(props.card.instead)?.name ?? null)
const wanted = computed(() =>
  (drill.value?.equipment ?? []).map((id) => ({
    id,
    name: known.all.equipment.find((e) => e.id === id)?.name ?? id,
    here: !props.lacking.includes(id),
  })),
)
</script>

<template>
  <li
    v-if="drill"
    :class="{ on: chosen, withheld: card.withheld }"
    :data-testid="`card-${card.drill}`"
  >
    <DrillFigures class="figures" :drill="card.drill" :name="drill.name" />
    <div class="words">
      <h2>{{ say(drill.name, speaker) }}</h2>
      <template v-if="card.withheld">
        <p class="strong">Not for this student: {{ card.withheld }}.</p>
        <p v-if="instead">Instead: {{ instead }}.</p>
      </template>
      <template v-else>
        <p v-if="card.pros.length" class="quiet small">{{ card.pros.join(' · ') }}</p>
        <p v-if="card.cons.length" class="small">
          <strong>But: {{ card.cons.join(' · ') }}.</strong>
        </p>
        <p>{{ say(drill.essence, speaker) }}</p>
        <p v-for="c in card.cautions" :key="c" class="care small">{{ c }}</p>
        <div class="acts">
          <v-btn v-if="!chosen" @click="$emit('bench')">Work on this</v-btn>
          <v-btn
            v-for="w in wanted"
            :key="w.id"
            class="kit"
            :aria-pressed="!w.here"
            @click="$emit('lacks', w.id)"
          >
            {{ w.name }}: {{ w.here ? 'here' : 'not here' }}
          </v-btn>
        </div>
      </template>
    </div>
  </li>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 4px 14px;
  padding: 10px 14px;
  border: 1.5px solid var(--line);
  border-radius: var(--corner);
  background: var(--surface);
}
.on {
  border: 3px solid var(--ink);
}
.withheld {
  background: none;
  border-style: dashed;
}
h2 {
  font-size: var(--text-lead);
}
.small {
  font-size: var(--text-small);
}
.care {
  padding-left: 8px;
  border-left: 3px solid var(--line);
}
.words {
  display: grid;
  gap: 4px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 4px;
}
.kit {
  font-weight: 400;
}
.kit[aria-pressed='true'] {
  border-style: dashed;
  font-weight: var(--strong);
}
@media (max-width: 500px) {
  li {
    grid-template-columns: 1fr;
  }
}
</style>
