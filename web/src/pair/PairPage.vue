<script setup lang="ts">
// A tablet that is not paired yet: six digits from the machine's own screen, and a name for it.
import { ref } from 'vue'
import { useRoute } from 'vue-router'
import { ask, client } from '@/api/client'
import { useAttempt } from '@/api/useAttempt'

const route = useRoute()
const asked = typeof route.query.code === 'string' ? route.query.code : ''
const code = ref(/^\d{6}$/.test(asked) ? asked : '')
const name = ref('')
const { busy, problem, attempt } = useAttempt()

const codeRule = (value: string) => /^\d{6}$/.test(value) || 'The code has six digits.'
const nameRule = (value: string) => value.trim() !== '' || 'Give it a name, so that you know it.'

async function comeIn(): Promise<void> {
  if (codeRule(code.value) !== true || nameRule(name.value) !== true) return
  const body = { code: code.value, name: name.value }
  await attempt(() => ask(client.POST('/api/pairing/claim', { body })))
  if (problem.value === null) location.assign('/')
}
</script>

<template>
  <main class="page">
    <h1>Pair this device</h1>
    <p class="quiet">
      On the machine that runs Firm Footing open Settings, then “Other devices”, and show a code.
    </p>
    <v-form class="form" aria-label="Pair this device" @submit.prevent="comeIn">
      <v-text-field
        v-model="code"
        label="Code"
        inputmode="numeric"
        autocomplete="one-time-code"
        maxlength="6"
        autofocus
        :rules="[codeRule]"
        validate-on="invalid-input"
      />
      <v-text-field
        v-model="name"
        label="What this device is called"
        maxlength="80"
        :rules="[nameRule]"
        validate-on="invalid-input"
      />
      <p v-if="problem" role="alert" class="problem">{{ problem.message }} {{ problem.hint }}</p>
      <v-btn type="submit" color="primary" variant="flat" :loading="busy">Come in</v-btn>
    </v-form>
  </main>
</template>

<style scoped>
.page {
  max-width: 520px;
  margin: 8vh auto;
  padding: 24px;
  display: grid;
  gap: 16px;
}
.form {
  display: grid;
  gap: 8px;
}
</style>
