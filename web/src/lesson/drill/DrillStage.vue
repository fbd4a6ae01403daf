<script setup lang="ts">
// Drills for the cause, the bench with its ladder, and the trial balls hit meanwhile.
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import type { Diagnosis, Knowledge, Lesson } from '@/api/client'
import DrillBench from '@/lesson/drill/DrillBench.vue'
import { useCoaching } from '@/lesson/useCoaching'
import type { OpenLesson } from '@/lesson/useLesson'
import { useSettings } from '@/ui/settings'
import StateMessage from '@/ui/StateMessage.vue'
import { say } from '@/ui/words'

const props = defineProps<{
  open: OpenLesson
  lesson: Lesson
  diagnosis: Diagnosis | null
  knowledge: Knowledge
}>()
const emit = defineEmits<{ block: [id: string] }>()

const router = useRouter()
const settings = useSettings()
const speaker = computed(() => ({ hand: props.lesson.student.handedness, sides: settings.sides }))
const coaching = useCoaching(props.lesson.id, () => props.diagnosis)
const found = computed(() => coaching.found.value)
const drill = (id: string | null) => props.knowledge.drills.find((d) => d.id === id) ?? null
const cause = computed(() =>
  say(props.knowledge.causes.find((c) => c.id === found.value?.cause)?.name ?? '', speaker.value),
)
const cards = computed(() =>
  (found.value?.cards ?? []).flatMap((card) => {
    const known = drill(card.drill)
    return known ? [{ ...card, known, insteadOf: drill(card.instead ?? null)?.name ?? null }] : []
  }),
)
const chosen = computed(() => drill(props.lesson.drill))
const limitNames = computed(
  () => new Map(props.knowledge.cautions.limits.map((l) => [l.id, l.name.toLowerCase()])),
)
const setupFirst = computed(() =>
  (found.value?.change_setup_first ?? []).map(
    (id) => props.knowledge.checks.find((c) => c.id === id)?.label ?? id,
  ),
)

/** Balls with the drill in force, as a block of their own. */
function hitBalls(): void {
  if (!chosen.value) return
  const { blocks } = props.lesson
  const there = blocks.find((b) => b.kind === 'trial' && b.drill === chosen.value?.id)
  const id = there?.id ?? crypto.randomUUID()
  if (!there) {
    const club = blocks.find((b) => b.kind === 'baseline')?.club ?? '7i'
    props.open.putBlock(id, { kind: 'trial', drill: chosen.value.id, club })
  }
  emit('block', id)
  void router.push({ name: 'lesson', params: { id: props.lesson.id, stage: 'shots' } })
}
</script>

<template>
  <section class="drill" aria-label="Drill">
    <StateMessage v-if="!found" inside kind="loading" title="Choosing drills" />
    <template v-else>
      <div class="left">
        <p class="for">
          <strong
            >{{ found.decided ? 'For' : 'Not decided yet; for the first of the ranking' }}:
            {{ cause }}</strong
          >
        </p>
        <p v-if="setupFirst.length" class="gate" role="note">
          Set-up first: {{ setupFirst.join(', ') }}. Change that and hit three balls before any foot
          drill.
        </p>
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
        <ul class="cards">
          <li
            v-for="card in cards"
            :key="card.drill"
            :class="{ on: card.drill === lesson.drill, withheld: card.withheld }"
            :data-testid="`card-${card.drill}`"
          >
            <h2>
              {{ card.known.name }}
              <span v-if="card.because.length" class="quiet small">{{
                card.because.join(' · ')
              }}</span>
            </h2>
            <p v-if="card.withheld" class="strong">
              Kept back: {{ card.withheld }}.
              <template v-if="card.insteadOf">Instead: {{ card.insteadOf }}.</template>
            </p>
            <template v-else>
              <p>{{ say(card.known.essence, speaker) }}</p>
              <p class="quiet small">
                <template v-if="card.known.equipment?.length"
                  >Needs {{ card.known.equipment.join(', ') }}.
                </template>
                <template v-if="card.known.limits?.length"
                  >Leave out when unsure:
                  {{ card.known.limits.map((l) => limitNames.get(l)).join(', ') }}.</template
                >
              </p>
              <v-btn
                v-if="card.drill !== lesson.drill"
                class="mt-1"
                @click="open.changeLesson({ drill: card.drill })"
              >
                To the bench
              </v-btn>
            </template>
          </li>
        </ul>
      </div>
      <DrillBench
        :class="['right', { busy: chosen }]"
        :open="open"
        :lesson="lesson"
        :drill="chosen"
        :ladder="found.ladder"
        :cautions="found.cautions"
        :speaker="speaker"
        @hit="hitBalls"
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
  border-left: 2px solid rgb(var(--v-theme-ink));
  background: rgb(var(--v-theme-surface));
}
.for {
  font-size: 18px;
  margin-bottom: 8px;
}
.gate {
  padding: 8px 12px;
  margin-bottom: 8px;
  border-left: 4px solid rgb(var(--v-theme-ink));
  background: rgb(var(--v-theme-panel));
}
.cards {
  list-style: none;
  padding: 0;
  display: grid;
  gap: 8px;
}
.cards li {
  padding: 10px 14px;
  border: 1.5px solid rgb(var(--v-theme-line));
  border-radius: 10px;
  background: rgb(var(--v-theme-surface));
}
.cards .on {
  border: 3px solid rgb(var(--v-theme-ink));
}
.cards .withheld {
  background: none;
  border-style: dashed;
}
h2 {
  font-size: 18px;
}
.small {
  font-size: 14px;
  font-weight: 400;
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
    border-top: 2px solid rgb(var(--v-theme-ink));
  }
  .busy {
    order: -1;
    border-top: 0;
    border-bottom: 2px solid rgb(var(--v-theme-ink));
  }
}
</style>
