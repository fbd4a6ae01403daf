// Where a student believes a joint to be, as a number: plain arithmetic on the posed figure.
import type { Knowledge } from '@/api/client'
import { downTheLine, faceOn } from '@/drawing/pose'
import type { FilmMeasure, Place } from '@/lesson/look/film/marking'

export type FeltMeasure = FilmMeasure & { felt_on: string }
type Film = Knowledge['film']

export function canBeFelt(measure: FilmMeasure): measure is FeltMeasure {
  return measure.felt_on != null
}

export function poseOf({ view, felt_on }: FeltMeasure, film: Film): Record<string, number> {
  return film.bases[view]?.[felt_on] ?? {}
}

/** What of the figure the student points to. */
export function feltAs(measure: FeltMeasure): string {
  return measure.felt_as ?? measure.points[0] ?? ''
}

/** The place on the figure that a measure counts from: the same joint before, or another one. */
export function fromWhere(measure: FeltMeasure, film: Film): Place | null {
  const draw = measure.view === 'down_the_line' ? downTheLine : faceOn
  const base = measure.since ?? measure.felt_on
  const joint = measure.since == null ? measure.points[1] : feltAs(measure)
  const at = draw(film.bases[measure.view]?.[base] ?? {}).joints[joint ?? '']
  return at ? [at.x, at.y] : null
}

/** What a touch on the figure says, in the measure's unit; `place`: golfer-neutral, as drawn. */
export function feltAt(measure: FeltMeasure, place: Place, film: Film): number | null {
  const from = fromWhere(measure, film)
  if (from === null) return null
  const units = measure.formula === 'rise' ? from[1] - place[1] : place[0] - from[0]
  return Math.round(units * film.cm_per_unit * 10) / 10
}

/** Where on the figure a number is; the other direction is the joint's own on the figure shown. */
export function placeOfFelt(measure: FeltMeasure, felt: number, film: Film): Place | null {
  const from = fromWhere(measure, film)
  const draw = measure.view === 'down_the_line' ? downTheLine : faceOn
  const own = draw(poseOf(measure, film)).joints[feltAs(measure)]
  if (from === null || !own) return null
  const units = felt / film.cm_per_unit
  return measure.formula === 'rise' ? [own.x, from[1] - units] : [from[0] + units, own.y]
}
