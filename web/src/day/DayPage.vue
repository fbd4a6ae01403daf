<script setup lang="ts">
// The day: who was here, who comes, and the way into a lesson.
import NotBackedUp from '@/day/NotBackedUp.vue'
import { computed, ref, useTemplateRef } from 'vue'
import { useRouter } from 'vue-router'
import type { Lesson, Student } from '@/api/client'
import { useOutbox } from '@/sync/outbox'
import BookedList from '@/day/BookedList.vue'
import AvatarMark from '@/day/AvatarMark.vue'
import DueList from '@/day/DueList.vue'
import LessonList from '@/day/LessonList.vue'
import StudentForm from '@/day/StudentForm.vue'
import { useDay } from '@/day/useDay'
import type { Stage } from '@/lesson/stages'
import { dayWord } from '@/ui/dates'
import SettingsMenu from '@/ui/SettingsMenu.vue'
import { handicapWord } from '@/ui/handicap'
import StateMessage from '@/ui/StateMessage.vue'

const router = useRouter()
const outbox = useOutbox()
const wanted = ref<string | null>('')
const { day, named, isMore, failure, problem, busy, load, begin, takeUp, openFile } = useDay(wanted)
const adding = ref(false)
const chooser = useTemplateRef<HTMLInputElement>('chooser')
const empty = computed(() => day.value?.students.length === 0)

function go(lesson: Lesson | null, stage: Stage = 'listen'): void {
  if (lesson) void router.push({ name: 'lesson', params: { id: lesson.id, stage } })
}
const showArchived = ref(false)
/** Every word that is typed begins some word of the name. */
const found = computed(() => {
  const words = (wanted.value ?? '').toLocaleLowerCase().split(/\s+/).filter(Boolean)
  const listed = day.value?.students ?? []
  const there = new Set(listed.map((s) => s.id))
  const others = isMore.value ? (named.value ?? []).filter((s) => !there.has(s.id)) : []
  return [...listed, ...others].filter(({ name, archived }) => {
    const parts = name.toLocaleLowerCase().split(/[\s-]+/)
    const fits = words.every((w) => parts.some((p) => p.startsWith(w)))
    return fits && (!archived || showArchived.value || words.length > 0)
  })
})
/** Nobody is typed: those who were here last, so that one who comes often needs no search. */
const listed = computed(() => {
  if ((wanted.value ?? '').trim() !== '' || everyone.value) return found.value
  const order = [...new Set((day.value?.lessons ?? []).map((l) => l.student_id))]
  const place = (id: string) => (order.indexOf(id) + 1 || order.length + 1) - 1
  return [...found.value].sort((a, b) => place(a.id) - place(b.id)).slice(0, FEW)
})
const FEW = 6
const everyone = ref(false)
const all = ref(false)
const isToday = (at: string) => new Date(at).toDateString() === new Date().toDateString()
const today = computed(() =>
  (day.value?.lessons ?? [])
    .filter((l) => isToday(l.started_at))
    .sort((a, b) => a.started_at.localeCompare(b.started_at)),
)
const earlier = computed(() => (day.value?.lessons ?? []).filter((l) => !isToday(l.started_at)))
const before = computed(() => (all.value ? earlier.value : earlier.value.slice(0, FEW)))
const todayWord = dayWord(new Date().toISOString())
const archived = computed(() => day.value?.students.filter((s) => s.archived).length ?? 0)
async function added(student: Student): Promise<void> {
  adding.value = false
  const waits = outbox.waiting('').some((w) => w.id === student.id)
  if (waits) {
    wanted.value = student.name // nothing can be read of them yet, but a lesson can begin
    return
  }
  await load()
  void router.push({ name: 'student', params: { id: student.id } })
}
async function chosen(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (file) go(await openFile(file), 'shots')
  input.value = ''
}
function detail(student: Student): string {
  const parts = [student.handedness === 'left' ? 'left-handed' : 'right-handed']
  if (student.handicap !== null) parts.push(`handicap ${handicapWord(student.handicap)}`)
  if (student.age_group !== 'adult') parts.push(student.age_group)
  if (student.limits.length > 0) parts.push('limits flagged')
  if (student.archived) parts.push('archived')
  return parts.join(' · ')
}
</script>

<template>
  <main class="page">
    <header class="top">
      <div>
        <h1>Firm Footing</h1>
        <p class="quiet">From ball, divot and strike to the feet behind them</p>
      </div>
      <div class="actions">
        <v-btn color="primary" variant="flat" @click="adding = true">New student</v-btn>
        <v-btn @click="chooser?.click()">Open a case file</v-btn>
        <v-btn variant="text" to="/casebook">Casebook</v-btn>
        <v-btn variant="text" to="/map">Map</v-btn>
        <SettingsMenu />
      </div>
      <input
        ref="chooser"
        class="hidden"
        type="file"
        accept=".json,application/json"
        aria-label="Case file"
        @change="chosen"
      />
    </header>
    <NotBackedUp />
    <v-alert v-if="problem" type="error" variant="tonal" class="mb-4" role="alert">
      {{ problem.message }} {{ problem.hint }}
    </v-alert>
    <v-card v-if="adding" class="pa-5 mb-6" variant="outlined">
      <h2 class="mb-4">New student</h2>
      <StudentForm @saved="added" @cancelled="adding = false" />
    </v-card>
    <StateMessage
      v-if="failure"
      inside
      kind="error"
      :title="failure.message"
      :hint="failure.hint"
      @retry="load"
    />
    <StateMessage v-else-if="!day" inside kind="loading" title="Looking up the day" />
    <StateMessage
      v-else-if="empty && !adding"
      inside
      kind="empty"
      title="Nobody is here yet."
      hint="Add a student to begin a lesson, or open a case file from a colleague."
    />
    <div v-if="day && !empty && !failure" class="columns">
      <div class="side">
        <BookedList
          v-if="day.booked.length"
          :booked="day.booked"
          :busy="busy"
          @begin="(b) => takeUp(b.lesson_id).then(go)"
        />
        <section aria-labelledby="today">
          <h2 id="today">Today, {{ todayWord }}</h2>
          <p v-if="today.length === 0" class="quiet none">
            No lesson yet today. Find the student, then begin one.
          </p>
          <LessonList v-else :lessons="today" with-names by-time />
        </section>
        <section aria-labelledby="before">
          <h2 id="before">Before today</h2>
          <LessonList :lessons="before" with-names />
          <v-btn v-if="earlier.length > FEW" variant="text" @click="all = !all">
            {{ all ? 'Show the newest' : `Show all ${earlier.length}` }}
          </v-btn>
        </section>
      </div>
      <div class="side">
        <DueList v-if="day.due.length" :due="day.due" />
        <section aria-labelledby="students">
          <h2 id="students">Students</h2>
          <v-text-field
            v-model="wanted"
            label="Find a student"
            type="search"
            density="comfortable"
            hide-details
            clearable
          />
          <p v-if="found.length === 0" class="quiet none">
            {{ wanted?.trim() ? 'Nobody is called that.' : 'All students are archived.' }}
          </p>
          <ul class="students">
            <li v-for="student in listed" :key="student.id">
              <AvatarMark :name="student.name" />
              <router-link class="who" :to="{ name: 'student', params: { id: student.id } }">
                <span class="strong">{{ student.name }}</span>
                <span class="quiet">{{ detail(student) }}</span>
              </router-link>
              <v-btn
                :disabled="busy"
                :aria-label="`New lesson with ${student.name}`"
                @click="begin(student).then(go)"
              >
                New lesson
              </v-btn>
            </li>
          </ul>
          <v-btn v-if="!wanted && found.length > FEW" variant="text" @click="everyone = !everyone">
            {{ everyone ? 'Show fewer' : `Show ${found.length}` }}
          </v-btn>
          <p v-if="isMore && !wanted" class="quiet">
            {{ day.of }} students in all: type a name to find the others.
          </p>
          <v-btn
            v-if="archived > 0 && !wanted"
            variant="text"
            @click="showArchived = !showArchived"
          >
            {{ showArchived ? 'Hide' : 'Show' }} {{ archived }} archived
          </v-btn>
        </section>
      </div>
    </div>
  </main>
</template>

<style scoped>
.top {
  display: flex;
  flex-wrap: wrap;
  gap: 16px;
  justify-content: space-between;
  align-items: center;
  padding-bottom: 16px;
  margin-bottom: 20px;
  border-bottom: 2px solid var(--ink);
}
.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
}
.hidden {
  display: none;
}
h1 {
  font-size: var(--text-head);
}
h2 {
  font-size: var(--text-title);
  margin-bottom: 8px;
}
.columns {
  display: grid;
  grid-template-columns: 3fr 2fr;
  gap: 36px;
}
.side {
  display: grid;
  align-content: start;
  gap: 28px;
}
.students {
  list-style: none;
  padding: 0;
}
.students li {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 12px;
  border-bottom: 1px solid var(--line);
  padding: 6px 0;
}
.none {
  padding: 12px 0;
}
.who {
  display: grid;
  flex: 1;
  padding: 6px 0;
  color: inherit;
  text-decoration: none;
}
.who:hover .strong {
  text-decoration: underline;
}
@media (max-width: 860px) {
  .columns {
    grid-template-columns: 1fr;
  }
}
</style>
