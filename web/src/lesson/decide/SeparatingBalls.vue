<script setup lang="ts">
// A few balls with one thing changed: what each of the two causes predicts, then what came.
import { newId } from '@/sync/page'
import { computed } from 'vue'
import type { Diagnosis } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import { useSeparating } from '@/lesson/decide/useApart'
import { useLessonContext } from '@/lesson/lessonContext'
import { capital, changeWords, count, timesWord } from '@/ui/words'

const block = defineModel<string | null>('block', { required: true })
const props = defineProps<{
  diagnosis: Diagnosis
}>()
const known = useKnowledge()
const { open, lesson, hand, words } = useLessonContext()

const cause = (id: string) => words(known.link(id))

const { found, problem } = useSeparating(open, () => {
  const [one, other] = props.diagnosis.decision_status.leading
  return one && other ? { one, other } : null
})
const current = computed(() => lesson.value.blocks.findIndex((b) => b.id === block.value))
const trial = computed(() => {
  const shown = lesson.value.blocks[current.value]
  return shown?.kind === 'trial' ? shown : null
})
const verdict = computed(() => props.diagnosis.trial_results.find((v) => v.block === current.value))
const planned = computed(() => {
  const drill = trial.value?.drill
  return found.value?.find((b) => !drill || b.drill === drill) ?? null
})
const shown = computed(() => verdict.value ?? planned.value)
const drill = computed(() => known.drill(shown.value?.drill))

const counted = computed(() => {
  if (verdict.value) return `${count(verdict.value.balls, 'ball')} hit`
  if (!planned.value) return ''
  const tenths = Math.round(planned.value.tells * 10)
  return `${count(planned.value.balls, 'ball')}, tells right about ${String(tenths)} times in 10`
})

function begin(): void {
  const like = lesson.value.blocks.find((b) => b.kind === 'baseline')
  if (!planned.value || !like) return
  const id = newId()
  const { club, surface, expected_carry_m } = like
  const body = {
    kind: 'trial',
    club,
    surface,
    expected_carry_m,
    drill: planned.value.drill,
  } as const
  open.putBlock(id, body)
  block.value = id
}
</script>

<template>
  <div class="balls" data-testid="separating">
    <p v-if="problem" role="alert">{{ problem.message }} {{ problem.hint }}</p>
    <p v-else-if="diagnosis.ranking.pattern.balls === 0">
      Log the baseline first: the change is measured from it.
    </p>
    <p v-else-if="!shown && found">
      No short block that this student may hit would tell
      {{ diagnosis.decision_status.leading.map(cause).join(' from ') }}. A look will.
    </p>
    <template v-else-if="shown && drill">
      <p class="title">{{ words(drill.name) }}</p>
      <p class="quiet">{{ counted }}</p>
      <p v-if="!verdict" class="quiet">{{ words(drill.essence) }}</p>
      <dl>
        <dt>{{ capital(cause(shown.one)) }}</dt>
        <dd>{{ changeWords(shown.if_one, hand) }}</dd>
        <dt>{{ capital(cause(shown.other)) }}</dt>
        <dd>{{ changeWords(shown.if_other, hand) }}</dd>
        <template v-if="verdict">
          <dt class="strong">What came</dt>
          <dd class="strong">{{ changeWords(verdict.came, hand) }}</dd>
        </template>
      </dl>
      <p v-if="verdict" class="verdict" data-testid="verdict">
        {{
          capital(
            timesWord(
              verdict.bits,
              `with ${cause(verdict.one)} than with ${cause(verdict.other)}`,
              `with ${cause(verdict.other)} than with ${cause(verdict.one)}`,
            ),
          )
        }}.
      </p>
      <p v-else-if="trial" class="quiet">
        Hit them and log them as usual; the verdict comes with the first.
      </p>
      <v-btn v-else class="begin" @click="begin">Hit these {{ planned?.balls }} balls</v-btn>
    </template>
    <p v-else class="quiet">Working out what each would show</p>
  </div>
</template>

<style scoped>
.balls {
  display: grid;
  gap: 4px;
}
.title {
  font-size: var(--text-lead);
  font-weight: var(--strong);
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 2px 12px;
}
dt {
  color: var(--quiet);
}
.verdict {
  font-size: var(--text-body);
  font-weight: var(--strong);
}
.begin {
  justify-self: start;
  border-width: 2px;
}
</style>
