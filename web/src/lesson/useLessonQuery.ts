// What follows from the open lesson, asked again whenever the server has another version of it.
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, type ComputedRef } from 'vue'
import type { ApiError } from '@/api/client'
import type { OpenLesson } from '@/lesson/useLesson'

export interface Followed<T> {
  /** The newest answer; while a newer one is on its way, the one before it. */
  found: ComputedRef<T | null>
  problem: ComputedRef<ApiError | null>
}
export interface AtLesson {
  path: { lesson_id: string }
}

/**
 * `with`: what else the question depends on; null: there is nothing to ask now.
 */
export function useLessonQuery<T, W = null>(
  open: OpenLesson,
  what: string,
  question: (params: AtLesson, given: W) => Promise<T>,
  given?: () => W | null,
): Followed<T> {
  const asked = computed(() => (given ? given() : (null as W)))
  const wanted = computed(
    () => open.diagnosis.value !== null && (given === undefined || asked.value !== null),
  )
  const { data, error } = useQuery({
    queryKey: computed(() => ['lesson', open.id, open.lesson.value?.revision, what, asked.value]),
    queryFn: () => question({ path: { lesson_id: open.id } }, asked.value as W),
    enabled: wanted,
    placeholderData: keepPreviousData,
    staleTime: Infinity, // a version of a lesson never says anything else
    gcTime: 0,
  })
  return {
    found: computed(() => (wanted.value ? ((data.value as T | undefined) ?? null) : null)),
    problem: computed(() => (wanted.value ? error.value : null)),
  }
}
