<script setup lang="ts">
// Under a finger nobody sees where it points: what lies there is shown larger, above it or below.
import { computed, useTemplateRef, watch } from 'vue'
import type { Pane, Shown } from '@/lesson/look/film/zoom'

const props = defineProps<{
  /** The picture, and how wide it is. */
  source: CanvasImageSource | null
  pixels: number
  /** Where the finger is, and how wide the picture is shown, in pixels of the page. */
  at: { x: number; y: number; wide: number }
  /** Where the picture lies in its pane, and how large that is. */
  lies: Shown
  room: Pane
}>()
const SIZE = 132
const TIMES = 2.5
const OFF = 92
const HALF = SIZE / 2
const glass = useTemplateRef<HTMLCanvasElement>('glass')

const place = computed(() => {
  const [x, y] = [props.at.x + props.lies.left, props.at.y + props.lies.top]
  const above = y > OFF + HALF
  return {
    left: `${String(Math.min(props.room.width - HALF, Math.max(HALF, x)) - HALF)}px`,
    top: `${String(y + (above ? -OFF : OFF) - HALF)}px`,
  }
})
function draw(): void {
  const pen = glass.value?.getContext('2d')
  if (!pen || !props.source) return
  const { x, y, wide } = props.at
  const perPx = props.pixels / wide
  const part = (SIZE / TIMES) * perPx
  const [left, top] = [x * perPx - part / 2, y * perPx - part / 2]
  pen.fillStyle = 'black'
  pen.fillRect(0, 0, SIZE, SIZE)
  pen.drawImage(props.source, left, top, part, part, 0, 0, SIZE, SIZE)
  for (const [colour, thick] of [
    ['black', 3],
    ['white', 1],
  ] as const) {
    pen.strokeStyle = colour
    pen.lineWidth = thick
    pen.beginPath()
    pen.moveTo(0, HALF)
    pen.lineTo(SIZE, HALF)
    pen.moveTo(HALF, 0)
    pen.lineTo(HALF, SIZE)
    pen.stroke()
  }
}
watch(() => props.at, draw, { immediate: true, flush: 'post' })
</script>

<template>
  <canvas
    ref="glass"
    class="lens"
    :width="SIZE"
    :height="SIZE"
    :style="place"
    aria-hidden="true"
    data-testid="film-lens"
  />
</template>

<style scoped>
.lens {
  position: absolute;
  width: 132px;
  height: 132px;
  z-index: 1;
  border: 2px solid white;
  border-radius: 50%;
  pointer-events: none;
}
</style>
