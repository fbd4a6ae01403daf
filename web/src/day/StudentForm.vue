<script setup lang="ts">
// A student, new or known: a name and a hand are enough.
import { ref } from 'vue'
import { ApiError, ask, client, type Shape, type Student } from '@/api/client'
import { useAttempt } from '@/api/useAttempt'
import { useOutbox } from '@/sync/outbox'
import { newId } from '@/sync/page'
import { newStudent } from '@/sync/applyWrite'
import { changedFields } from '@/sync/changedFields'
import { useKnowledge } from '@/api/knowledge'
import LimitDetails from '@/day/LimitDetails.vue'
import { handicapWord, typedHandicap } from '@/ui/handicap'
import OneOf from '@/ui/OneOf.vue'
import { AGES, capital, HANDS } from '@/ui/words'
import { valueWord } from '@/sync/waiting/conflict'

const props = defineProps<{ student?: Student }>()
const emit = defineEmits<{ saved: [student: Student]; cancelled: [] }>()
const known = useKnowledge()
const outbox = useOutbox()

const was = props.student
const name = ref(was?.name ?? '')
const hand = ref<Student['handedness']>(was?.handedness ?? 'right')
const handicap = ref(was?.handicap == null ? '' : handicapWord(was.handicap))
const age = ref<Student['age_group']>(was?.age_group ?? 'adult')
const limits = ref<Student['limits']>(was?.limits ?? [])
const details = ref<Student['limit_details']>(was?.limit_details ?? {})
const about = ref(was?.about ?? '')
const { busy, problem, attempt } = useAttempt()
/** As it was read; what another device changed since is known once it was told. */
let before = was

const handicapRule = (value: string) =>
  typedHandicap(value) !== undefined ||
  'Write it as at the club, from +10 to 54, or leave it empty.'
const nameRule = (value: string) =>
  /[^\p{C}\p{Z}\p{M}\u115f\u1160\u2800\u3164\uffa0]/u.test(value) ||
  'Give a name, so that you find them again.'

/** Only what changed goes, with what it was: limits written down elsewhere stay. */
async function changed(from: Student, wanted: Shape['StudentChange']): Promise<Student> {
  const body = changedFields(from, wanted)
  if (body === null) return from
  const params = { path: { student_id: from.id } }
  return ask(client.PATCH('/api/students/{student_id}', { params, body }))
}

/** Without a connection the student is added here, and the server hears of it later. */
async function added(wanted: Shape['StudentChange'] & { id: string }): Promise<Student> {
  const body = { ...wanted, guardian_agreed: false } as Shape['NewStudent'] & { id: string }
  try {
    return await ask(client.POST('/api/students', { body }))
  } catch (error) {
    if (!(error instanceof ApiError) || error.status !== 0) throw error
    outbox.put({ kind: 'new-student', lesson: '', id: body.id, body })
    return newStudent(body.id, body)
  }
}

async function save(): Promise<void> {
  if (nameRule(name.value) !== true || handicapRule(handicap.value) !== true) return
  const flagged = Object.entries(details.value).filter(([id]) =>
    limits.value.some((limit) => limit === id),
  )
  const body = {
    name: name.value,
    handedness: hand.value,
    handicap: typedHandicap(handicap.value) ?? null,
    age_group: age.value,
    limits: limits.value,
    limit_details: Object.fromEntries(flagged),
    about: about.value,
  }
  const student = await attempt(() =>
    before ? changed(before, body) : added({ ...body, id: newId() }),
  )
  if (student) emit('saved', student)
  else knowOfTheOther(problem.value)
}

/** Of a field that another device changed, which Save would now write over. */
const elsewhere = ref('')
function knowOfTheOther(said: ApiError | null): void {
  elsewhere.value = ''
  if (said?.shape.code !== 'conflict' || !before) return
  const { where, theirs } = said.shape
  before = { ...before, [where]: theirs }
  const field = capital(where.replaceAll('_', ' '))
  elsewhere.value =
    `${field} was changed on another device meanwhile, to “${valueWord(theirs)}”. ` +
    'Save again to keep yours, or cancel to keep the other.'
}
</script>

<template>
  <v-form
    class="form"
    :aria-label="student ? `Edit ${student.name}` : 'New student'"
    @submit.prevent="save"
  >
    <v-text-field
      v-model="name"
      label="Name"
      autofocus
      :rules="[nameRule]"
      validate-on="invalid-input"
      maxlength="80"
    />
    <div>
      <p class="quiet">Plays</p>
      <OneOf name="Plays" :words="HANDS" :on="hand" @chosen="(h) => (hand = h)" />
    </div>
    <v-text-field
      v-model="handicap"
      label="Handicap, as at the club: 12.4 or +2"
      :rules="[handicapRule]"
      validate-on="invalid-input"
    />
    <div>
      <p class="quiet">Age</p>
      <OneOf name="Age" :words="AGES" :on="age" @chosen="(a) => (age = a)" />
    </div>
    <v-select
      v-model="limits"
      label="Bodily limits to respect (private)"
      multiple
      chips
      :items="known.knowledge?.cautions.limits ?? []"
      item-title="name"
      item-value="id"
    />
    <LimitDetails v-model="details" class="whole" :limits="limits" />
    <v-text-field v-model="about" label="About (sport, what they told you)" maxlength="2000" />
    <p v-if="age === 'junior'" class="quiet">
      A guardian agrees before film or data of a minor are taken.
    </p>
    <p v-if="problem" role="alert" class="problem">
      {{ elsewhere || `${problem.message} ${problem.hint}` }}
    </p>
    <div class="actions">
      <v-btn type="submit" color="primary" variant="flat" :loading="busy">{{
        student ? 'Save' : 'Add student'
      }}</v-btn>
      <v-btn variant="text" @click="$emit('cancelled')">Cancel</v-btn>
    </div>
  </v-form>
</template>

<style scoped>
.form {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(280px, 1fr));
  gap: 16px 20px;
  align-items: start;
}
.actions,
.whole,
.problem {
  grid-column: 1 / -1;
}
.actions {
  display: flex;
  gap: 12px;
}
</style>
