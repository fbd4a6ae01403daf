<script setup lang="ts">
// Whether rankings use what the casebook taught, and beginning it anew.
import { nextTick, ref, useTemplateRef } from 'vue'
import { useLearned } from '@/casebook/useLearned'
import { dayWord } from '@/ui/dates'

const { learned, choose, problem } = useLearned()
/** Asked before decisions cease to teach. */
const sure = ref(false)
const anewLine = useTemplateRef<HTMLElement>('anewLine')
/** The keyboard goes on where the button was that has given way to another. */
async function onwards(): Promise<void> {
  await nextTick()
  anewLine.value?.querySelector('button')?.focus()
}
function ask(yes: boolean): void {
  sure.value = yes
  void onwards()
}
async function anew(yes: boolean): Promise<void> {
  sure.value = false
  await choose({ anew: yes })
  await onwards()
}
</script>

<template>
  <div v-if="learned">
    <v-switch
      :model-value="learned.use"
      label="Rankings and drills use what your lessons taught"
      hide-details
      color="slate"
      @update:model-value="(use) => choose({ use: use === true })"
    />
    <div ref="anewLine">
      <p v-if="learned.since">
        Decisions before {{ dayWord(learned.since) }} teach nothing.
        <v-btn variant="text" @click="anew(false)">Let them all teach again</v-btn>
      </p>
      <p v-else-if="!sure">
        <v-btn variant="text" @click="ask(true)">Begin anew from today</v-btn>
      </p>
      <p v-else role="alert">
        Decisions until now would teach nothing any more; they stay in the casebook.
        <v-btn variant="text" @click="anew(true)">Begin anew</v-btn>
        <v-btn variant="text" @click="ask(false)">Leave it</v-btn>
      </p>
    </div>
    <p v-if="problem" role="alert">{{ problem.message }} {{ problem.hint }}</p>
  </div>
</template>
