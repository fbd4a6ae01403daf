// What the balls of the lesson show, worked out anew after every change; and what moved since
// earlier baselines.
import { computed, onScopeDispose, watch, type Ref } from 'vue'
import { ask, client, type Diagnosis, type Shape } from '@/api/client'
import { useAsked } from '@/api/useAsked'

export type ReadBlock = Shape['ReadBlock']
export type ReadBall = Shape['ReadBall']
export type Earlier = Shape['EarlierOut']

const LATER_MS = 150

export function useReadings(
  lessonId: string,
  blockId: Ref<string | null>,
  diagnosis: Ref<Diagnosis | null>,
  isRead: () => boolean,
) {
  const balls = useAsked<ReadBlock[]>()
  const since = useAsked<Earlier[]>()
  const params = { path: { lesson_id: lessonId } }
  /** A little later, so that the next touch is not kept waiting for a drawing of the last. */
  let waiting: ReturnType<typeof setTimeout> | undefined
  watch(
    diagnosis,
    (now) => {
      clearTimeout(waiting)
      if (now === null) return
      waiting = setTimeout(() => {
        void balls.put(ask(client.GET('/api/lessons/{lesson_id}/balls', { params })))
      }, LATER_MS)
    },
    { immediate: true },
  )
  onScopeDispose(() => {
    clearTimeout(waiting)
  })
  watch([diagnosis, isRead], ([now, read]) => {
    if (now === null || !read) return
    void since.put(ask(client.GET('/api/lessons/{lesson_id}/since', { params })))
  })
  const block = computed(() => balls.found.value?.find((b) => b.block_id === blockId.value) ?? null)
  return { block, since: since.found, problem: balls.problem }
}

/** How the balls of a block scatter over the face, one standard deviation, in millimetres. */
export function scatterOf(block: ReadBlock | null): { heelToe: number; lowHigh: number } | null {
  if (block === null) return null
  return { heelToe: block.scatter.heel_toe_mm ?? 0, lowHigh: block.scatter.low_high_mm ?? 0 }
}
