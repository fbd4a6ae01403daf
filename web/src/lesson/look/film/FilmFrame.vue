<script setup lang="ts">
// One picture of a film, exactly; or the film playing, told picture by picture. What lies upon it
// comes in the slot.
import { computed, onBeforeUnmount, onMounted, ref, useTemplateRef, watch } from 'vue'
import { sentenceOf, type OpenFilm } from '@/lesson/look/film/film'
import { frameAt, letGo, seek } from '@/lesson/look/film/playing'
import { useNearPictures } from '@/lesson/look/film/useNearPictures'

const props = defineProps<{
  film: OpenFilm
  frame: number
  /** How fast the file plays; null: it stands. */
  rate?: number | null
  /** Pictures are stepped through: those around are held ready. */
  stepped?: boolean
}>()
const emit = defineEmits<{ at: [frame: number]; ended: []; shown: [] }>()
const video = useTemplateRef<HTMLVideoElement>('video')
const sheet = useTemplateRef<HTMLCanvasElement>('sheet')
const ratio = computed(() => props.film.width / props.film.height)
const ready = ref(false)
/** The picture that is on the page. */
const onPage = ref<number | null>(null)
/** It lies on the sheet, as it was decoded, and not in the video. */
const isOnSheet = ref(false)
/** Why the picture that is wanted is not there. */
const problem = ref('')
const near = useNearPictures(() => (props.stepped ? props.film : null))

let busy = false
/** The newest wanted picture; those asked for meanwhile are passed over. */
async function show(): Promise<void> {
  if (busy || !video.value || !ready.value || props.rate) return
  busy = true
  let at = -1
  while (at !== props.frame && !props.rate) {
    at = props.frame
    const pixels = await near.pixelsOf(at)
    // meanwhile it may play, or be gone
    if (props.rate || video.value === null) break
    if (pixels) pen()?.putImageData(pixels, 0, 0)
    problem.value = pixels ? '' : await sought(video.value, at)
    if (problem.value) continue
    isOnSheet.value = pixels !== null
    onPage.value = at
  }
  busy = false
  if (!props.rate && onPage.value === props.frame) emit('shown')
}
/** Why the picture cannot be shown; '' when it is. */
async function sought(shown: HTMLVideoElement, at: number): Promise<string> {
  try {
    await seek(shown, at, props.film)
    return ''
  } catch (error) {
    return sentenceOf(error, 'This picture cannot be shown.')
  }
}
const pen = () => sheet.value?.getContext('2d', { willReadFrequently: true })
/** What is seen, to be drawn elsewhere in the film's own size. */
const source = (): CanvasImageSource | null => (isOnSheet.value ? sheet.value : video.value)

function follow(): void {
  video.value?.requestVideoFrameCallback((_now, { mediaTime }) => {
    if (!props.rate) return
    emit('at', frameAt(mediaTime, props.film))
    follow()
  })
}
async function play(rate: number): Promise<void> {
  if (!video.value || !ready.value) return
  video.value.playbackRate = rate
  try {
    await seek(video.value, props.frame, props.film)
    isOnSheet.value = false
    await video.value.play()
    follow()
  } catch {
    emit('ended') // a browser that plays nothing unasked shows pictures all the same
  }
}
watch(
  () => props.rate ?? null,
  (rate) => {
    if (rate !== null) void play(rate)
    else {
      video.value?.pause()
      void show()
    }
  },
)
watch(
  () => [props.frame, props.film.url],
  () => void show(),
)
onMounted(() => {
  video.value?.addEventListener('loadeddata', () => {
    ready.value = true
    void show()
  })
})
onBeforeUnmount(() => {
  if (video.value) letGo(video.value)
})
defineExpose({ source, onPage })
</script>

<template>
  <div class="frame" :data-shown="onPage" :style="{ aspectRatio: ratio, '--ratio': ratio }">
    <video ref="video" :src="film.url" muted playsinline preload="auto" @ended="emit('ended')" />
    <canvas v-show="isOnSheet" ref="sheet" :width="film.width" :height="film.height" />
    <slot />
    <p v-if="problem" role="alert" class="damaged">{{ problem }}</p>
  </div>
</template>

<style scoped>
.frame {
  position: relative;
  width: min(100%, calc(var(--ratio) * var(--tall, 100vh)));
  background: black;
}
video,
canvas,
.frame > :slotted(svg) {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
.damaged {
  position: absolute;
  inset: auto 0 0;
  margin: 0;
  padding: 8px 12px;
  background: var(--paper);
}
.frame > :slotted(canvas) {
  position: absolute;
}
</style>
