import { describe, expect, it } from 'vitest'
import type { Knowledge } from '@/api/client'
import { expectedCarryM } from '@/lesson/shots/expectedCarry'
import { fromPoint, RING_DEG, ringsFor, toPoint, type Range } from '@/drawing/range'

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
  it('takes the room that a wide range has, and never runs over the edge of a narrow one', () => {
    const side = (r: Range) => toPoint(RING_DEG, r.reachM, r).x - r.width / 2
    const [wide, square, phone] = [
      range,
      { ...range, width: 420 },
      { ...range, width: 345, height: 330 },
    ]
    expect(side(wide)).toBeGreaterThan(side(square))
    expect(side(square)).toBeLessThan(square.width / 2 - 50)
    expect(side(phone)).toBeLessThan(phone.width / 2 + 12)
  })
  it('has two to four rings at any club', () => {
    for (const reach of [45, 110, 150, 190, 260]) {
      expect(ringsFor(reach).length).toBeGreaterThan(0)
      expect(ringsFor(reach).length).toBeLessThan(5)
    }
  })
})

describe('the carry a range is drawn for', () => {
  const knowledge = {
    usual_carry_m: { '7i': 128 },
    noting: { carry_m: 125 },
  } as unknown as Knowledge
  const block = (club: string, expected_carry_m: number | null) => ({ club, expected_carry_m })
  it('is the first that was typed for the club, in any of its blocks', () => {
    const blocks = [block('7i', null), block('d', 200), block('7i', 140), block('7i', 150)]
    expect(expectedCarryM('7i', blocks, knowledge)).toBe(140)
    expect(expectedCarryM('d', blocks, knowledge)).toBe(200)
  })
  it('is what is usual with the club where nobody typed one', () => {
    expect(expectedCarryM('7i', [block('7i', null)], knowledge)).toBe(128)
    expect(expectedCarryM('9i', [], knowledge)).toBe(125)
  })
})
