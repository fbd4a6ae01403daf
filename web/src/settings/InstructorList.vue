<script setup lang="ts">
// On the machine itself: who gives lessons here, and who of them works at this machine.
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { ask, client } from '@/api/client'
import { useAttempt } from '@/api/useAttempt'
import OneOf from '@/ui/OneOf.vue'
import { INSTRUCTORS, useInstructors } from '@/ui/useProfile'

const queries = useQueryClient()
const { data } = useInstructors()
const { busy, problem, attempt } = useAttempt()
const name = ref('')
/** Who is about to be deleted, until that is confirmed. */
const leaving = ref<string | null>(null)
const all = computed(() => data.value?.all ?? [])
const mine = computed(() => data.value?.mine?.id ?? null)
const others = computed(() => all.value.filter((i) => i.id !== mine.value))
const called = (it: { name: string }) => it.name || 'Without a name'
const words = computed(() => all.value.map((i) => ({ id: i.id, word: called(i) })))

async function done(work: () => Promise<unknown>): Promise<boolean> {
  await attempt(work)
  await queries.invalidateQueries({ queryKey: INSTRUCTORS })
  return problem.value === null
}
async function add(): Promise<void> {
  const body = { name: name.value.trim() }
  if (body.name === '') return
  if (await done(() => ask(client.POST('/api/instructors', { body })))) name.value = ''
}
const workHere = (id: string) =>
  done(() =>
    ask(
      client.PUT('/api/instructors/{instructor_id}/here', {
        params: { path: { instructor_id: id } },
      }),
    ),
  )
function remove(id: string): void {
  leaving.value = null
  void done(() =>
    ask(
      client.DELETE('/api/instructors/{instructor_id}', {
        params: { path: { instructor_id: id } },
      }),
    ),
  )
}
</script>

<template>
  <section v-if="data" class="stack" aria-labelledby="instructors">
    <h2 id="instructors">Instructors</h2>
    <p v-if="!mine" class="quiet">
      Give your name above. When more than one person gives lessons, add the others here.
    </p>
    <template v-else>
      <p class="quiet">
        Name, place, school and words follow each of them to their devices. A lesson keeps the name
        of who gave it.
      </p>
      <div v-if="all.length > 1" class="stack">
        <p class="strong">Who works at this machine</p>
        <OneOf name="Who works at this machine" :words="words" :on="mine" @chosen="workHere" />
      </div>
      <ul v-if="others.length" class="others">
        <li v-for="i in others" :key="i.id">
          <span>{{ called(i) }}</span>
          <v-btn
            v-if="leaving !== i.id"
            variant="text"
            :aria-label="`Delete ${called(i)}`"
            @click="leaving = i.id"
            >Delete</v-btn
          >
          <template v-else>
            <span class="quiet">Lessons stay, with the name.</span>
            <v-btn variant="text" @click="remove(i.id)">Delete {{ called(i) }}</v-btn>
            <v-btn variant="text" @click="leaving = null">Keep</v-btn>
          </template>
        </li>
      </ul>
      <v-form class="add" aria-label="Add an instructor" @submit.prevent="add">
        <v-text-field
          v-model="name"
          label="Name of another instructor"
          maxlength="80"
          density="compact"
          hide-details
        />
        <v-btn type="submit" :loading="busy" :disabled="name.trim() === ''">Add</v-btn>
      </v-form>
    </template>
    <p v-if="problem" role="alert" class="problem">{{ problem.message }} {{ problem.hint }}</p>
  </section>
</template>

<style scoped>
.others {
  width: 100%;
  list-style: none;
}
.others li {
  display: flex;
  align-items: center;
  justify-content: space-between;
}
.add {
  display: flex;
  align-items: center;
  gap: 12px;
  width: 100%;
}
</style>
