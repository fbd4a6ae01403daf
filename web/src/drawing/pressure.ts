// Where moments and shares of a pressure trace lie on its drawings.
import type { Shape } from '@/api/client'

export type Read = Shape['TraceReadOut']
export type Curve = Shape['CurveOut']

export const EVENTS = [
  'address',
  'shaft_level_back',
  'lead_arm_level_back',
  'top',
  'lead_arm_level_down',
  'shaft_level_down',
  'impact',
  'finish',
] as const
export type EventName = (typeof EVENTS)[number]
export const EVENT_WORDS: Record<EventName, string> = {
  address: 'address',
  shaft_level_back: 'shaft level, going back',
  lead_arm_level_back: 'arm level, going back',
  top: 'top',
  lead_arm_level_down: 'arm level, coming down',
  shaft_level_down: 'shaft level, coming down',
  impact: 'impact',
  finish: 'finish',
}

/** Moments at which the drawing changes its scale, and where they lie, from 0 to 1. */
export interface Axis {
  readonly times: readonly number[]
  readonly places: readonly number[]
}

const BEFORE_S = 0.3
const PLACES = [0, 0.07, 0.4, 0.86, 1] as const

/** Time runs wider in the downswing, where everything happens within a quarter of a second. */
export function axisOf(events: Record<EventName, { t_s: number }>): Axis {
  const { address, top, impact, finish } = events
  const times = [address.t_s - BEFORE_S, address.t_s, top.t_s, impact.t_s, finish.t_s]
  for (let i = 1; i < times.length; i++) {
    times[i] = Math.max(times[i] as number, (times[i - 1] as number) + 0.01)
  }
  return { times, places: PLACES }
}

export function placeOf(axis: Axis, t: number): number {
  return between(axis.times, axis.places, t)
}
export function timeAt(axis: Axis, place: number): number {
  return between(axis.places, axis.times, place)
}

/** On the broken line through (from, to); beyond its ends it goes on straight. */
function between(from: readonly number[], to: readonly number[], value: number): number {
  const inner = from.slice(1, -1).findIndex((edge) => value < edge)
  const i = inner === -1 ? from.length - 2 : inner
  const [a, b] = [from[i] as number, from[i + 1] as number]
  const [c, d] = [to[i] as number, to[i + 1] as number]
  return c + ((value - a) / (b - a)) * (d - c)
}

/** The value of an evenly stepped curve at a moment; null where nothing was recorded. */
export function valueAt(
  curve: Curve,
  values: readonly (number | null)[] | null,
  t: number,
): number | null {
  if (values === null || values.length === 0) return null
  const first = curve.t_s[0] ?? 0
  const step = (curve.t_s[1] ?? first + 1) - first
  const at = Math.min(Math.max((t - first) / step, 0), values.length - 1)
  const low = Math.floor(at)
  const [a, b] = [values[low] ?? null, values[Math.min(low + 1, values.length - 1)] ?? null]
  return a === null || b === null ? (a ?? b) : a + (at - low) * (b - a)
}

/** The part of a curve that a drawing shows, as the points of a path. */
export function pathOf(
  t: readonly number[],
  values: readonly (number | null)[],
  x: (t: number) => number,
  y: (value: number) => number,
  from: number,
  to: number,
): string {
  let path = ''
  let pen = 'M'
  for (const [i, moment] of t.entries()) {
    const value = values[i]
    if (moment < from || moment > to || value == null) {
      pen = 'M'
      continue
    }
    path += `${pen}${x(moment).toFixed(1)} ${y(value).toFixed(1)}`
    pen = 'L'
  }
  return path
}

/** The centre of pressure between the feet, per cent: toward the lead foot, toward the toes. */
export function centreAt(curve: Curve, t: number): { lead: number; toe: number | null } {
  const lead = valueAt(curve, curve.lead_pct, t) ?? 50
  const leadToe = valueAt(curve, curve.lead_toe_pct, t)
  const trailToe = valueAt(curve, curve.trail_toe_pct, t)
  if (leadToe === null || trailToe === null) return { lead, toe: null }
  return { lead, toe: (lead * leadToe + (100 - lead) * trailToe) / 100 }
}
