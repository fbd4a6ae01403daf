// A film playing: how fast, against life, and where it is.
import { computed, ref, type Ref } from 'vue'
import type { OpenFilm } from '@/lesson/look/film/film'
import { FASTEST, SLOWEST } from '@/lesson/look/film/playing'

export const SPEEDS = [1, 0.5, 0.25, 0.125] as const
export type PlaySpeed = (typeof SPEEDS)[number]

/** How fast a file plays for a swing of so many pictures a second to pass at this speed of life. */
export function rateFor(speed: PlaySpeed, filmed: number, plays: number): number {
  return Math.min(FASTEST, Math.max(SLOWEST, (speed * filmed) / plays))
}

/** `filmed`: pictures a second of the swing itself, however slowly the file plays them. */
export function usePlaying(film: Ref<OpenFilm | null>, filmed: () => number, frame: Ref<number>) {
  const playing = ref(false)
  const speed = ref<PlaySpeed>(0.25)
  const rate = computed(() =>
    playing.value && film.value ? rateFor(speed.value, filmed(), film.value.plays) : null,
  )
  function step(by: number): void {
    playing.value = false
    if (film.value) frame.value = Math.min(film.value.frames - 1, Math.max(0, frame.value + by))
  }
  const stop = () => {
    playing.value = false
  }
  return { playing, speed, rate, step, stop }
}
