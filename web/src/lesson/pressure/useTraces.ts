// The lesson's pressure traces, read anew after every change; which one is shown, over which.
import { computed, ref, watch } from 'vue'
import { ask, client, type Shape } from '@/api/client'
import { useLessonQuery } from '@/lesson/useLessonQuery'
import type { OpenLesson } from '@/lesson/useLesson'

export type Trace = Shape['TraceOut']

export function useTraces(open: OpenLesson) {
  const { found, problem } = useLessonQuery(open, 'traces', (params) =>
    ask(client.GET('/api/lessons/{lesson_id}/traces', { params })),
  )
  const traces = computed(() => found.value?.traces ?? [])
  const together = computed(() => found.value?.together ?? null)
  const chosenId = ref<string | null>(null)
  /** The chosen trace; a new one that arrives is shown at once. */
  const shown = computed(() => traces.value.find((t) => t.id === chosenId.value) ?? null)
  watch(traces, (now, before) => {
    const fresh = now.filter((t) => !before.some((b) => b.id === t.id))
    if (fresh.length > 0 || !now.some((t) => t.id === chosenId.value))
      chosenId.value = (fresh.at(-1) ?? now.at(-1))?.id ?? null
  })
  const ready = computed(() => found.value !== null)
  return { traces, together, shown, chosenId, ready, problem }
}

/** What lies under the shown curve, moved so that impacts meet. */
export function underCurve(
  what: string,
  shown: Trace,
  traces: readonly Trace[],
  together: Shape['TogetherOut'] | null,
): { t_s: number[]; lead_pct: (number | null)[]; sd_pct?: number[]; word: string } | null {
  const impact = shown.read?.events.impact.t_s ?? 0
  if (what === 'mean') {
    if (together === null) return null
    const t_s = together.t_s.map((t) => t + impact)
    return { t_s, lead_pct: together.mean_pct, sd_pct: together.sd_pct, word: 'mean' }
  }
  const other = traces.find((t) => t.id === what && t.id !== shown.id)
  if (!other?.read) return null
  const by = impact - other.read.events.impact.t_s
  const { curve } = other.read
  return { t_s: curve.t_s.map((t) => t + by), lead_pct: curve.lead_pct, word: other.name }
}
