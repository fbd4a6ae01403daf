<script setup lang="ts">
// Another block of balls: of which kind? It takes over club, ground and carry of the one shown.
import { newId } from '@/sync/page'
import { computed, ref, watch } from 'vue'
import type { Block } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import { useLessonContext } from '@/lesson/lessonContext'
import ChooseOne from '@/ui/ChooseOne.vue'

const props = defineProps<{
  block: Block
}>()
const known = useKnowledge()
const { open, lesson } = useLessonContext()
const emit = defineEmits<{ begun: [id: string] }>()

const asking = ref(false)
const drill = ref<string | null>(null)
const drills = computed(() => known.all.drills.map((d) => ({ id: d.id, word: d.name })))
watch(asking, () => {
  drill.value = lesson.value.drill
})

function begin(kind: Block['kind']): void {
  const id = newId()
  const { club, surface, teed, expected_carry_m } = props.block
  const changed = kind === 'trial' ? { drill: drill.value } : {}
  open.putBlock(id, { kind, ...changed, club, surface, teed, expected_carry_m })
  asking.value = false
  emit('begun', id)
}
</script>

<template>
  <v-menu v-model="asking" :close-on-content-click="false" location="bottom start">
    <template #activator="{ props: activator }">
      <v-btn v-bind="activator" variant="text" size="small">New block</v-btn>
    </template>
    <v-card tag="section" aria-label="New block" class="kinds pa-4" width="340">
      <p class="strong">What are the next balls?</p>
      <v-btn @click="begin('baseline')">
        More baseline <small>As they swing now; counted with the first balls.</small>
      </v-btn>
      <v-btn @click="begin('retest')">
        Retest <small>Without help, to compare with the baseline.</small>
      </v-btn>
      <ChooseOne
        name="Drill of the next balls"
        :options="drills"
        :on="drill"
        @chosen="(id) => (drill = id)"
      />
      <v-btn :disabled="!drill" @click="begin('trial')">
        Hit balls with it <small>They show what the drill changes.</small>
      </v-btn>
    </v-card>
  </v-menu>
</template>

<style scoped>
.kinds {
  display: grid;
  gap: 10px;
}
.kinds .v-btn {
  height: auto;
  min-height: 56px;
  justify-content: start;
  text-align: left;
}
.kinds .v-btn :deep(.v-btn__content) {
  display: grid;
  justify-items: start;
  white-space: normal;
}
small {
  font-size: var(--text-small);
  font-weight: 400;
}
</style>
