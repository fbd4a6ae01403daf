// Marks of a film: what is asked for next, what a moved event takes along, and what moves.
import { describe, expect, it } from 'vitest'
import {
  mirrored,
  nearest,
  nextPoint,
  touched,
  wantedBy,
  withEvent,
  withProposed,
  type FilmMeasure,
  type Marks,
} from '@/lesson/look/film/marking'
import { difference, rateOf } from '@/lesson/look/film/openFilm'

const seat = {
  id: 'seat_impact',
  view: 'down_the_line',
  name: 'seat off its line',
  unit: 'cm',
  formula: 'shift',
  points: ['seat'],
  event: 'impact',
  since: 'address',
} as FilmMeasure
const knees = {
  ...seat,
  id: 'knees',
  formula: 'apart',
  points: ['trail_knee', 'lead_knee'],
  since: null,
} as FilmMeasure
const bare: Marks = { view: 'down_the_line', width: 720, height: 1280, fps: 120, events: {} }

describe('the points of a measure', () => {
  it('are asked for one by one, in the order of the swing', () => {
    expect(wantedBy(seat)).toEqual([
      { point: 'seat', event: 'address' },
      { point: 'seat', event: 'impact' },
    ])
    let marks = bare
    const asked: string[] = []
    for (;;) {
      const next = nextPoint(marks, [knees, seat])
      if (!next) break
      asked.push(`${next.point} ${next.event}`)
      marks = touched(marks, next, [1, 2])
    }
    expect(asked).toEqual(['seat address', 'trail_knee impact', 'lead_knee impact', 'seat impact'])
  })

  it('are mirrored for a left-hander, and back', () => {
    expect(mirrored([100, 50], 720, 'right')).toEqual([100, 50])
    expect(mirrored(mirrored([100, 50], 720, 'left'), 720, 'left')).toEqual([100, 50])
    expect(mirrored([100, 50], 720, 'left')).toEqual([620, 50])
  })
})

describe('an event', () => {
  const marked = withEvent(withEvent(withEvent(bare, 'address', 10), 'top', 50), 'impact', 70)

  it('that overtakes another takes it away', () => {
    expect(withEvent(marked, 'top', 75).events).toEqual({ address: 10, top: 75 })
    expect(withEvent(marked, 'top', 55).events).toEqual({ address: 10, top: 55, impact: 70 })
  })

  it('that moves loses what was touched on its old picture, and nothing else', () => {
    let marks = touched(marked, { point: 'seat', event: 'address' }, [1, 1])
    marks = touched(marks, { point: 'seat', event: 'impact' }, [2, 2])
    const moved = withEvent(marks, 'impact', 71)
    expect(moved.points).toEqual({ seat: { address: [1, 1] } })
    expect(withEvent(marks, 'impact', 70).points).toEqual(marks.points)
  })
})

describe('what the finder proposes', () => {
  const proposed = { address: { frame: 12 }, top: { frame: 60 }, impact: { frame: 90 } }
  it('fills in, and never moves or removes what was marked by hand', () => {
    expect(withProposed(bare, proposed).events).toEqual({ address: 12, top: 60, impact: 90 })
    const byHand = withEvent(bare, 'top', 100)
    expect(withProposed(byHand, proposed).events).toEqual({ address: 12, top: 100 })
    const early = withEvent(bare, 'impact', 40)
    expect(withProposed(early, proposed).events).toEqual({ address: 12, impact: 40 })
  })
})

describe('a point', () => {
  it('is taken hold of where one comes near to it, the nearest of several', () => {
    const points = [
      { point: 'hands', place: [100, 100] as [number, number] },
      { point: 'thigh', place: [112, 100] as [number, number] },
    ]
    expect(nearest(points, [110, 101], 20)?.point).toBe('thigh')
    expect(nearest(points, [140, 100], 20)).toBeNull()
  })
})

describe('the rate of a file', () => {
  const every = (fps: number, n = 40) => Array.from({ length: n }, (_, i) => i / fps)
  const inMs = (times: number[]) => times.map((t) => Math.floor(t * 1000) / 1000)
  it.each([24, 30, 59.94, 60, 119.88, 120, 240])('of %d pictures a second is found', (fps) => {
    const usual = Math.round(fps)
    expect(rateOf(every(fps))).toBe(usual)
    expect(rateOf(inMs(every(fps, 60)))).toBe(usual)
    const passedOver = every(fps, 60).filter((_, i) => i % 7 !== 3)
    expect(rateOf(passedOver)).toBe(usual)
  })
  it('is told as it is where no camera has it, and not at all from one picture', () => {
    expect(rateOf(every(15))).toBe(15)
    expect(rateOf([0.5])).toBeNull()
    expect(rateOf([])).toBeNull()
  })
})

describe('what moves between two pictures', () => {
  const picture = (bright: (row: number) => number) => {
    const data = new Uint8ClampedArray(90 * 160 * 4)
    for (let pixel = 0; pixel < 90 * 160; pixel++) {
      data.fill(bright(Math.floor(pixel / 90)), 4 * pixel, 4 * pixel + 3)
    }
    return data
  }
  it('is how much, and how far down; the noise of the sensor is nothing', () => {
    const still = picture(() => 100)
    expect(
      difference(
        still,
        picture(() => 104),
      ),
    ).toEqual([0, 0.5])
    const low = picture((row) => (row >= 120 ? 180 : 100))
    const [moved, lies] = difference(still, low)
    expect(moved).toBe(90 * 40 * 80)
    expect(lies).toBeCloseTo(139.5 / 160, 5)
  })
})
