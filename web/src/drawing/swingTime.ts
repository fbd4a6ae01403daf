// Where the moments of a swing lie across a drawing: one scale for all that is drawn over its time.
import { computed, type ComputedRef, type Ref } from 'vue'
import { axisOf, placeOf, timeAt, type EventName } from '@/drawing/pressure'
import type { Size } from '@/drawing/size'

export interface SwingTime {
  /** Across the drawing at a moment, and back. */
  x: (t: number) => number
  tAt: (px: number) => number
  /** The first and the last moment that are drawn. */
  from: ComputedRef<number>
  to: ComputedRef<number>
}

/** left, right : what the drawing keeps free on each side, pixels */
export function useSwingTime(
  events: () => Record<EventName, { t_s: number }>,
  size: Ref<Size>,
  left: number,
  right: number,
): SwingTime {
  const axis = computed(() => axisOf(events()))
  const wide = () => size.value.width - left - right
  return {
    x: (t) => left + placeOf(axis.value, t) * wide(),
    tAt: (px) => timeAt(axis.value, (px - left) / wide()),
    from: computed(() => axis.value.times[0] ?? -1),
    to: computed(() => axis.value.times.at(-1) ?? 1),
  }
}
