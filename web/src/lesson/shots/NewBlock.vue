<script setup lang="ts">
// Another block of balls: of which kind? It takes over club, ground and carry of the one shown.
import { ref, watch } from 'vue'
import type { Block } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import { useOpenLesson } from '@/lesson/openLesson'

const props = defineProps<{
  block: Block
}>()
const known = useKnowledge()
const { open, lesson } = useOpenLesson()
const emit = defineEmits<{ begun: [id: string] }>()

const asking = ref(false)
const drill = ref('')
watch(asking, () => {
  drill.value = lesson.value.drill ?? ''
})

function begin(kind: Block['kind']): void {
  const id = crypto.randomUUID()
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
      <button v-bind="activator" class="another" type="button">New block</button>
    </template>
    <v-card tag="section" aria-label="New block" class="kinds pa-4" width="340">
      <p class="strong">What are the next balls?</p>
      <button type="button" @click="begin('baseline')">
        More baseline <small>As they swing now; counted with the first balls.</small>
      </button>
      <button type="button" @click="begin('retest')">
        Retest <small>Without help, to compare with the baseline.</small>
      </button>
      <label>
        With a drill
        <select v-model="drill" class="native" aria-label="Drill of the next balls">
          <option value="" disabled>choose one</option>
          <option v-for="d in known.all.drills" :key="d.id" :value="d.id">{{ d.name }}</option>
        </select>
      </label>
      <button type="button" :disabled="drill === ''" @click="begin('trial')">
        Hit balls with it <small>They show what the drill changes.</small>
      </button>
    </v-card>
  </v-menu>
</template>

<style scoped>
.another {
  padding: 0;
  min-height: 40px;
  text-decoration: underline;
}
.kinds {
  display: grid;
  gap: 10px;
}
.kinds button {
  display: grid;
  min-height: 52px;
  padding: 4px 14px;
  border: 2px solid rgb(var(--v-theme-ink));
  border-radius: 10px;
  text-align: left;
  font-weight: 700;
}
.kinds button:disabled {
  border-color: rgb(var(--v-theme-line));
  color: rgb(var(--v-theme-line));
}
small {
  font-size: 14px;
  font-weight: 400;
}
label {
  display: grid;
  font-size: 15px;
}
</style>
