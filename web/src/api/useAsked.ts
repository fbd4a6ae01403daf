// A question put to the server again whenever what it depends on changes: the last answer that
// still counts, and what went wrong with it.
import { shallowRef } from 'vue'
import type { ApiError } from '@/api/client'

export function useAsked<T>() {
  const found = shallowRef<T | null>(null)
  const problem = shallowRef<ApiError | null>(null)
  let asked = 0

  /** Ask, or with null forget the answer; an answer that was overtaken by a newer question is dropped. */
  async function put(question: Promise<T> | null): Promise<void> {
    const mine = ++asked
    if (question === null) {
      found.value = null
      problem.value = null
      return
    }
    try {
      const arrived = await question
      if (mine !== asked) return
      found.value = arrived
      problem.value = null
    } catch (error) {
      if (mine === asked) problem.value = error as ApiError
    }
  }

  return { found, problem, put }
}
