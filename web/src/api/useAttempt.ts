// Something asked of the server that may fail: whether it is under way, and what went wrong.
import { ref, shallowRef } from 'vue'
import type { ApiError } from '@/api/client'

export function useAttempt() {
  const busy = ref(false)
  const problem = shallowRef<ApiError | null>(null)

  /** What came of it; null where it failed, and then `problem` says why. */
  async function attempt<T>(work: () => Promise<T>): Promise<T | null> {
    busy.value = true
    problem.value = null
    try {
      return await work()
    } catch (error) {
      problem.value = error as ApiError
      return null
    } finally {
      busy.value = false
    }
  }
  return { busy, problem, attempt }
}
