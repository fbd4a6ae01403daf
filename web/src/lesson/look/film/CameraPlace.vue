<script setup lang="ts">
// Where the camera stood, asked in the open: seen from above, in steps beside its line.
import { computed } from 'vue'
import type { Handedness } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import CmField from '@/lesson/look/film/CmField.vue'
import type { useFilm } from '@/lesson/look/film/useFilm'
import { handIn } from '@/lesson/look/film/marking'
import OneOf from '@/ui/OneOf.vue'

const { ruler, hand } = defineProps<{ ruler: ReturnType<typeof useFilm>; hand: Handedness }>()
const known = useKnowledge()
const { marks } = ruler
const usual = computed(() => known.all.film.camera)
const limits = computed(() => known.all.film.limits)
const STEPS = [-60, -40, -20, 0, 20, 40, 60] as const

/** As the one behind the camera has it: left-handers are mirrored. */
const side = computed(() => (marks.value && handIn(marks.value, hand) === 'left' ? -1 : 1))
const told = computed(() => {
  const off = marks.value?.off_line_cm
  return off == null ? null : side.value * off
})
const words = STEPS.map((cm) => ({
  id: String(cm),
  word: cm === 0 ? 'on it' : `${String(Math.abs(cm))} ${cm < 0 ? 'left' : 'right'}`,
}))
const isDown = computed(() => marks.value?.view === 'down_the_line')
const place = computed(() =>
  isDown.value ? 'behind the toes, along the target line' : 'opposite the middle of the stance',
)
/** Of the drawing, for a camera so far beside. */
const at = (cm: number) => 100 + cm * 0.9
function tell(cm: number): void {
  ruler.camera('off_line_cm', side.value * cm)
}
</script>

<template>
  <section class="camera" aria-label="Where the camera stood">
    <p>
      <span class="strong">How far beside its place did the camera stand?</span>
      <span class="quiet"> Its place is {{ place }}.</span>
      <span class="quiet">
        {{
          told === null
            ? ` Nobody said: ${usual.off_line_cm.toFixed(0)} cm to either side is allowed for, and every number is less sure.`
            : told === 0
              ? ' It stood there.'
              : ` It stood ${Math.abs(told).toFixed(0)} cm to the ${told < 0 ? 'left' : 'right'} of it.`
        }}</span
      >
    </p>
    <svg
      viewBox="0 0 200 78"
      role="img"
      aria-label="From above: the student, and the camera's place"
    >
      <line x1="100" y1="16" x2="100" y2="70" class="on" />
      <circle cx="100" cy="12" r="8" class="student" />
      <g v-for="cm in STEPS" :key="cm" class="spot" @click="tell(cm)">
        <rect :x="at(cm) - 9" y="52" width="18" height="24" class="touch" />
        <rect :x="at(cm) - 6" y="60" width="12" height="9" rx="2" :class="{ here: told === cm }" />
      </g>
    </svg>
    <OneOf
      class="steps"
      name="Beside its line, cm"
      small
      :words="words"
      :on="told === null ? null : String(told)"
      @chosen="(cm) => tell(Number(cm))"
    />
    <CmField
      name="From the player, cm"
      :value="marks?.distance_cm ?? null"
      :limits="limits.distance_cm"
      :usual="usual.distance_cm.toFixed(0)"
      @typed="(cm) => ruler.camera('distance_cm', cm)"
    />
  </section>
</template>

<style scoped>
.camera {
  display: grid;
  gap: 6px;
}
svg {
  width: 100%;
  max-width: 340px;
  height: auto;
}
.on {
  stroke: var(--slate, currentColor);
  stroke-dasharray: 3 3;
}
.student {
  fill: currentColor;
}
.spot {
  cursor: pointer;
}
.spot rect {
  fill: none;
  stroke: currentColor;
}
.spot rect.touch {
  fill: transparent;
  stroke: none;
}
.spot rect.here {
  fill: currentColor;
}
.steps {
  flex-wrap: wrap;
  height: auto;
}
</style>
