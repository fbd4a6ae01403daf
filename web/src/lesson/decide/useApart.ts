// What tells two causes apart: the evidence there is, the looks, and a few balls with one change.
import { ask, client } from '@/api/client'
import { useLessonQuery } from '@/lesson/useLessonQuery'
import type { OpenLesson } from '@/lesson/useLesson'

interface Pair {
  one: string
  other: string
}

export function useBetween(open: OpenLesson, pair: () => Pair | null) {
  return useLessonQuery(
    open,
    'between',
    ({ path }, query) =>
      ask(client.GET('/api/lessons/{lesson_id}/between', { params: { path, query } })),
    pair,
  )
}

/** Without a ball there is nothing that a block could be held against. */
export function useSeparating(open: OpenLesson, pair: () => Pair | null) {
  return useLessonQuery(
    open,
    'separating',
    ({ path }, query) =>
      ask(client.GET('/api/lessons/{lesson_id}/separating', { params: { path, query } })),
    () => (open.diagnosis.value?.ranking.pattern.balls ? pair() : null),
  )
}
