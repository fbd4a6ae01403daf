// The moment of the swing that is shown: played, slowed, scrubbed.
import { computed, onScopeDispose, ref, watch, type Ref } from 'vue'

export const SPEEDS = [1, 0.5, 0.25, 0.1] as const
export type Speed = (typeof SPEEDS)[number]

export interface Span {
  from: number
  to: number
}

/** `span`: the part that is played, in seconds of the trace's clock. */
export function usePlayer(span: Ref<Span>) {
  const now = ref(span.value.from)
  const playing = ref(false)
  const speed = ref<Speed>(0.25)
  const frames = ref(0)
  let before = 0
  let asked = 0

  function step(at: number): void {
    if (!playing.value) return
    const passed = Math.min((at - before) / 1000, 0.1) * speed.value
    before = at
    frames.value++
    now.value += passed
    if (now.value >= span.value.to) {
      now.value = span.value.to
      playing.value = false
      return
    }
    asked = requestAnimationFrame(step)
  }
  function play(): void {
    if (now.value >= span.value.to - 0.01) now.value = span.value.from
    playing.value = true
    before = performance.now()
    asked = requestAnimationFrame(step)
  }
  function pause(): void {
    playing.value = false
    cancelAnimationFrame(asked)
  }
  function seek(t: number): void {
    pause()
    now.value = Math.min(Math.max(t, span.value.from), span.value.to)
  }
  watch(span, (next, last) => {
    if (next.from === last.from && next.to === last.to) return
    now.value = Math.min(Math.max(now.value, next.from), next.to)
  })
  onScopeDispose(pause)
  const toggle = () => {
    if (playing.value) pause()
    else play()
  }
  return { now: computed(() => now.value), playing, speed, frames, toggle, pause, seek }
}
