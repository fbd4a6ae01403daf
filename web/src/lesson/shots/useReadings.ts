// What the balls of a block show, and what moved since earlier baselines.
import { computed, type Ref } from 'vue'
import { ask, client, type Shape } from '@/api/client'
import { useLessonQuery } from '@/lesson/useLessonQuery'
import type { OpenLesson } from '@/lesson/useLesson'

export type ReadBlock = Shape['ReadBlock']
export type ReadBall = Shape['ReadBall']
export type Earlier = Shape['EarlierOut']

export function useReadings(open: OpenLesson, blockId: Ref<string | null>, isRead: () => boolean) {
  const since = useLessonQuery(
    open,
    'since',
    (params) => ask(client.GET('/api/lessons/{lesson_id}/since', { params })),
    () => isRead() || null,
  )
  const block = computed(() => open.balls.value?.find((b) => b.block_id === blockId.value) ?? null)
  return { block, since: since.found }
}

/** How the balls of a block scatter over the face, one standard deviation, in millimetres. */
export function scatterOf(block: ReadBlock | null): { heelToe: number; lowHigh: number } | null {
  if (block === null) return null
  return { heelToe: block.scatter.heel_toe_mm ?? 0, lowHigh: block.scatter.low_high_mm ?? 0 }
}
