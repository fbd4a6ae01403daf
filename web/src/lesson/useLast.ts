// The student's lesson before the open one: only what came back of it changes while this one goes on.
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { ask, client } from '@/api/client'
import type { OpenLesson } from '@/lesson/useLesson'

export function useLast(open: Pick<OpenLesson, 'id'>) {
  return useLastOf(open).last
}

/** The same, and how to read it again once something was entered on it. */
export function useLastOf(open: Pick<OpenLesson, 'id'>) {
  const { data, refetch } = useQuery({
    queryKey: ['last', open.id],
    queryFn: () => {
      const params = { path: { lesson_id: open.id } }
      return ask(client.GET('/api/lessons/{lesson_id}/last', { params }))
    },
    staleTime: Infinity,
  })
  // without an answer the lesson goes on as a first one
  return { last: computed(() => data.value ?? null), readAgain: () => refetch() }
}
