// How a camera held in the hand moved, from what stands still.
import { describe, expect, it } from 'vitest'
import { Following, type Grey } from '@/lesson/look/film/following'
import { farthest, mirroredMove, moveOf, type Pair } from '@/lesson/look/film/shake'
import type { Place } from '@/lesson/look/film/marking'

const MIDDLE: Place = [270, 480]
/** Turned clockwise about the middle, then shifted. */
function moved([x, y]: Place, right: number, down: number, deg: number): Place {
  const [cos, sin] = [Math.cos((deg * Math.PI) / 180), Math.sin((deg * Math.PI) / 180)]
  const [ax, ay] = [x - MIDDLE[0], y - MIDDLE[1]]
  return [MIDDLE[0] + ax * cos - ay * sin + right, MIDDLE[1] + ax * sin + ay * cos + down]
}
const places = Array.from({ length: 120 }, (_, i): Place => [(i * 137) % 540, (i * 251) % 960])
const pairs = (right: number, down: number, deg: number): Pair[] =>
  places.map((from) => ({ from, to: moved(from, right, down, deg) }))

describe('the move of what stands still', () => {
  it('is found exactly where nothing is wrong', () => {
    const move = moveOf(pairs(7.3, -4.1, 0.8), MIDDLE)
    expect(move?.right).toBeCloseTo(7.3, 6)
    expect(move?.down).toBeCloseTo(-4.1, 6)
    expect(move?.turned_deg).toBeCloseTo(0.8, 6)
    expect(move?.sd_px).toBeCloseTo(0.3, 6)
  })

  it('is that of most, and the player who moves does no harm', () => {
    const all = pairs(7.3, -4.1, 0.8).map((pair, i) =>
      i % 5 < 2 ? { ...pair, to: [pair.to[0] + 20 + (i % 7), pair.to[1] - 9] as Place } : pair,
    )
    const move = moveOf(all, MIDDLE)
    expect(move?.right).toBeCloseTo(7.3, 6)
    expect(move?.turned_deg).toBeCloseTo(0.8, 6)
  })

  it('is less sure where the pairs agree less', () => {
    const rough = pairs(3, 2, 0).map(({ from, to }, i) => ({
      from,
      to: [to[0] + 0.7 * Math.sin(9 * i), to[1] + 0.7 * Math.cos(7 * i)] as Place,
    }))
    const move = moveOf(rough, MIDDLE)
    expect(Math.abs((move?.right ?? 9) - 3)).toBeLessThan(0.15)
    expect(move?.sd_px).toBeGreaterThan(0.3)
    const each = Math.sqrt((2 * 120 * 0.5 * 0.49) / (2 * 120 - 3))
    expect(move?.sd_px).toBeCloseTo(Math.hypot(0.3, each / Math.sqrt(120)), 2)
  })

  it('is not known where too few agree, or where there are too few', () => {
    const apart = places.map((from, i) => ({
      from,
      to: [from[0] + 60 * Math.sin(5 * i * i), from[1] + 60 * Math.cos(3 * i * i)] as Place,
    }))
    expect(moveOf(apart, MIDDLE)).toBeNull()
    expect(moveOf(pairs(1, 1, 0).slice(0, 14), MIDDLE)).toBeNull()
    expect(moveOf([], MIDDLE)).toBeNull()
  })

  it('reaches farther at the edge when it turns, and is mirrored as the picture is', () => {
    const move = { right: 3, down: 4, turned_deg: 1, sd_px: 0.3 }
    expect(farthest(move, 960)).toBeCloseTo(5 + (Math.PI / 180) * 480)
    expect(mirroredMove(move)).toEqual({ right: -3, down: 4, turned_deg: -1, sd_px: 0.3 })
  })
})

/** Smooth knots at places that look drawn, moved. */
function picture(right: number, down: number, deg: number): Grey {
  const [width, height] = [540, 960]
  const light = new Float32Array(width * height).fill(150)
  for (let i = 0; i < 300; i++) {
    const at: Place = [20 + ((i * 173.3) % 500), 20 + ((i * 331.7) % 920)]
    const [x, y] = moved(at, right, down, deg)
    for (let v = Math.floor(y) - 8; v <= y + 8; v++)
      for (let u = Math.floor(x) - 8; u <= x + 8; u++) {
        if (u < 0 || v < 0 || u >= width || v >= height) continue
        const far = ((u - x) ** 2 + (v - y) ** 2) / (2 * (1.5 + (i % 3)) ** 2)
        light[v * width + u] = (light[v * width + u] ?? 0) - 70 * Math.exp(-far)
      }
  }
  return { width, height, data: Uint8Array.from(light, (v) => Math.max(0, Math.round(v))) }
}

describe('what stands still in a picture', () => {
  it.each([
    [6.4, -3.7, 0],
    [-11.2, 8.5, 0.6],
    [0, 0, 0],
  ])('is found again %d right, %d down, turned %d', (right, down, deg) => {
    const found = new Following(picture(0, 0, 0)).pairsIn(picture(right, down, deg))
    expect(found.length).toBeGreaterThan(80)
    const move = moveOf(found, MIDDLE)
    expect(Math.abs((move?.right ?? 99) - right)).toBeLessThan(0.2)
    expect(Math.abs((move?.down ?? 99) - down)).toBeLessThan(0.2)
    expect(Math.abs((move?.turned_deg ?? 99) - deg)).toBeLessThan(0.03)
  })

  it('is not found in a bare wall', () => {
    const bare = { width: 540, height: 960, data: new Uint8Array(540 * 960).fill(150) }
    expect(moveOf(new Following(bare).pairsIn(bare), MIDDLE)).toBeNull()
    expect(moveOf(new Following(picture(0, 0, 0)).pairsIn(bare), MIDDLE)).toBeNull()
  })
})
