<script setup lang="ts">
// One of two pictures that are laid together: the picture itself, or its outlines on a clear sheet.
import { computed, useTemplateRef, watch } from 'vue'
import type { OpenFilm } from '@/lesson/look/film/film'
import FilmFrame from '@/lesson/look/film/FilmFrame.vue'
import { layOn, STAGE, styleOf, type Lie } from '@/lesson/look/film/laying'
import { outlineOf } from '@/lesson/look/film/outline'

const props = defineProps<{
  film: OpenFilm
  frame: number
  lie: Lie
  /** How wide the stage is, in pixels. */
  wide: number
  outlines: boolean
}>()
const shown = useTemplateRef<InstanceType<typeof FilmFrame>>('shown')
const sheet = useTemplateRef<HTMLCanvasElement>('sheet')
const style = computed(() => ({
  width: `${String(props.film.width)}px`,
  transform: styleOf(props.lie),
}))

/** Where the picture's brightness changes, in the sheet's own colour, which follows the light. */
function trace(): void {
  const [picture, canvas] = [shown.value?.source(), sheet.value]
  const wide = Math.round(props.wide)
  const high = Math.round((wide * STAGE.high) / STAGE.wide)
  if (!props.outlines || !picture || !canvas || wide < 3) return
  canvas.width = wide
  canvas.height = high
  const pen = canvas.getContext('2d', { willReadFrequently: true })
  if (pen === null) return
  layOn(pen, props.lie)
  pen.drawImage(picture, 0, 0)
  pen.resetTransform()
  const laid = pen.getImageData(0, 0, wide, high)
  const ink = (getComputedStyle(canvas).color.match(/[\d.]+/g) ?? []).slice(0, 3).map(Number)
  outlineOf(laid.data, wide).forEach((shows, pixel) => {
    laid.data.set([...ink, shows], 4 * pixel)
  })
  pen.putImageData(laid, 0, 0)
}
watch(() => [props.outlines, props.lie], trace, { flush: 'post' })
</script>

<template>
  <div
    class="window"
    :class="{ outlines }"
    :style="{ aspectRatio: `${STAGE.wide} / ${STAGE.high}` }"
  >
    <FilmFrame ref="shown" :film="film" :frame="frame" class="laid" :style="style" @shown="trace" />
    <canvas v-if="outlines" ref="sheet" />
  </div>
</template>

<style scoped>
.window {
  position: relative;
  overflow: hidden;
  background: black;
}
.window.outlines {
  background: none;
}
.laid {
  position: absolute;
  inset: 0 auto auto 0;
  max-height: none;
  transform-origin: 0 0;
}
.outlines .laid {
  visibility: hidden;
}
canvas {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
</style>
