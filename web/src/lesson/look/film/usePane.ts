// The pane in which the picture lies: how large it is, and what of the picture is looked at.
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, type Ref } from 'vue'
import type { Place } from '@/lesson/look/film/marking'
import { EXACT, shownIn, type LookedAt, type Pane } from '@/lesson/look/film/zoom'

export function usePane(
  pane: Readonly<Ref<HTMLElement | null>>,
  film: () => Pane,
  stretch: () => number | undefined,
) {
  const room = ref<Pane>({ width: 0, height: 0 })
  const measured = new ResizeObserver(() => {
    const box = pane.value?.getBoundingClientRect()
    if (box) room.value = { width: box.width, height: box.height }
  })
  onMounted(() => {
    if (pane.value) measured.observe(pane.value)
  })
  onBeforeUnmount(() => {
    measured.disconnect()
  })
  /** What is looked at from near, in the picture as it is shown; null: all of it. */
  const near = shallowRef<LookedAt | null>(null)
  function comeNear(place: Place): void {
    const wide = stretch()
    if (wide !== undefined) near.value = { place, stretch: wide }
  }
  const lies = computed(() => shownIn(room.value, film(), near.value))
  /** One touch is exact enough; else it brings the picture nearer. */
  const isExact = computed(() => lies.value.scale >= EXACT || near.value !== null)
  return { room, near, comeNear, lies, isExact }
}
