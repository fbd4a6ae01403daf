// The two or three causes that are held side by side, and what the ball would do without each.
import { computed, ref, watch } from 'vue'
import { ask, client } from '@/api/client'
import { rowsOf } from '@/lesson/decide/rows'
import { useLessonQuery } from '@/lesson/useLessonQuery'
import type { OpenLesson } from '@/lesson/useLesson'

const SIDE_BY_SIDE = 3
/** A second or third cause less likely than this is not worth a column. */
const LEAST_ROOT = 0.08

export function useCompared(open: OpenLesson) {
  const { diagnosis } = open
  const chosen = ref<string[] | null>(null)
  const proposed = computed(() => {
    const ranking = diagnosis.value?.ranking
    if (!ranking) return []
    const rows = rowsOf(ranking).slice(0, SIDE_BY_SIDE)
    return rows.filter((r, i) => i < 2 || r.cause.root >= LEAST_ROOT).map((r) => r.cause.id)
  })
  /** The first proposal after all that was entered has been weighed: nothing changes places then. */
  const settled = ref<string[] | null>(null)
  watch(
    [proposed, () => open.saving.value.state],
    ([now, state]) => {
      if (settled.value === null && now.length > 0 && state === 'saved') settled.value = now
    },
    { immediate: true },
  )
  const compared = computed(() => chosen.value ?? settled.value ?? proposed.value)
  const still = computed(() => settled.value !== null || open.saving.value.state !== 'saving')

  /** Take a cause in, or out; the first chosen leaves when a fourth comes. */
  function toggle(id: string): void {
    const now = compared.value
    chosen.value = now.includes(id)
      ? now.filter((c) => c !== id)
      : [...now.slice(now.length === SIDE_BY_SIDE ? 1 : 0), id]
  }

  const { found } = useLessonQuery(
    open,
    'compared',
    ({ path }, ids) =>
      Promise.all(
        ids.map((cause) => {
          const params = { path, query: { cause } }
          // without an answer only a drawing is missing
          return ask(client.GET('/api/lessons/{lesson_id}/without', { params })).catch(() => null)
        }),
      ),
    () => (diagnosis.value?.ranking.pattern.balls ? compared.value : null),
  )
  const without = computed(
    () => new Map((found.value ?? []).flatMap((f) => (f ? [[f.cause, f] as const] : []))),
  )
  return { compared, without, toggle, still }
}
