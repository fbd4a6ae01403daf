// Where a cause, a mechanism or an effect lies on the plan of the ground.
import type { Knowledge } from '@/api/client'

export type PlanPart = Knowledge['causes'][number]['place']
export type Move = Knowledge['causes'][number]['moves']

/** The plan as drawn for a right-hander: target up, the ball to the right of the feet. */
export const GROUND = {
  width: 430,
  height: 262,
  ball: { x: 366, y: 131 },
  turf: { x: 316, width: 100 },
  pxPerCm: 7.4,
} as const

const LEAD_Y = 72
const TRAIL_Y = 190
const HEEL_X = 96
const MID_X = 138
const TOE_X = 184

export const SHOES = { lead: { x: MID_X, y: LEAD_Y }, trail: { x: MID_X, y: TRAIL_Y } } as const

/** Middle of each part. */
const PLACES: Record<PlanPart, { x: number; y: number }> = {
  lead_foot: { x: MID_X, y: LEAD_Y },
  lead_heel: { x: HEEL_X, y: LEAD_Y },
  lead_toe: { x: TOE_X, y: LEAD_Y },
  trail_foot: { x: MID_X, y: TRAIL_Y },
  trail_heel: { x: HEEL_X, y: TRAIL_Y },
  trail_toe: { x: TOE_X, y: TRAIL_Y },
  both_toes: { x: TOE_X + 6, y: 131 },
  both_heels: { x: HEEL_X - 14, y: 131 },
  hips: { x: 118, y: 131 },
  chest: { x: 150, y: 131 },
  hands: { x: 230, y: 106 },
  grip: { x: 230, y: 106 },
  club: { x: 232, y: 162 },
  ball: { x: 366, y: 131 },
  aim: { x: 282, y: 34 },
}

const EFFECT_PLACES: Record<string, { x: number; y: number }> = {
  path_minus: { x: 384, y: 226 },
  path_plus: { x: 348, y: 226 },
  face_open: { x: 394, y: 100 },
  face_shut: { x: 394, y: 100 },
  turf_behind: { x: 334, y: 186 },
  turf_ahead: { x: 334, y: 76 },
}

export interface Lit {
  number: number
  id: string
  x: number
  y: number
  place: PlanPart | null
  moves: Move
}

/** The links of a chain that have a place on the plan, numbered in their order. */
export function litOnPlan(chain: readonly string[], knowledge: Knowledge): Lit[] {
  const taken: Record<string, number> = {}
  return chain.flatMap((id, i) => {
    const known =
      knowledge.causes.find((c) => c.id === id) ?? knowledge.mechanisms.find((m) => m.id === id)
    const at = known ? PLACES[known.place] : EFFECT_PLACES[id]
    if (at === undefined) return []
    const key = `${String(at.x)} ${String(at.y)}`
    const before = taken[key] ?? 0
    taken[key] = before + 1
    return [
      {
        number: i + 1,
        id,
        x: at.x - before * 28,
        y: at.y,
        place: known?.place ?? null,
        moves: known?.moves ?? 'still',
      },
    ]
  })
}

/** Which parts of which shoe are lit. */
export function shoeParts(lit: readonly Lit[]): Set<string> {
  const parts = new Set<string>()
  for (const { place } of lit) {
    if (place === null) continue
    if (place === 'both_toes') ['lead_toe', 'trail_toe'].forEach((p) => parts.add(p))
    else if (place === 'both_heels') ['lead_heel', 'trail_heel'].forEach((p) => parts.add(p))
    else parts.add(place)
  }
  return parts
}

/** Unit vector of a move on the plan, for a right-hander. */
export const MOVES: Record<Move, { dx: number; dy: number } | null> = {
  toward_ball: { dx: 1, dy: 0 },
  away_from_ball: { dx: -1, dy: 0 },
  toward_target: { dx: 0, dy: -1 },
  away_from_target: { dx: 0, dy: 1 },
  up: { dx: 0.6, dy: -0.8 },
  still: null,
}
