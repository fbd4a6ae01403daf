// How a number of the retest is said, and how sure its change is.
import type { Handedness, Shape } from '@/api/client'
import type { DistanceUnit } from '@/ui/settings'
import { fromMetres, signed } from '@/ui/units'
import { degreesWord, strikeMm } from '@/ui/words'

/** A value of a retest's measure as an onlooker says it. */
export function measureWord(
  name: string,
  value: number,
  hand: Handedness,
  unit: DistanceUnit,
): string {
  switch (name) {
    case 'heel_toe_mm':
      return Math.abs(value) < 1 ? 'in the middle' : strikeMm(value) // as the verdict says it
    case 'low_point_cm':
      return `${signed(value)} cm`
    case 'carry_m':
      return `${fromMetres(value, unit).toFixed(0)} ${unit}`
    default:
      return degreesWord(value, hand)
  }
}

/** Whether one measure changed by more than chance: the one that decides by itself, the others
 * counted together. */
export function changeWord(measure: Shape['ComparedOut']): string {
  if (measure.change === null || measure.after.length < 3) return ''
  return measure.sure ? 'more than chance' : 'within chance'
}
