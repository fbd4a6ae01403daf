<script setup lang="ts">
// Decisions and what became of them: the cases, whether they were right, what pays, what was learned.
import CasesPart from '@/casebook/CasesPart.vue'
import LearnedPart from '@/casebook/LearnedPart.vue'
import PaysPart from '@/casebook/PaysPart.vue'
import RightPart from '@/casebook/RightPart.vue'

const props = defineProps<{ part?: string }>()
const PARTS = [
  { id: '', word: 'Cases', shows: CasesPart },
  { id: 'right', word: 'Am I right?', shows: RightPart },
  { id: 'pays', word: 'What pays', shows: PaysPart },
  { id: 'learned', word: 'What was learned', shows: LearnedPart },
] as const
const isHere = (id: string) => id === (props.part ?? '')
</script>

<template>
  <main class="page">
    <p><router-link to="/">The day</router-link></p>
    <h1>Casebook</h1>
    <nav aria-label="Parts of the casebook">
      <v-btn
        v-for="p in PARTS"
        :key="p.id"
        :variant="isHere(p.id) ? 'flat' : 'text'"
        :color="isHere(p.id) ? 'slate' : undefined"
        :class="{ here: isHere(p.id) }"
        :active="false"
        :aria-current="isHere(p.id) ? 'page' : undefined"
        :to="{ name: 'casebook', params: p.id ? { part: p.id } : {} }"
        >{{ p.word }}</v-btn
      >
    </nav>
    <template v-for="p in PARTS" :key="p.id">
      <component :is="p.shows" v-if="isHere(p.id)" />
    </template>
  </main>
</template>

<style scoped>
h1 {
  font-size: var(--text-head);
}
nav {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin: 8px 0 18px;
}
nav .here {
  color: var(--paper) !important; /* the link's own colour is for words on paper */
}
.page :deep(h2) {
  font-size: var(--text-title);
  margin: 22px 0 8px;
}
a {
  color: inherit;
}
</style>
