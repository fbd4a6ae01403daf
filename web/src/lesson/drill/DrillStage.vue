<script setup lang="ts">
// Drills for the cause, the bench with its ladder, and the trial balls hit meanwhile.
import { useKnowledge } from '@/api/knowledge'
import { computed } from 'vue'
import DrillBench from '@/lesson/drill/DrillBench.vue'
import DrillCard from '@/lesson/drill/DrillCard.vue'
import SetupGate from '@/lesson/drill/SetupGate.vue'
import { useLessonContext } from '@/lesson/lessonContext'
import { useBlocks } from '@/lesson/useBlocks'
import { useCoaching } from '@/lesson/useCoaching'
import StateMessage from '@/ui/StateMessage.vue'
import { count, say, timesWord } from '@/ui/words'
const known = useKnowledge()
const { open, lesson, diagnosis, speaker } = useLessonContext()

const emit = defineEmits<{ block: [id: string] }>()

const coaching = useCoaching(open)
const found = computed(() => coaching.found.value)
const blocks = useBlocks(
  open,
  () => lesson.value,
  (id) => {
    emit('block', id)
  },
)
const cause = computed(() => say(known.cause(found.value?.cause)?.name ?? '', speaker.value))
const chosen = computed(() => known.drill(lesson.value.drill) ?? null)
/** What else suits and wants something to be laid down or held: two aids may stand there at once. */
const aids = computed(() =>
  (found.value?.cards ?? [])
    .filter((c) => !c.withheld && c.drill !== lesson.value.drill)
    .flatMap((c) => known.drill(c.drill) ?? [])
    .filter((d) => d.equipment?.length),
)
const onBench = computed(() => [lesson.value.drill, lesson.value.aid])
const cautions = computed(() => [
  ...(found.value?.cards ?? [])
    .filter((c) => onBench.value.includes(c.drill))
    .flatMap((c) => c.cautions),
  ...(found.value?.cautions ?? []),
])
/** What the balls hit with the chosen drill say of the cause. */
const tried = computed(() => {
  const at = lesson.value.blocks.findIndex(
    (b) => b.kind === 'trial' && b.drill === chosen.value?.id,
  )
  const balls = lesson.value.blocks[at]?.shots.length ?? 0
  if (balls === 0) return ''
  const ranked = diagnosis.value?.ranking.causes.find((c) => c.id === found.value?.cause)
  const said = [...(ranked?.for ?? []), ...(ranked?.against ?? [])].find(
    (e) => e.evidence === `trial:${String(at)}`,
  )
  const words = said ? timesWord(said.bits) : 'they do not tell yet'
  return `${count(balls, 'ball')} with it: ${words}.`
})
const outdoors = computed(() => known.all.equipment.filter((e) => e.outdoors).map((e) => e.id))
const indoors = computed(() => outdoors.value.every((id) => lesson.value.lacking.includes(id)))

function lacks(ids: readonly string[], gone: boolean): void {
  const others = lesson.value.lacking.filter((id) => !ids.includes(id))
  open.changeLesson({ lacking: gone ? [...others, ...ids] : others })
}
</script>

<template>
  <section class="drill" aria-label="Drill">
    <StateMessage v-if="!found" inside kind="loading" title="Choosing drills" />
    <template v-else>
      <div class="left">
        <div class="for">
          <strong>
            {{ found.decided ? 'For' : 'Not decided yet; for the first of the ranking' }}:
            {{ cause }}
          </strong>
          <label class="indoors">
            <input type="checkbox" :checked="indoors" @change="lacks(outdoors, !indoors)" />
            Indoors
          </label>
        </div>
        <SetupGate :changes="found.setup_changes" @hit="blocks.hitWith" />
        <p v-if="!lesson.listen.health_asked" class="gate" role="note" data-testid="ask-health">
          Not asked yet: pain, recent injury, balance, pregnancy.
          <v-btn
            size="small"
            class="ml-2"
            @click="open.changeLesson({ listen: { ...lesson.listen, health_asked: true } })"
          >
            Asked now
          </v-btn>
          <br />
          <router-link :to="{ name: 'lesson', params: { id: lesson.id, stage: 'listen' } }"
            >Note what they said</router-link
          >
        </p>
        <p v-if="found.without_a_drill" class="gate" role="note" data-testid="without-a-drill">
          No drill for this cause suits what was flagged. {{ found.without_a_drill }}
        </p>
        <ul class="cards">
          <DrillCard
            v-for="card in found.cards"
            :key="card.drill"
            :card="card"
            :lacking="lesson.lacking"
            :chosen="card.drill === lesson.drill"
            @bench="open.changeLesson({ drill: card.drill, aid: null })"
            @lacks="(id) => lacks([id], !lesson.lacking.includes(id))"
          />
        </ul>
      </div>
      <DrillBench
        :class="['right', { busy: chosen }]"
        :drill="chosen"
        :ladder="found.ladder"
        :cautions="cautions"
        :tried="tried"
        :aids="aids"
        :speaker="speaker"
        @hit="chosen && blocks.hitWith(chosen.id)"
      />
    </template>
  </section>
</template>

<style scoped>
.drill {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  min-height: 0;
}
.left,
.right {
  min-height: 0;
  overflow-y: auto;
  padding: 16px 20px 24px;
}
.right {
  border-left: 2px solid var(--ink);
  background: var(--surface);
}
.for {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 12px;
  font-size: var(--text-lead);
  margin-bottom: 8px;
}
.indoors {
  flex: none;
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 48px;
  font-size: var(--text-body);
}
.indoors input {
  width: 22px;
  height: 22px;
}
.gate {
  padding: 8px 12px;
  margin-bottom: 8px;
  border-left: 4px solid var(--ink);
  background: var(--panel);
}
.cards {
  list-style: none;
  padding: 0;
  display: grid;
  gap: 8px;
}
a {
  color: inherit;
}
@media (max-width: 900px) {
  .drill {
    grid-template-columns: 1fr;
  }
  .right {
    border-left: 0;
    border-top: 2px solid var(--ink);
  }
  .busy {
    order: -1;
    border-top: 0;
    border-bottom: 2px solid var(--ink);
  }
}
</style>
