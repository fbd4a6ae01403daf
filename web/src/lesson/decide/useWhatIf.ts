// What the pattern would be without the cause that is open on the screen.
import { computed, watch, type Ref } from 'vue'
import { ask, client, type Diagnosis, type Shape } from '@/api/client'
import { useAsked } from '@/api/useAsked'

export type WhatIf = Shape['WithoutOut']

export function useWhatIf(
  lessonId: string,
  cause: Ref<string | null>,
  diagnosis: Ref<Diagnosis | null>,
): Readonly<Ref<WhatIf | null>> {
  const { found, problem, put } = useAsked<WhatIf>()
  watch([cause, diagnosis], ([id, now]) => {
    if (!id || !now || now.ranking.pattern.balls === 0) return put(null)
    const params = { path: { lesson_id: lessonId }, query: { cause: id } }
    return put(ask(client.GET('/api/lessons/{lesson_id}/without', { params })))
  })
  // without an answer only a drawing is missing, and nothing else depends on it
  return computed(() => (problem.value ? null : found.value))
}
