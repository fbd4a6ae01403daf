<script setup lang="ts">
// The same club and count as the baseline, number by number, ball by ball: real already, or not yet.
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import type { Diagnosis, Knowledge, Lesson, Shape } from '@/api/client'
import BeforeAfter from '@/lesson/retest/BeforeAfter.vue'
import { useRetest } from '@/lesson/useCoaching'
import type { OpenLesson } from '@/lesson/useLesson'
import { useSettings } from '@/ui/settings'
import StateMessage from '@/ui/StateMessage.vue'
import { capital, MEASURE_WORDS, retestWord } from '@/ui/words'

const props = defineProps<{
  open: OpenLesson
  lesson: Lesson
  diagnosis: Diagnosis | null
  knowledge: Knowledge
}>()
const emit = defineEmits<{ block: [id: string] }>()

const router = useRouter()
const settings = useSettings()
const retest = useRetest(props.lesson.id, () => props.diagnosis)
const found = computed(() => retest.found.value)
const hand = computed(() => props.lesson.student.handedness)
const baseline = computed(() => props.lesson.blocks.find((b) => b.kind === 'baseline'))
const retested = computed(() => props.lesson.blocks.filter((b) => b.kind === 'retest'))
const balls = computed(() => retested.value.flatMap((b) => b.shots).length)
const club = (id: string | undefined) =>
  props.knowledge.clubs.find((c) => c.id === id)?.name ?? id ?? ''
const primary = computed(() => found.value?.measures.find((m) => m.name === found.value?.primary))
const shown = computed(() => found.value?.measures.filter((m) => m.before.length > 0) ?? [])
const sentence = computed(() =>
  found.value && primary.value
    ? retestWord(found.value, primary.value, hand.value, settings.distance)
    : '',
)
const partial = computed(() => {
  const names = (ids: string[] | undefined) => (ids ?? []).map((id) => MEASURE_WORDS[id] ?? id)
  const [moved, still] = [names(found.value?.partial), names(found.value?.still)]
  if (!moved.length || !still.length || (primary.value?.after.length ?? 0) < 3) return ''
  return `${capital(moved.join(', '))} moved; ${still.join(', ')} not yet.`
})
const others = computed(() => props.knowledge.clubs.filter((c) => c.id !== baseline.value?.club))
const near = computed(() => {
  const day = props.lesson.listen.event_on
  if (!day) return false
  const days = (Date.parse(day) - Date.now()) / 86_400_000
  return days > -1 && days <= 2
})

function begin(clubId?: string): void {
  if (found.value && !found.value.fixed)
    props.open.changeLesson({
      primary: found.value.primary as NonNullable<Shape['LessonChange']['primary']>,
    })
  const there = retested.value.find((b) => b.club === (clubId ?? baseline.value?.club))
  const id = there?.id ?? crypto.randomUUID()
  if (!there)
    props.open.putBlock(id, { kind: 'retest', club: clubId ?? baseline.value?.club ?? '7i' })
  emit('block', id)
  void router.push({ name: 'lesson', params: { id: props.lesson.id, stage: 'shots' } })
}
function fix(event: Event): void {
  const name = (event.target as HTMLSelectElement).value
  props.open.changeLesson({ primary: name as NonNullable<Shape['LessonChange']['primary']> })
}
</script>

<template>
  <section class="retest" aria-label="Retest">
    <StateMessage
      v-if="retest.problem.value"
      inside
      kind="error"
      :title="retest.problem.value.message"
    />
    <StateMessage
      v-else-if="!found"
      inside
      kind="empty"
      title="No baseline yet."
      hint="Hit some balls with nothing changed first; the retest is held against them."
    />
    <template v-else>
      <div class="head">
        <div>
          <p class="verdict" role="status" data-testid="verdict">{{ sentence }}</p>
          <p v-if="partial" class="partial">{{ partial }}</p>
          <p class="quiet">
            {{ club(found.club) }} · {{ primary?.before.length ?? 0 }} balls before,
            {{ primary?.after.length ?? 0 }} after · an unchanged student would be called changed in
            at most {{ (100 * found.level).toFixed(0) }} of 100 retests
          </p>
        </div>
        <div class="acts">
          <label>
            Decided by
            <select class="native" :value="found.primary" :disabled="balls > 0" @change="fix">
              <option v-for="m in shown" :key="m.name" :value="m.name">
                {{ MEASURE_WORDS[m.name] }}
              </option>
            </select>
          </label>
          <v-btn color="primary" variant="flat" data-testid="begin-retest" @click="begin()">
            {{ balls ? 'More balls' : 'Begin the retest' }}
          </v-btn>
        </div>
      </div>
      <div class="measures">
        <BeforeAfter
          v-for="m in shown"
          :key="m.name"
          :measure="m"
          :primary="m.name === found.primary"
          :hand="hand"
          :unit="settings.distance"
        />
      </div>
      <div class="transfer">
        <h2>Then, transfer</h2>
        <p v-if="near">The event is near: only set-up changes now; no second club today.</p>
        <template v-else>
          <p>A second club, then a new target for every ball, then the course.</p>
          <select
            class="native"
            aria-label="Second club"
            @change="(e) => begin((e.target as HTMLSelectElement).value)"
          >
            <option value="">Second club …</option>
            <option v-for="c in others" :key="c.id" :value="c.id">{{ c.name }}</option>
          </select>
        </template>
        <p v-if="lesson.traces" class="quiet">
          Trace over trace:
          <router-link :to="{ name: 'lesson', params: { id: lesson.id, stage: 'pressure' } }"
            >Pressure</router-link
          >, “Laid under”.
        </p>
      </div>
    </template>
  </section>
</template>

<style scoped>
.retest {
  padding: 18px 24px;
  overflow-y: auto;
  display: grid;
  align-content: start;
  gap: 16px;
}
.head {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 16px;
}
.verdict {
  font-size: 24px;
  font-weight: 700;
}
.partial {
  font-size: 18px;
}
.acts {
  display: flex;
  align-items: center;
  gap: 12px;
}
.acts label {
  display: flex;
  align-items: center;
  gap: 8px;
}
.measures {
  display: grid;
  gap: 10px;
}
h2 {
  font-size: 18px;
}
.transfer {
  display: grid;
  gap: 6px;
  justify-items: start;
}
a {
  color: inherit;
}
</style>
