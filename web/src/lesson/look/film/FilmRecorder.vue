<script setup lang="ts">
// Films a swing with a camera of this device: a countdown to take the stance, then it stops itself.
import { onScopeDispose, ref, shallowRef, useTemplateRef, watch } from 'vue'
import { sentenceOf } from '@/lesson/look/film/film'
import { cameras, closeCamera, openCamera, record } from '@/lesson/look/film/recording'
import ChooseOne from '@/ui/ChooseOne.vue'
import OneOf from '@/ui/OneOf.vue'

const emit = defineEmits<{ recorded: [film: File]; away: [] }>()
const COUNTS = [
  { id: '3', word: '3 s' },
  { id: '5', word: '5 s' },
  { id: '10', word: '10 s' },
] as const
const LENGTHS = [
  { id: '4', word: '4 s' },
  { id: '6', word: '6 s' },
  { id: '10', word: '10 s' },
] as const
const count = ref<(typeof COUNTS)[number]['id']>('5')
const length = ref<(typeof LENGTHS)[number]['id']>('6')

const stream = shallowRef<MediaStream | null>(null)
const choices = ref<{ id: string; word: string }[]>([])
const which = ref<string | null>(null)
const preview = useTemplateRef<HTMLVideoElement>('preview')
const problem = ref('')
/** Seconds until it films; null: it does not wait. */
const left = ref<number | null>(null)
/** How much of the film is there; null: it does not film. */
const part = ref<number | null>(null)
let stop: (() => void) | null = null
let ticking = 0

async function open(id: string | null): Promise<void> {
  problem.value = ''
  if (stream.value) closeCamera(stream.value)
  stream.value = null
  try {
    stream.value = await openCamera(id)
    choices.value = await cameras()
    which.value = stream.value.getVideoTracks()[0]?.getSettings().deviceId ?? null
  } catch (error) {
    problem.value = sentenceOf(error, 'The camera cannot be used.')
  }
}
void open(null)
watch(
  [stream, preview],
  () => {
    if (preview.value) preview.value.srcObject = stream.value
  },
  { flush: 'post' },
)

function begin(): void {
  left.value = Number(count.value)
  ticking = window.setInterval(() => {
    left.value = (left.value ?? 1) - 1
    if (left.value <= 0) void film()
  }, 1000)
}
async function film(): Promise<void> {
  clearInterval(ticking)
  left.value = null
  if (!stream.value) return
  try {
    const going = record(stream.value, Number(length.value), (p) => (part.value = p))
    part.value = 0
    stop = going.stop
    const found = await going.film
    leave()
    emit('recorded', found)
  } catch (error) {
    part.value = null
    problem.value = sentenceOf(error, 'This browser cannot film with this camera.')
  }
}
function cancel(): void {
  clearInterval(ticking)
  left.value = null
}
function leave(): void {
  clearInterval(ticking)
  if (stream.value) closeCamera(stream.value)
  stream.value = null
}
onScopeDispose(leave)
</script>

<template>
  <div class="recorder" role="group" aria-label="Camera">
    <p v-if="problem" role="alert" class="problem">{{ problem }}</p>
    <div v-if="stream" class="preview">
      <video ref="preview" autoplay muted playsinline />
      <p v-if="left !== null" class="count" role="timer" aria-live="assertive">{{ left }}</p>
      <p v-if="part !== null" class="on" role="status">Filming</p>
    </div>
    <v-progress-linear
      v-if="part !== null"
      :model-value="100 * part"
      height="8"
      color="slate"
      aria-label="How much of the film is there"
    />
    <div class="row">
      <template v-if="part !== null">
        <v-btn color="primary" variant="flat" @click="stop?.()">Stop now</v-btn>
      </template>
      <template v-else-if="left !== null">
        <v-btn @click="cancel">Not yet</v-btn>
      </template>
      <template v-else>
        <v-btn v-if="stream" color="primary" variant="flat" @click="begin">Film a swing</v-btn>
        <v-btn v-else-if="problem" @click="open(null)">Try again</v-btn>
        <v-btn variant="text" @click="emit('away')">Put the camera away</v-btn>
      </template>
    </div>
    <div v-if="stream && left === null && part === null" class="row">
      <span>Begins after</span>
      <OneOf name="Begins after" small :words="COUNTS" :on="count" @chosen="(c) => (count = c)" />
      <span>and stops after</span>
      <OneOf name="Stops after" small :words="LENGTHS" :on="length" @chosen="(l) => (length = l)" />
      <ChooseOne
        v-if="choices.length > 1"
        name="Camera"
        :options="choices"
        :on="which"
        @chosen="open"
      />
    </div>
  </div>
</template>

<style scoped>
.recorder {
  display: grid;
  gap: 10px;
  width: 100%;
}
.preview {
  position: relative;
  height: min(46vh, 420px);
  background: black;
}
video {
  width: 100%;
  height: 100%;
  object-fit: contain;
}
.count,
.on {
  position: absolute;
  inset: 0;
  display: grid;
  place-items: center;
  margin: 0;
  color: white;
  text-shadow: 0 0 6px black;
  font-weight: var(--strong);
}
.count {
  font-size: 120px;
}
.on {
  inset: auto 0 0 0;
  padding: 8px;
  font-size: var(--text-lead);
}
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 12px;
}
</style>
