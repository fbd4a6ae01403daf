<script setup lang="ts">
// The turf as a strip along the target line: every divot a bar, the low point's likely place a band.
import { computed } from 'vue'
import type { LoggedShot } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import { divotOf, LIKELY, type Doubtful } from '@/drawing/marks'
import { signed } from '@/ui/units'

const known = useKnowledge()
const props = defineProps<{
  shots: LoggedShot[]
  newest: string | null
  lowPoint: Doubtful | null
  teed: boolean
}>()
defineEmits<{ chosen: [id: string] }>()

const WIDTH = 280
const HEIGHT = 150
const TOP = 22
const BOTTOM = 116
const TICKS = [-15, -10, -5, 0, 5, 10, 15]
const divots = computed(() =>
  props.shots.flatMap((shot) => {
    const divot = divotOf(shot, known.all.noting)
    return divot ? [{ id: shot.id, from: divot.startCm, to: divot.startCm + divot.lengthCm }] : []
  }),
)
/** At least 18 cm either way; more when a divot reaches further. */
const half = computed(() =>
  Math.max(18, ...divots.value.map((d) => Math.max(Math.abs(d.from), Math.abs(d.to)) + 1)),
)
const x = (cm: number) => WIDTH / 2 + (cm * WIDTH) / 2 / half.value
const step = computed(() => Math.min(9, (BOTTOM - TOP - 8) / Math.max(1, divots.value.length)))
const band = computed(() => {
  if (props.lowPoint === null) return null
  const half = LIKELY * props.lowPoint.se
  return { x: x(props.lowPoint.value - half), width: x(2 * half) - x(0) }
})
</script>

<template>
  <svg
    class="turf-strip"
    :viewBox="`0 0 ${WIDTH} ${HEIGHT}`"
    role="img"
    :aria-label="`Turf with ${divots.length} divots`"
    data-testid="turf-strip"
  >
    <rect class="turf" :y="TOP" :width="WIDTH" :height="BOTTOM - TOP" rx="8" />
    <g v-if="band">
      <rect class="low" :x="band.x" :y="TOP" :width="band.width" :height="BOTTOM - TOP" />
      <line
        class="low-line"
        :x1="x(lowPoint?.value ?? 0)"
        :x2="x(lowPoint?.value ?? 0)"
        :y1="TOP"
        :y2="BOTTOM"
      />
    </g>
    <g
      v-for="(divot, i) in divots"
      :key="divot.id"
      :class="['divot', { newest: divot.id === newest }]"
      @pointerdown="$emit('chosen', divot.id)"
    >
      <line
        class="reach"
        :x1="x(divot.from)"
        :x2="x(divot.to)"
        :y1="TOP + 8 + i * step"
        :y2="TOP + 8 + i * step"
      />
      <line
        class="mark"
        :x1="x(divot.from)"
        :x2="x(divot.to)"
        :y1="TOP + 8 + i * step"
        :y2="TOP + 8 + i * step"
      />
    </g>
    <line class="ball-line" :x1="x(0)" :x2="x(0)" :y1="TOP - 6" :y2="BOTTOM + 4" />
    <circle class="ball" :cx="x(0)" :cy="TOP - 8" r="7" />
    <text v-for="cm in TICKS" :key="cm" class="middle" :x="x(cm)" y="132">
      {{ cm === 0 ? 'ball' : signed(cm) }}
    </text>
    <text class="end" :x="WIDTH - 2" y="12">target →</text>
    <text v-if="teed && divots.length === 0" class="middle" :x="WIDTH / 2" :y="70">
      Teed: no turf is taken
    </text>
    <text v-if="lowPoint" class="middle says" :x="WIDTH / 2" y="148" data-testid="low-says">
      low point {{ signed(lowPoint.value) }} cm ± {{ lowPoint.se.toFixed(0) }}
    </text>
  </svg>
</template>

<style scoped>
.turf-strip {
  display: block;
  width: 100%;
  height: 100%;
}
.turf {
  fill: var(--turf);
}
.low {
  fill: var(--slate);
  fill-opacity: 0.28;
}
.low-line {
  stroke: var(--slate);
  stroke-width: 3;
}
.reach {
  stroke: transparent;
  stroke-width: 14;
}
.mark {
  stroke: var(--ink);
  stroke-opacity: 0.45;
  stroke-width: 4;
  stroke-linecap: round;
}
.divot {
  cursor: pointer;
}
.divot.newest .mark {
  stroke-opacity: 1;
  stroke-width: 6;
}
.ball-line {
  stroke: var(--ink);
  stroke-dasharray: 4 4;
}
.ball {
  fill: var(--surface);
  stroke: var(--ink);
  stroke-width: 2;
}
text {
  font-size: var(--text-tiny);
}
.middle {
  text-anchor: middle;
}
.end {
  text-anchor: end;
}
.says {
  font-weight: var(--strong);
  font-size: var(--text-small);
}
</style>
