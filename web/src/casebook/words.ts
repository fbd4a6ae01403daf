// What became of a decision, in words.
import type { Shape } from '@/api/client'

type Case = Shape['CaseOut']

export const KNOWN_BY_WORDS: Record<Case['known_by'][number], string> = {
  retest: 'retest',
  trace: 'pressure',
  film: 'film',
  follow_up: 'what came back',
  later_lesson: 'a later lesson',
  word: 'your word alone',
}

export const FATE_WORDS = {
  confirmed: 'confirmed',
  partly: 'partly',
  rejected: 'not confirmed',
} as const

export const NOT_KNOWN = 'not known yet'

/** "confirmed, by retest and what came back" */
export function fateWords({ fate, known_by }: Pick<Case, 'fate' | 'known_by'>): string {
  if (!fate) return NOT_KNOWN
  return `${FATE_WORDS[fate]}, by ${known_by.map((k) => KNOWN_BY_WORDS[k]).join(' and ')}`
}
