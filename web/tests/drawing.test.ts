import { describe, expect, it } from 'vitest'
import type { Knowledge, LoggedShot } from '@/api/client'
import { litOnPlan, shoeParts } from '@/drawing/chain'
import { divotOf, flightOf, strikeOf } from '@/drawing/marks'
import { knowledge } from './mounting'

function shot(observed: object, touched: Record<string, number> = {}): LoggedShot {
  return { id: 's', observed, touched } as unknown as LoggedShot
}

describe('marks', () => {
  it('prefers what was measured, then the finger, then the middle of the word', () => {
    expect(
      flightOf(shot({ start: 'pull', start_deg: -3.1 }, { start_deg: -5 }), knowledge.noting)
        ?.startDeg,
    ).toBe(-3.1)
    expect(flightOf(shot({ start: 'pull' }, { start_deg: -5 }), knowledge.noting)?.startDeg).toBe(
      -5,
    )
    expect(flightOf(shot({ start: 'pull' }), knowledge.noting)?.startDeg).toBe(-4)
    expect(flightOf(shot({ contact: 'fat' }), knowledge.noting)).toBeNull()
  })
  it('makes a curve of a side and a carry', () => {
    const flight = flightOf(shot({ start_deg: 1, side_m: 7, carry_m: 100 }), knowledge.noting)
    expect(flight?.curveDeg).toBeCloseTo(3, 1)
    expect(flightOf(shot({ start: 'push' }), knowledge.noting)?.curveDeg).toBeNull()
  })
  it('draws a divot of usual length where only its start is known, and a brush mark alike', () => {
    expect(divotOf(shot({ divot_start_cm: -3 }), knowledge.noting)).toEqual({
      startCm: -3,
      lengthCm: 12,
      directionDeg: 0,
    })
    expect(
      divotOf(shot({ brush_start_cm: 2, divot_direction_deg: -5 }), knowledge.noting)?.startCm,
    ).toBe(2)
    expect(divotOf(shot({}), knowledge.noting)).toBeNull()
  })
  it('puts a word of contact on the face where it says', () => {
    expect(strikeOf(shot({ contact: 'hosel' }), knowledge.noting)?.heelToeMm).toBe(-26)
    expect(strikeOf(shot({ contact: 'toe', heel_toe_mm: 18 }), knowledge.noting)?.heelToeMm).toBe(
      18,
    )
    expect(strikeOf(shot({ contact: 'clean' }), knowledge.noting)).toBeNull()
  })
})

const placed = {
  causes: [{ id: 'heel_up', place: 'trail_heel', moves: 'up' }],
  mechanisms: [
    { id: 'out', place: 'hands', moves: 'toward_ball' },
    { id: 'stands', place: 'both_toes', moves: 'toward_ball' },
    { id: 'again', place: 'hands', moves: 'still' },
  ],
} as unknown as Knowledge

describe('the chain on the plan', () => {
  it('numbers links by their place in the chain and leaves out what has none', () => {
    const lit = litOnPlan(['heel_up', 'out', 'path_minus', 'speed_lost'], placed)
    expect(lit.map((l) => [l.number, l.id])).toEqual([
      [1, 'heel_up'],
      [2, 'out'],
      [3, 'path_minus'],
    ])
  })
  it('never draws two numbers on one spot', () => {
    const lit = litOnPlan(['heel_up', 'out', 'again'], placed)
    const spots = new Set(lit.map((l) => `${String(l.x)} ${String(l.y)}`))
    expect(spots.size).toBe(lit.length)
  })
  it('lights the toes of both shoes where both are meant', () => {
    const parts = shoeParts(litOnPlan(['heel_up', 'stands'], placed))
    expect([...parts].sort()).toEqual(['lead_toe', 'trail_heel', 'trail_toe'])
  })
})
