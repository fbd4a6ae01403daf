<script setup lang="ts">
// One look, sound or unsound: the figure, the shoes, the hand or the club, posed by numbers.
import { computed } from 'vue'
import type { Handedness } from '@/api/client'
import { downTheLine, faceOn, shoes, type Pose } from '@/drawing/pose'
import PosedThings, { type Thing } from '@/drawing/PosedThings.vue'

const props = defineProps<{
  view: string
  pose: Pose
  hand: Handedness
  word: string
  things?: readonly Thing[]
}>()

const figure = computed(() => {
  if (props.view === 'down_the_line') return downTheLine(props.pose)
  return props.view === 'face_on' ? faceOn(props.pose) : null
})
const n = (name: string) => props.pose[name] ?? 0
const flip = computed(() => (props.hand === 'left' ? 'translate(100 0) scale(-1 1)' : ''))
const SHOE =
  'M-29 0C-30-9-23-12-15-11C-7-10-2-9 5-11C15-14 28-12 30-2C31 7 22 13 11 12C3 11-4 8-12 10C-22 12-28 8-29 0Z'
const feet = computed(() => shoes(props.pose))
const knuckles = computed(() => [0, 1, 2, 3].map((i) => n('knuckles') - i))
</script>

<template>
  <svg class="posed" viewBox="0 0 100 120" role="img" :aria-label="word">
    <g :transform="flip">
      <template v-if="figure">
        <line class="floor" x1="4" x2="96" y1="113" y2="113" />
        <path v-for="(limb, i) in figure.limbs" :key="i" :class="limb.kind" :d="limb.d" />
        <circle class="head" :cx="figure.head.x" :cy="figure.head.y" r="6.5" />
        <circle v-if="figure.ball" class="ball" :cx="figure.ball.x" :cy="figure.ball.y" r="3" />
      </template>
      <g v-else-if="view === 'feet'" :transform="`rotate(${n('aim')} 50 60)`">
        <g
          v-for="f in feet"
          :key="f.foot"
          :transform="`translate(${f.x} ${f.y}) rotate(${f.turn})`"
        >
          <path class="shoe" :d="SHOE" />
          <circle class="load" :cx="f.load.x" cy="0" :r="f.load.r" />
        </g>
        <circle v-if="n('ball')" class="ball" cx="94" cy="60" r="3.5" />
        <path v-if="n('up')" class="club" d="M50 74V46M43 53L50 46L57 53" />
      </g>
      <g v-else-if="view === 'hand'">
        <path class="club" d="M50 6V114" />
        <rect class="fist" x="26" y="42" width="48" height="36" rx="15" />
        <circle
          v-for="(shows, i) in knuckles"
          :key="i"
          :class="['knuckle', { hidden: shows <= 0.25 }]"
          :cx="34 + 10.5 * i"
          cy="52"
          r="4"
        />
      </g>
      <g v-else>
        <line class="floor" x1="4" x2="96" y1="86" y2="86" />
        <g :transform="`rotate(${n('tilt')} 50 84)`">
          <path class="fist" d="M22 84L30 56Q52 48 76 62L80 84Z" />
          <path class="club" d="M76 62L92 16" />
        </g>
      </g>
      <PosedThings v-if="things" :things="things" />
    </g>
  </svg>
</template>

<style scoped>
.posed {
  display: block;
  width: 62px;
  height: 74px;
}
path,
line,
circle,
rect {
  fill: none;
  stroke: var(--ink);
  stroke-width: 4;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.far {
  stroke-opacity: 0.4;
}
.arm {
  stroke-width: 3.5;
}
.club {
  stroke-width: 2;
}
.floor {
  stroke: var(--line);
  stroke-width: 1.5;
}
.head,
.knuckle {
  fill: var(--ink);
}
.ball {
  fill: var(--surface);
  stroke-width: 1.5;
}
.shoe,
.fist {
  stroke-width: 2.5;
}
.load {
  fill: var(--slate);
  fill-opacity: 0.45;
  stroke-width: 1.5;
}
.hidden {
  fill: none;
  stroke-width: 1.5;
  stroke-dasharray: 2 2;
}
</style>
