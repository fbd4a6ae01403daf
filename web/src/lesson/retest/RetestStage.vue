<script setup lang="ts">
// The same club and count as the baseline, number by number, ball by ball: real already, or not yet.
import { computed, ref } from 'vue'
import type { Shape } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import FlightsCompared from '@/drawing/FlightsCompared.vue'
import { useLessonContext } from '@/lesson/lessonContext'
import BeforeAfter from '@/lesson/retest/BeforeAfter.vue'
import ShareBeforeAfter from '@/lesson/retest/ShareBeforeAfter.vue'
import TraceOverTrace from '@/lesson/retest/TraceOverTrace.vue'
import TransferBlock from '@/lesson/retest/TransferBlock.vue'
import { expectedCarryM } from '@/lesson/shots/expectedCarry'
import { useBlocks } from '@/lesson/useBlocks'
import { useRetest } from '@/lesson/useCoaching'
import ChooseOne from '@/ui/ChooseOne.vue'
import { useSettings } from '@/ui/settings'
import StateMessage from '@/ui/StateMessage.vue'
import { capital, count } from '@/ui/words'

type Compared = Shape['ComparedOut']
const known = useKnowledge()
const { open, lesson, diagnosis, hand } = useLessonContext()

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
  expectedCarryM(
    of('baseline')[0]?.club ?? '',
    lesson.value.blocks,
    known.all,
    diagnosis.value?.usual_carry_m,
  ),
)
const club = (id: string | undefined) => known.club(id)?.name ?? id ?? ''
const counted = (m: Compared) => [...m.before, ...m.after, ...m.first].some((v) => v > 0)
/** What the baseline shows; of the shares those that ever counted, and the one that decides. */
const shown = computed(() =>
  (found.value?.measures ?? []).filter(
    (m) => m.before.length > 0 && (!m.share || counted(m) || m.name === found.value?.primary),
  ),
)
const inOrder = computed(() => [
  ...shown.value.filter((m) => m.name === found.value?.primary),
  ...shown.value.filter((m) => m.name !== found.value?.primary),
])
const measures = computed(() => shown.value.map((m) => ({ id: m.name, word: capital(m.word) })))
const power = computed(() => {
  const now = found.value
  if (!now || after.value.length > 0 || now.power < 0.05) return ''
  const often = Math.round(10 * now.power)
  return ` · half mended, a student would be called better by it in ${String(often)} of 10 retests of ${String(now.balls)} balls`
})
const predicted = computed(() => {
  const at = (name: string) => found.value?.measures.find((m) => m.name === name)?.predicted ?? null
  const startDeg = at('start_deg')
  if (startDeg === null) return null
  return { startDeg, curveDeg: at('curve_deg'), carryM: at('carry_m') ?? expectedM.value }
})
const decides = (m: Compared) => m.name === found.value?.primary

// what was chosen here stands, also before the answer to it has come back
const chosen = ref<string | null>(null)
function begin(clubId?: string, ownTargets = false): void {
  if (found.value && !found.value.fixed && !chosen.value && after.value.length === 0)
    open.changeLesson({ primary: found.value.primary })
  blocks.retest(clubId ?? found.value?.club, ownTargets)
}
function fix(measure: string): void {
  chosen.value = measure
  open.changeLesson({ primary: measure })
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
          <p class="verdict" role="status" data-testid="verdict">{{ found.headline }}</p>
          <p v-for="said in found.more" :key="said" class="more" data-testid="more-said">
            {{ said }}
          </p>
          <p v-if="found.since_first" class="more" data-testid="since-first">
            {{ found.since_first }}
          </p>
          <p v-if="found.chosen_late" class="more" data-testid="chosen-late">
            {{ found.chosen_late }} The sheet says so too.
          </p>
          <p class="quiet">
            {{ club(found.club) }} · {{ count(before.length, 'ball') }} before,
            {{ after.length }} after · an unchanged student would be called changed in at most
            {{ (100 * found.level).toFixed(0) }} of 100 retests{{ power }}
          </p>
        </div>
        <div class="acts">
          <ChooseOne name="Decided by" :options="measures" :on="found.primary" @chosen="fix" />
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
          <template v-for="m in inOrder" :key="m.name">
            <ShareBeforeAfter v-if="m.share" :measure="m" :decides="decides(m)" />
            <BeforeAfter v-else :measure="m" :decides="decides(m)" :unit="settings.distance" />
          </template>
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
.more {
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
