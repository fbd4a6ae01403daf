<script setup lang="ts">
// Where practitioners disagree: one choice for each question, each school named with its sentence.
import type { Lesson } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'

type School = Lesson['school']
const props = defineProps<{ school: School }>()
const known = useKnowledge()
const emit = defineEmits<{ change: [school: School] }>()

const items = (key: keyof School) =>
  known.all.schools[key].options.map((o) => ({
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
    v-for="(q, key) in known.all.schools"
    :key="key"
    :label="q.title"
    :items="items(key)"
    :model-value="school[key]"
    @update:model-value="(v: string) => choose(key, v)"
  />
</template>
