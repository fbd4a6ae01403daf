<script setup lang="ts">
// The same club and count as the baseline, number by number, ball by ball: real already, or not yet.
import { computed, ref } from 'vue'
import type { Shape } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import FlightsCompared from '@/drawing/FlightsCompared.vue'
import { useOpenLesson } from '@/lesson/openLesson'
import BeforeAfter from '@/lesson/retest/BeforeAfter.vue'
import TraceOverTrace from '@/lesson/retest/TraceOverTrace.vue'
import TransferBlock from '@/lesson/retest/TransferBlock.vue'
import { expectedCarryM } from '@/lesson/shots/expectedCarry'
import { useBlocks } from '@/lesson/useBlocks'
import { useRetest } from '@/lesson/useCoaching'
import ChooseOne from '@/ui/ChooseOne.vue'
import { useSettings } from '@/ui/settings'
import StateMessage from '@/ui/StateMessage.vue'
import { MEASURE_WORDS, retestWord } from '@/lesson/retest/measureWords'
import { capital } from '@/ui/words'
const known = useKnowledge()
const { open, lesson, hand } = useOpenLesson()

const emit = defineEmits<{ block: [id: string] }>()

const settings = useSettings()
const retest = useRetest(open)
const found = computed(() => retest.found.value)
const blocks = useBlocks(
  open,
  () => lesson.value,
  (id) => {
    emit('block', id)
  },
)
const of = (kind: string) =>
  lesson.value.blocks.filter(
    (b) => b.kind === kind && b.club === found.value?.club && !b.own_targets,
  )
const before = computed(() => of('baseline').flatMap((b) => b.shots))
const after = computed(() => of('retest').flatMap((b) => b.shots))
const expectedM = computed(() =>
  expectedCarryM(of('baseline')[0]?.club ?? '', lesson.value.blocks, known.all),
)
const club = (id: string | undefined) => known.club(id)?.name ?? id ?? ''
const primary = computed(() => found.value?.measures.find((m) => m.name === found.value?.primary))
const measures = computed(() =>
  shown.value.map((m) => ({ id: m.name, word: MEASURE_WORDS[m.name] ?? m.name })),
)
const shown = computed(() => found.value?.measures.filter((m) => m.before.length > 0) ?? [])
const sentence = computed(() =>
  found.value && primary.value
    ? retestWord(found.value, primary.value, hand.value, settings.distance)
    : '',
)
const predicted = computed(() => {
  const at = (name: string) => found.value?.measures.find((m) => m.name === name)?.predicted ?? null
  const startDeg = at('start_deg')
  if (startDeg === null) return null
  const without = lesson.value.decisions.at(-1)?.prediction?.without
  const share = (without?.carry_pct?.value ?? 100) / 100
  return { startDeg, curveDeg: at('curve_deg'), carryM: share * expectedM.value }
})
const partial = computed(() => {
  const names = (ids: string[] | undefined) => (ids ?? []).map((id) => MEASURE_WORDS[id] ?? id)
  const [moved, still] = [names(found.value?.partial), names(found.value?.still)]
  if (!moved.length || !still.length || (primary.value?.after.length ?? 0) < 3) return ''
  return `${capital(moved.join(', '))} moved; ${still.join(', ')} not yet.`
})

type Primary = NonNullable<Shape['LessonChange']['primary']>
// what was chosen here stands, also before the answer to it has come back
const chosen = ref<Primary | null>(null)
function begin(clubId?: string, ownTargets = false): void {
  if (found.value && !found.value.fixed && !chosen.value)
    open.changeLesson({ primary: found.value.primary as Primary })
  blocks.retest(clubId ?? found.value?.club, ownTargets)
}
function fix(measure: string): void {
  chosen.value = measure as Primary
  open.changeLesson({ primary: chosen.value })
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
          <ChooseOne
            name="Decided by"
            :options="measures"
            :on="found.primary"
            :disabled="after.length > 0"
            @chosen="fix"
          />
          <v-btn color="primary" variant="flat" data-testid="begin-retest" @click="begin()">
            {{ after.length ? 'More balls' : 'Begin the retest' }}
          </v-btn>
        </div>
      </div>
      <div class="both">
        <figure v-if="before.length" class="range">
          <FlightsCompared
            :hand="hand"
            :before="before"
            :after="after"
            :predicted="predicted"
            :expected-m="expectedM"
            :unit="settings.distance"
          />
          <figcaption class="quiet">
            dashed: before · ink: after<template v-if="predicted">
              · broad: predicted without the cause</template
            >
          </figcaption>
        </figure>
        <div class="measures">
          <BeforeAfter
            v-for="m in shown"
            :key="m.name"
            :measure="m"
            :decides="m.name === found.primary ? (found.verdict?.state ?? 'too_few') : null"
            :unit="settings.distance"
          />
        </div>
      </div>
      <TraceOverTrace v-if="found.traces" :compared="found.traces" />
      <p v-else-if="lesson.traces" class="quiet">
        Trace over trace: swings on the mat during the retest are laid over those before.
      </p>
      <TransferBlock :baseline-club="found.club" :near="found.setup_only" @begin="begin" />
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
  font-size: var(--text-head);
  font-weight: var(--strong);
}
.partial {
  font-size: var(--text-lead);
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
.both {
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(0, 3fr);
  gap: 16px;
}
.range {
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto;
  min-height: 340px;
}
.range svg {
  min-height: 0;
}
.measures {
  display: grid;
  align-content: start;
  gap: 4px;
}
@media (max-width: 900px) {
  .both {
    grid-template-columns: 1fr;
  }
  .range svg {
    height: 380px;
  }
}
</style>
