// The stages of a lesson, in the instructor's order; all are reachable at any time.
export const STAGES = [
  { id: 'shots', word: 'Shots' },
  { id: 'look', word: 'Look' },
  { id: 'pressure', word: 'Pressure' },
] as const
export type Stage = (typeof STAGES)[number]['id']

export function stageOf(word: string | undefined): Stage {
  return STAGES.find((s) => s.id === word)?.id ?? 'shots'
}
