<script setup lang="ts">
// Where practitioners disagree: one choice for each question, each school named with its sentence.
import type { Knowledge, Lesson } from '@/api/client'
import { SCHOOL_QUESTIONS } from '@/ui/words'

type School = Lesson['school']
const props = defineProps<{ knowledge: Knowledge; school: School }>()
const emit = defineEmits<{ change: [school: School] }>()

const items = (key: keyof School) =>
  props.knowledge.schools[key].options.map((o) => ({
    title: o.name,
    value: o.id,
    props: { subtitle: o.sentence },
  }))
function choose(key: keyof School, value: string): void {
  emit('change', { ...props.school, [key]: value } as School)
}
</script>

<template>
  <v-select
    v-for="q in SCHOOL_QUESTIONS"
    :key="q.key"
    :label="q.title"
    :items="items(q.key)"
    :model-value="school[q.key]"
    @update:model-value="(v: string) => choose(q.key, v)"
  />
</template>
