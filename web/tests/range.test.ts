import { describe, expect, it } from 'vitest'
import { fromPoint, ringsFor, toPoint, type Range } from '@/drawing/range'

const range: Range = { width: 800, height: 260, reachM: 160 }

describe('the range as drawn', () => {
  it('gives a touch back as it was drawn', () => {
    for (const bearing of [-12, -3, 0, 5, 11]) {
      for (const carry of [20, 90, 155]) {
        const back = fromPoint(toPoint(bearing, carry, range), range)
        expect(back.bearingDeg).toBeCloseTo(bearing)
        expect(back.carryM).toBeCloseTo(carry)
      }
    }
  })
  it('draws right of the target to the right and longer further up', () => {
    expect(toPoint(4, 100, range).x).toBeGreaterThan(toPoint(-4, 100, range).x)
    expect(toPoint(0, 150, range).y).toBeLessThan(toPoint(0, 100, range).y)
  })
  it('has two to four rings at any club', () => {
    for (const reach of [45, 110, 150, 190, 260]) {
      expect(ringsFor(reach).length).toBeGreaterThan(0)
      expect(ringsFor(reach).length).toBeLessThan(5)
    }
  })
})
