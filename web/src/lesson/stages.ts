// The stages of a lesson, in the instructor's order; all are reachable at any time.
import type { Shape } from '@/api/client'

export type Stage = Shape['NextOut']['stage']

export const STAGES = [
  { id: 'listen', word: 'Listen' },
  { id: 'shots', word: 'Shots' },
  { id: 'look', word: 'Look' },
  { id: 'pressure', word: 'Pressure' },
  { id: 'decide', word: 'Decide' },
  { id: 'drill', word: 'Drill' },
  { id: 'retest', word: 'Retest' },
  { id: 'send', word: 'Send' },
] as const satisfies readonly { id: Stage; word: string }[]

/** Stages that have the decision beside them; the others take the whole width. */
export const BESIDE_THE_DECISION: readonly Stage[] = ['listen', 'shots', 'look', 'pressure']

/** "at the drill": where a lesson was left. */
export function stageWord(id: string | null): string | null {
  const word = STAGES.find((s) => s.id === id)?.word
  return word ? `at ${word.toLowerCase()}` : null
}

export function stageOf(word: string | undefined): Stage {
  return STAGES.find((s) => s.id === word)?.id ?? 'shots'
}
