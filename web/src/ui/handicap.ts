// A handicap as it is written at the club, where better than scratch has a plus before it.
import { typedNumber } from '@/ui/units'

const BEST = -10
const MOST = 54

/** "+2" is a plus handicap, −2 inside; null when empty, undefined when it is none. */
export function typedHandicap(text: string): number | null | undefined {
  const plain = text.trim()
  const value = typedNumber(plain.replace(/^\+/, ''))
  if (typeof value !== 'number') return value
  const handicap = plain.startsWith('+') ? -value : value
  return handicap >= BEST && handicap <= MOST ? handicap : undefined
}

export function handicapWord(handicap: number): string {
  return handicap < 0 ? `+${String(-handicap)}` : String(handicap)
}
