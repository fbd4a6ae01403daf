<script setup lang="ts">
// Whether rankings use what the casebook taught, and beginning it anew.
import { ref } from 'vue'
import { useLearned } from '@/casebook/useLearned'
import { dayWord } from '@/ui/dates'

const { learned, choose, busy, problem } = useLearned()
/** Asked before decisions cease to teach. */
const sure = ref(false)
function anew(yes: boolean): void {
  sure.value = false
  void choose({ anew: yes })
}
</script>

<template>
  <div v-if="learned" class="choices">
    <v-switch
      :model-value="learned.use"
      :disabled="busy"
      label="Rankings use what your lessons taught"
      hide-details
      color="slate"
      @update:model-value="(use) => choose({ use: use === true })"
    />
    <p v-if="learned.since">
      Decisions before {{ dayWord(learned.since) }} teach nothing.
      <v-btn variant="text" :disabled="busy" @click="anew(false)">Let them all teach again</v-btn>
    </p>
    <p v-else-if="!sure">
      <v-btn variant="text" :disabled="busy" @click="sure = true">Begin anew from today</v-btn>
    </p>
    <p v-else role="alert">
      Decisions until now would teach nothing any more; they stay in the casebook.
      <v-btn variant="text" @click="anew(true)">Begin anew</v-btn>
      <v-btn variant="text" @click="sure = false">Leave it</v-btn>
    </p>
    <p v-if="problem" role="alert">{{ problem.message }} {{ problem.hint }}</p>
  </div>
</template>
