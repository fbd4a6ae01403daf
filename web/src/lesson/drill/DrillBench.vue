<script setup lang="ts">
// The bench: repetitions are tapped by the pass sign, not by the ball; the ladder moves by itself.
import { computed } from 'vue'
import type { Knowledge, Shape } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import DrillFigures from '@/lesson/drill/DrillFigures.vue'
import RepetitionTaps from '@/lesson/drill/RepetitionTaps.vue'
import { useLessonContext } from '@/lesson/lessonContext'
import ChooseOne from '@/ui/ChooseOne.vue'
import { say, type Speaker } from '@/ui/words'

const props = defineProps<{
  drill: Knowledge['drills'][number] | null
  ladder: Shape['LadderOut'] | null
  cautions: string[]
  tried: string
  speaker: Speaker
  /** Other drills of the cause whose aid may stand there too. */
  aids: Knowledge['drills']
}>()
const known = useKnowledge()
const { open, lesson } = useLessonContext()
defineEmits<{ hit: [] }>()

const said = computed(() => {
  const ladder = props.ladder
  if (!ladder) return ''
  const row = ladder.in_a_row
  const run =
    row > 0 ? `${String(row)} right in a row` : row < 0 ? `${String(-row)} not yet in a row` : ''
  return {
    begin: 'Begin here.',
    stay: run ? `${run}.` : 'Stay on this step.',
    up: 'Up a step.',
    down: 'Down a step.',
    done: 'Right on the last step: on to the retest.',
    reopen: 'It fails without a ball: swap the drill, or reopen the cause.',
  }[ladder.said]
})
const WITH_BALL = { none: 'without a ball', some: 'balls in the later steps', all: 'with a ball' }
/** What it is for, what it wants, and where. */
const facts = computed(() => {
  const drill = props.drill
  if (!drill) return ''
  const causes = drill.targets.flatMap((id) => known.cause(id)?.label ?? [])
  const wanted = known.all.equipment.filter((e) => drill.equipment?.includes(e.id))
  const open = wanted.some((e) => e.outdoors)
  return [
    `For: ${causes.join(', ')}`,
    `needs ${wanted.map((e) => e.name).join(', ') || 'nothing'}`,
    WITH_BALL[drill.ball],
    open ? 'outdoors only' : 'indoors or out',
  ]
    .map((words) => say(words, props.speaker))
    .join(' · ')
})
const aid = computed(() => known.drill(lesson.value.aid) ?? null)
const aidWords = computed(() => [
  { id: '', word: 'none' },
  ...props.aids.map((d) => ({ id: d.id, word: d.name })),
])
</script>

<template>
  <div data-testid="bench">
    <template v-if="drill && ladder">
      <div class="shown">
        <div>
          <h2>{{ say(drill.name, speaker) }}</h2>
          <ol class="steps">
            <li v-for="step in drill.steps" :key="step">{{ say(step, speaker) }}</li>
          </ol>
          <p class="quiet">A common mistake: {{ say(drill.mistake, speaker) }}</p>
          <p v-if="drill.on_course" class="quiet">
            On the course: {{ say(drill.on_course.say, speaker) }}
          </p>
        </div>
        <DrillFigures large :drill="drill.id" :name="drill.name" />
      </div>
      <template v-if="drill.feel">
        <p class="pass"><strong>In the feel, right when:</strong> {{ say(drill.feel, speaker) }}</p>
        <p class="quiet">It may be larger than the real swing.</p>
        <p class="pass">
          <strong>In the real swing, right when:</strong> {{ say(drill.pass_sign, speaker) }}
        </p>
      </template>
      <p v-else class="pass"><strong>Right when:</strong> {{ say(drill.pass_sign, speaker) }}</p>
      <p class="quiet">
        Not yet when: {{ drill.fail_signs.map((f) => say(f, speaker)).join(' ') }}
      </p>
      <p v-if="ladder.before" class="quiet" data-testid="goes-on">
        The steps go on where they stood in the last lesson.
      </p>
      <ol class="ladder" aria-label="Steps">
        <li
          v-for="(s, i) in ladder.steps"
          :key="s.say"
          :class="{ on: i === ladder.at }"
          :aria-current="i === ladder.at ? 'step' : undefined"
        >
          {{ s.say }}
          <small>{{ s.speed_pct }} % of full speed, {{ s.times }} in a row</small>
        </li>
      </ol>
      <p class="said" role="status" data-testid="ladder">{{ said }}</p>
      <RepetitionTaps :drill="drill.id" :ladder="ladder" />
      <p v-if="tried" data-testid="tried">{{ tried }}</p>
      <p class="quiet">Where the ball goes does not count here.</p>
      <p class="quiet">{{ facts }}</p>
      <div v-if="aids.length" class="aid">
        <ChooseOne
          name="A second aid beside it"
          :options="aidWords"
          :on="aid?.id ?? ''"
          @chosen="(id) => open.changeLesson({ aid: id || null })"
        />
        <p v-if="aid" data-testid="second-aid">
          {{ say(aid.essence, speaker) }}
          <strong>Right when, too:</strong> {{ say(aid.pass_sign, speaker) }}
        </p>
      </div>
      <div class="acts">
        <v-btn v-if="drill.ball !== 'none'" @click="$emit('hit')">Hit balls with it</v-btn>
        <v-btn variant="text" @click="open.changeLesson({ drill: null })">{{
          ladder.said === 'reopen' ? 'Choose another drill' : 'Done with this drill'
        }}</v-btn>
        <v-btn
          v-if="ladder.said === 'reopen'"
          :to="{ name: 'lesson', params: { id: lesson.id, stage: 'decide' } }"
          >Reopen the cause</v-btn
        >
      </div>
    </template>
    <p v-else class="quiet">Choose a drill: its repetitions are counted here.</p>
    <h2 class="care">Take care</h2>
    <ul class="cautions">
      <li v-for="c in cautions" :key="c">{{ c }}</li>
    </ul>
  </div>
</template>

<style scoped>
h2 {
  font-size: var(--text-title);
}
.shown {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 8px 16px;
}
.shown > :first-child {
  flex: 1 1 280px;
}
.pass {
  font-size: var(--text-lead);
}
.steps {
  padding-left: 20px;
}
.ladder {
  list-style: none;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-top: 12px;
}
.ladder small {
  display: block;
  font-size: var(--text-tiny);
  font-weight: 400;
}
.ladder li {
  padding: 8px 12px;
  border: 1.5px solid var(--line);
  border-radius: var(--corner);
}
.ladder .on {
  background: var(--ink);
  color: var(--surface);
  font-weight: var(--strong);
}
.said {
  font-size: var(--text-title);
  font-weight: var(--strong);
  margin-top: 8px;
  min-height: 2.7em; /* two lines, so that what is tapped below never moves */
  line-height: 1.3;
}
.aid {
  display: grid;
  gap: 6px;
  margin-top: 10px;
  max-width: 460px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  margin-top: 12px;
}
.care {
  font-size: var(--text-body);
  margin-top: 20px;
}
.cautions {
  padding-left: 18px;
  font-size: var(--text-small);
}
</style>
