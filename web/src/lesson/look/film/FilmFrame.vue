<script setup lang="ts">
// One picture of a film, exactly; or the film playing, told picture by picture. What lies upon it
// comes in the slot.
import { computed, onBeforeUnmount, onMounted, ref, useTemplateRef, watch } from 'vue'
import type { OpenFilm } from '@/lesson/look/film/film'
import { frameAt, letGo, seek } from '@/lesson/look/film/playing'

const props = defineProps<{
  film: OpenFilm
  frame: number
  /** How fast the file plays; null: it stands. */
  rate?: number | null
}>()
const emit = defineEmits<{ at: [frame: number]; ended: []; shown: [] }>()
const video = useTemplateRef<HTMLVideoElement>('video')
const ratio = computed(() => props.film.width / props.film.height)
const ready = ref(false)
/** The picture that is on the page. */
const onPage = ref<number | null>(null)

let busy = false
/** The newest wanted picture; those asked for meanwhile are passed over. */
async function show(): Promise<void> {
  if (busy || !video.value || !ready.value || props.rate) return
  busy = true
  let at = -1
  while (at !== props.frame) {
    at = props.frame
    await seek(video.value, at, props.film)
  }
  busy = false
  onPage.value = at
  emit('shown')
}

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
defineExpose({ video, onPage })
</script>

<template>
  <div class="frame" :data-shown="onPage" :style="{ aspectRatio: ratio, '--ratio': ratio }">
    <video ref="video" :src="film.url" muted playsinline preload="auto" @ended="emit('ended')" />
    <slot />
  </div>
</template>

<style scoped>
.frame {
  position: relative;
  width: min(100%, calc(var(--ratio) * var(--tall, 100vh)));
  background: black;
}
video,
.frame > :slotted(svg) {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
.frame > :slotted(canvas) {
  position: absolute;
}
</style>
