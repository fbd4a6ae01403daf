// What the pattern would be without the cause that is open on the screen.
import { shallowRef, watch, type Ref } from 'vue'
import { ask, client, type Diagnosis, type Shape } from '@/api/client'

export type WhatIf = Shape['WhatIfOut']

export function useWhatIf(
  lessonId: string,
  cause: Ref<string | null>,
  diagnosis: Ref<Diagnosis | null>,
): Ref<WhatIf | null> {
  const found = shallowRef<WhatIf | null>(null)
  let asked = 0
  watch([cause, diagnosis], async ([id, now]) => {
    const mine = ++asked
    if (!id || !now || now.ranking.pattern.balls === 0) {
      found.value = null
      return
    }
    const params = { path: { lesson_id: lessonId }, query: { cause: id } }
    try {
      const arrived = await ask(client.GET('/api/lessons/{lesson_id}/without', { params }))
      if (mine === asked) found.value = arrived
    } catch {
      if (mine === asked) found.value = null // only a drawing is missing; nothing else depends on it
    }
  })
  return found
}
