// Balls may come from a device, answers from another tablet: is the lesson still as it was read?
import { useQuery } from '@tanstack/vue-query'
import { computed, watch, type Ref } from 'vue'
import { ask, client, type Lesson } from '@/api/client'
import { useRevisions } from '@/sync/useRevisions'

const EVERY_MS = 1000
/** Where the server tells: a line may be dead without anyone knowing. */
const EVERY_MS_TOLD = 30_000

/** `isIdle`: nothing of ours is under way, so that what arrives overtakes nothing. */
export function useArrivals(
  id: string,
  lesson: Ref<Lesson | null>,
  isIdle: () => boolean,
  reload: () => Promise<void>,
): void {
  const { heard, isTold, listen } = useRevisions(id)
  /** What the ranking shown was made with. */
  let taught: number | undefined
  // nobody answers: the next change of ours will say so
  const { data, dataUpdatedAt, refetch } = useQuery({
    queryKey: ['lesson', id, 'revision'],
    queryFn: () => {
      if (!isIdle()) return { revision: lesson.value?.revision, taught }
      const params = { path: { lesson_id: id } }
      return ask(client.GET('/api/lessons/{lesson_id}/revision', { params }))
    },
    enabled: () => lesson.value !== null,
    refetchInterval: computed(() => (isTold.value ? EVERY_MS_TOLD : EVERY_MS)),
    gcTime: 0,
  })
  // what was heard while ours was under way is ours, or is asked about once that is done
  watch([heard, isIdle, () => lesson.value?.revision], () => {
    const known = lesson.value?.revision
    if (!isIdle() || known === undefined || heard.value === null) return
    if (heard.value.revision !== known || heard.value.taught !== taught) void refetch()
  })
  watch(dataUpdatedAt, () => {
    listen()
    if (!isIdle() || !lesson.value) return
    const isOther = taught !== undefined && data.value?.taught !== taught
    taught = data.value?.taught
    if (isOther || data.value?.revision !== lesson.value.revision) void reload()
  })
}
