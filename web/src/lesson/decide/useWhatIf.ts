// What the pattern would be without the cause that is open on the screen.
import { computed, type Ref } from 'vue'
import { ask, client, type Shape } from '@/api/client'
import { useLessonQuery } from '@/lesson/useLessonQuery'
import type { OpenLesson } from '@/lesson/useLesson'

export type WhatIf = Shape['WithoutOut']

export function useWhatIf(
  open: OpenLesson,
  cause: Ref<string | null>,
): Readonly<Ref<WhatIf | null>> {
  const balls = () => open.diagnosis.value?.ranking.pattern.balls ?? 0
  const { found, problem } = useLessonQuery(
    open,
    'without',
    ({ path }, id) => {
      const params = { path, query: { cause: id } }
      return ask(client.GET('/api/lessons/{lesson_id}/without', { params }))
    },
    () => (balls() > 0 && cause.value ? cause.value : null),
  )
  // without an answer only a drawing is missing, and nothing else depends on it
  return computed(() => (problem.value ? null : found.value))
}
