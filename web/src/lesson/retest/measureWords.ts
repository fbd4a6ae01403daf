// What the measures of a retest are called, and where it stands in one sentence.
import type { Handedness, Shape } from '@/api/client'
import type { DistanceUnit } from '@/ui/settings'
import { fromMetres, signed } from '@/ui/units'
import { count, degreesWord, strikeWord } from '@/ui/words'

export const MEASURE_WORDS: Record<string, string> = {
  start_deg: 'start',
  curve_deg: 'curve',
  heel_toe_mm: 'strike',
  low_point_cm: 'low point',
  carry_m: 'carry',
}

/** A value of a retest's measure as an onlooker says it. */
export function measureWord(
  name: string,
  value: number,
  hand: Handedness,
  unit: DistanceUnit,
): string {
  switch (name) {
    case 'heel_toe_mm':
      return strikeWord(value)
    case 'low_point_cm':
      return `${signed(value)} cm`
    case 'carry_m':
      return `${fromMetres(value, unit).toFixed(0)} ${unit}`
    default:
      return degreesWord(value, hand)
  }
}

/** Where the retest stands, in one sentence. */
export function retestWord(
  retest: Shape['RetestOut'],
  primary: Shape['ComparedOut'],
  hand: Handedness,
  unit: DistanceUnit,
): string {
  const what = MEASURE_WORDS[primary.name] ?? primary.name
  const { verdict } = retest
  if (!verdict || primary.after.length === 0) return `Ready: ${what} will decide.`
  if (verdict.state === 'too_few') return `Too few yet: ${count(verdict.more ?? 1, 'more ball')}.`
  if (verdict.state === 'real') {
    const change = primary.change
    const from = change ? measureWord(primary.name, change.before, hand, unit) : ''
    const to = change ? measureWord(primary.name, change.after, hand, unit) : ''
    return `Real already: ${what} from ${from} to ${to}.`
  }
  if (verdict.more === null) return `Not yet, and a few more balls would hardly tell: ${what}.`
  return `Not yet: ${count(verdict.more, 'more ball')} like these would tell.`
}
