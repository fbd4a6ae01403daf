// Balls may come from a device: ask now and then whether the lesson is still as it was read.
import { useQuery } from '@tanstack/vue-query'
import { watch, type Ref } from 'vue'
import { ask, client, type Lesson } from '@/api/client'

const EVERY_MS = 1000

/** `isIdle`: nothing of ours is under way, so that what arrives overtakes nothing. */
export function useArrivals(
  id: string,
  lesson: Ref<Lesson | null>,
  isIdle: () => boolean,
  reload: () => Promise<void>,
): void {
  // nobody answers: the next change of ours will say so
  const { data, dataUpdatedAt } = useQuery({
    queryKey: ['lesson', id, 'revision'],
    queryFn: () => {
      if (!isIdle()) return { revision: lesson.value?.revision }
      const params = { path: { lesson_id: id } }
      return ask(client.GET('/api/lessons/{lesson_id}/revision', { params }))
    },
    enabled: () => lesson.value !== null,
    refetchInterval: EVERY_MS,
    gcTime: 0,
  })
  watch(dataUpdatedAt, () => {
    if (isIdle() && lesson.value && data.value?.revision !== lesson.value.revision) void reload()
  })
}
