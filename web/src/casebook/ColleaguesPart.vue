<script setup lang="ts">
// Colleagues' casebooks: added, used or not, and put away.
import { useTemplateRef } from 'vue'
import { useLearned } from '@/casebook/useLearned'
import { count } from '@/ui/words'

const { learned, choose, add, putAway, busy, problem } = useLearned()
const chooser = useTemplateRef<HTMLInputElement>('chooser')
async function chosen(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (file) await add(file)
  input.value = ''
}
</script>

<template>
  <section v-if="learned" aria-label="Colleagues' casebooks">
    <v-switch
      v-if="learned.colleagues.length"
      :model-value="learned.pooled"
      label="Colleagues' casebooks teach how common causes are as well"
      hide-details
      color="slate"
      @update:model-value="(pooled) => choose({ pooled: pooled === true })"
    />
    <ul v-if="learned.colleagues.length">
      <li v-for="c in learned.colleagues" :key="c.id" data-testid="colleague">
        <span
          ><strong>{{ c.name }}</strong
          >: {{ count(c.outcomes, 'outcome') }} of {{ count(c.students, 'student')
          }}{{ c.known ? '' : '; made with other knowledge, and not used' }}</span
        >
        <v-btn variant="text" :aria-label="`Put away: ${c.name}`" @click="putAway(c.id)">
          Put away
        </v-btn>
      </li>
    </ul>
    <p>
      <v-btn variant="text" @click="chooser?.click()">Add a colleague's casebook</v-btn>
      <span class="quiet"
        >What they saved as “what was learned”; a newer one takes the older one's place.</span
      >
    </p>
    <input
      ref="chooser"
      hidden
      type="file"
      accept=".json,application/json"
      aria-label="A colleague's casebook"
      @change="chosen"
    />
    <p v-if="busy" role="status">Being worked out.</p>
    <p v-else-if="problem" role="alert">{{ problem.message }} {{ problem.hint }}</p>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
}
</style>
