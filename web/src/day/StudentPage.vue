<script setup lang="ts">
// A student: who they are and their lessons.
import { forgetReadLately } from '@/api/readLately'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { ApiError, ask, client, type Student } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import AvatarMark from '@/day/AvatarMark.vue'
import LessonList from '@/day/LessonList.vue'
import StudentForm from '@/day/StudentForm.vue'
import ProgressTable from '@/day/ProgressTable.vue'
import { useDay } from '@/day/useDay'
import SettingsMenu from '@/ui/SettingsMenu.vue'
import { dayWord } from '@/ui/dates'
import { handicapWord } from '@/ui/handicap'
import StateMessage from '@/ui/StateMessage.vue'

const props = defineProps<{ id: string }>()
const router = useRouter()
const known = useKnowledge()
const { begin, busy, problem } = useDay()
const params = { path: { student_id: props.id } }
const key = ['student', props.id]
const queries = useQueryClient()
const {
  data,
  error: failure,
  refetch: load,
} = useQuery({
  queryKey: key,
  queryFn: async () => {
    const [student, lessons] = await Promise.all([
      ask(client.GET('/api/students/{student_id}', { params })),
      ask(client.GET('/api/students/{student_id}/lessons', { params })),
    ])
    return { student, lessons }
  },
})
const student = computed(() => data.value?.student ?? null)
const lessons = computed(() => data.value?.lessons ?? [])
const deleting = ref(false)
const editing = ref(false)

async function start(): Promise<void> {
  if (student.value === null) return
  const lesson = await begin(student.value)
  if (lesson) void router.push({ name: 'lesson', params: { id: lesson.id, stage: 'listen' } })
}
function changed(to: Student): void {
  queries.setQueryData(key, { student: to, lessons: lessons.value })
}
function saved(to: Student): void {
  changed(to)
  editing.value = false
}
async function archive(archived: boolean): Promise<void> {
  try {
    changed(await ask(client.PATCH('/api/students/{student_id}', { params, body: { archived } })))
  } catch (error) {
    problem.value = error as ApiError
  }
}
async function remove(): Promise<void> {
  try {
    await ask(client.DELETE('/api/students/{student_id}', { params }))
    await forgetReadLately()
    void router.push('/')
  } catch (error) {
    problem.value = error as ApiError
    deleting.value = false
  }
}
/** "knee, left, since 3 Mar": what to respect. */
function limitWords({ limits, limit_details: details }: Student): string {
  const names = new Map(known.knowledge?.cautions.limits.map((l) => [l.id, l.name.toLowerCase()]))
  const said = limits.map((l) => {
    const { side, since } = details[l] ?? {}
    const parts = [names.get(l) ?? l, side === 'both' ? 'both sides' : side]
    if (since) parts.push(`since ${dayWord(since)}`)
    return parts.filter(Boolean).join(', ')
  })
  return said.join('; ')
}
</script>

<template>
  <main class="page">
    <p><router-link to="/">The day</router-link></p>
    <StateMessage
      v-if="failure"
      kind="error"
      :title="failure.message"
      :hint="failure.hint"
      @retry="load"
    />
    <StateMessage v-else-if="!student" kind="loading" title="Looking up the student" />
    <template v-else>
      <header class="top">
        <AvatarMark :name="student.name" />
        <div class="about">
          <h1>{{ student.name }}</h1>
          <p class="quiet">
            {{ student.handedness === 'left' ? 'Left-handed' : 'Right-handed' }}
            <template v-if="student.handicap !== null">
              · handicap {{ handicapWord(student.handicap) }}</template
            >
            <template v-if="student.age_group !== 'adult'"> · {{ student.age_group }}</template>
          </p>
          <p v-if="student.about">{{ student.about }}</p>
          <p v-if="student.limits.length">Respect: {{ limitWords(student) }}</p>
        </div>
        <div class="actions">
          <v-btn color="primary" variant="flat" :loading="busy" @click="start">New lesson</v-btn>
          <v-btn @click="editing = !editing">Edit</v-btn>
          <SettingsMenu />
        </div>
      </header>
      <p v-if="student.archived" class="archived" role="note">
        Archived: not in the list of the day; everything is kept.
        <v-btn variant="text" @click="archive(false)">Bring back</v-btn>
      </p>
      <v-card v-if="editing" class="pa-5 mb-6" variant="outlined">
        <StudentForm :student="student" @saved="saved" @cancelled="editing = false" />
      </v-card>
      <p v-if="problem" role="alert">{{ problem.message }} {{ problem.hint }}</p>
      <h2>Lessons</h2>
      <LessonList :lessons="lessons" />
      <ProgressTable :student="student" />
      <section class="danger">
        <template v-if="!deleting">
          <v-btn v-if="!student.archived" variant="text" @click="archive(true)">Archive</v-btn>
          <v-btn variant="text" @click="deleting = true">Delete this student</v-btn>
        </template>
        <v-card v-else variant="outlined" class="pa-4">
          <p class="strong">Delete {{ student.name }} with all {{ lessons.length }} lessons?</p>
          <p>
            This cannot be undone. What you want to keep can be saved first, as one case file for
            each lesson.
          </p>
          <div class="actions mt-3">
            <v-btn :href="`/api/students/${id}/cases.zip`" download>Save all lessons</v-btn>
            <v-btn color="error" @click="remove">Delete for good</v-btn>
            <v-btn variant="text" @click="deleting = false">Keep</v-btn>
          </div>
        </v-card>
      </section>
    </template>
  </main>
</template>

<style scoped>
.top {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 16px;
  padding: 8px 0 16px;
  margin-bottom: 20px;
  border-bottom: 2px solid var(--ink);
}
.about {
  flex: 1;
}
.archived {
  margin-bottom: 16px;
}
.actions {
  display: flex;
  gap: 12px;
  align-items: center;
}
h1 {
  font-size: var(--text-head);
}
h2 {
  font-size: var(--text-title);
  margin-bottom: 8px;
}
.danger {
  margin-top: 40px;
}
a {
  color: inherit;
}
</style>
