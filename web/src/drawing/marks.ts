// What a logged ball looks like on the drawings. Measured first, then where the finger was, then
// the middle of the word.
import type { LoggedShot } from '@/api/client'
import { middleOf, type Noting } from '@/ui/frame'

export interface FlightMark {
  startDeg: number
  curveDeg: number | null
  carryM: number | null
}

/** Golfer-neutral flight of a ball, or null when nothing of it is known: a curve alone is drawn
 * from the target line. */
export function flightOf(shot: LoggedShot, noting: Noting): FlightMark | null {
  const { observed, touched } = shot
  const start =
    observed.start_deg ??
    touched.start_deg ??
    (observed.start ? middleOf(observed.start, noting) : null) ??
    (observed.curve || observed.curve_deg != null ? 0 : null)
  if (start === null) return null
  return {
    startDeg: start,
    curveDeg: curveOf(shot, start, noting),
    carryM: observed.carry_m ?? null,
  }
}

function curveOf(shot: LoggedShot, startDeg: number, noting: Noting): number | null {
  const { observed, touched } = shot
  if (observed.curve_deg != null) return observed.curve_deg
  if (observed.side_m != null && observed.carry_m) {
    return (
      (Math.asin(Math.max(-1, Math.min(1, observed.side_m / observed.carry_m))) * 180) / Math.PI -
      startDeg
    )
  }
  if (touched.curve_deg !== undefined) return touched.curve_deg
  return observed.curve ? middleOf(observed.curve, noting) : null
}

export interface DivotMark {
  startCm: number
  lengthCm: number
  directionDeg: number
}

export function divotOf(shot: LoggedShot, noting: Noting): DivotMark | null {
  const { observed } = shot
  const start = observed.divot_start_cm ?? observed.brush_start_cm
  if (start === null || start === undefined) return null
  return {
    startCm: start,
    lengthCm: observed.divot_length_cm ?? noting.divot_length_cm,
    directionDeg: observed.divot_direction_deg ?? 0,
  }
}

export interface StrikeMark {
  heelToeMm: number
  lowHighMm: number
}

/** Standard errors within which a number lies four times in five. */
export const LIKELY = 1.28

/** The mark nearest to a touch, unless all are farther away than that. */
export function nearest(
  marks: readonly { id: string; x: number; y: number }[],
  at: { x: number; y: number },
  within: number,
): string | null {
  const [near] = marks
    .map((m) => ({ id: m.id, away: Math.hypot(m.x - at.x, m.y - at.y) }))
    .sort((a, b) => a.away - b.away)
  return near && near.away < within ? near.id : null
}

/** A number with its doubt, as the server tells it. */
export interface Doubtful {
  value: number
  se: number
}

export function strikeOf(shot: LoggedShot, noting: Noting): StrikeMark | null {
  const { observed } = shot
  const heelToe = observed.heel_toe_mm ?? noting.contact_mm[observed.contact ?? '']
  if (heelToe === undefined) return null
  return { heelToeMm: heelToe, lowHighMm: observed.low_high_mm ?? 0 }
}

/** A touch of the range: a drag has start, curve and carry; a tap a bearing and how far out it was. */
export interface Touch {
  startDeg: number
  curveDeg: number | null
  carryM: number | null
  tapM: number | null
}
