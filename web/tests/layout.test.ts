import { describe, expect, it } from 'vitest'
import { BOX, lineBetween, missPlaces, placed, type Cause } from '@/map/layout'

const cause = (id: string, acts: string, place: string) => ({ id, acts, place }) as Cause
const causes = ['aim', 'grip', 'hips', 'both_toes', 'trail_heel'].flatMap((place, i) =>
  ['setup', 'going_back', 'starting_down', 'at_the_ball'].map((acts) =>
    cause(`${acts} ${String(i)}`, acts, place),
  ),
)

describe('a line of the map', () => {
  const places = placed(causes)
  const misses = missPlaces(['slice', 'fat', 'short'])
  it('passes every column between through a gap, and crosses no box', () => {
    for (const from of places.values()) {
      for (const to of [...places.values(), ...misses.values()]) {
        if (to.x <= from.x) continue
        const path = lineBetween(from, to, places.values())
        const runs = [...path.matchAll(/([\d.]+) ([\d.]+)L([\d.]+) ([\d.]+)/g)].map((m) =>
          m.slice(1).map(Number),
        )
        const between = new Set(
          [...places.values()].map((p) => p.x).filter((x) => x > from.x && x < to.x),
        )
        expect(runs).toHaveLength(between.size)
        for (const [x = 0, y = 0] of runs) {
          const crossed = [...places.values()].filter(
            (p) => p.x === x && y > p.y && y < p.y + BOX.height,
          )
          expect(crossed).toEqual([])
        }
      }
    }
  })
})
