// Balls may come from a device: ask now and then whether the lesson is still as it was read.
import { onScopeDispose, type Ref } from 'vue'
import { client, type Lesson } from '@/api/client'

const EVERY_MS = 1000

/** `isIdle`: nothing of ours is under way, so that what arrives overtakes nothing. */
export function useArrivals(
  id: string,
  lesson: Ref<Lesson | null>,
  isIdle: () => boolean,
  reload: () => Promise<void>,
): void {
  let asking = false
  async function look(): Promise<void> {
    if (asking || document.hidden || !isIdle() || lesson.value === null) return
    asking = true
    try {
      const params = { path: { lesson_id: id } }
      const { data } = await client.GET('/api/lessons/{lesson_id}/revision', { params })
      if (data && isIdle() && data.revision !== lesson.value.revision) await reload()
    } catch {
      // nobody answers: the next change of ours will say so
    } finally {
      asking = false
    }
  }
  const timer = setInterval(() => void look(), EVERY_MS)
  onScopeDispose(() => {
    clearInterval(timer)
  })
}
