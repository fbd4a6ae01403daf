// Marks of a film: what is asked for next, what a moved event takes along, and what moves.
import { describe, expect, it, vi } from 'vitest'
import type { Knowledge } from '@/api/client'
import { feltAt, fromWhere, placeOfFelt, type FeltMeasure } from '@/lesson/look/film/felt'
import { dayAfter, keepFilm, keptFilms, keptFrom } from '@/lesson/look/film/keptFilms'
import { lieOf, styleOf } from '@/lesson/look/film/laying'
import {
  mirrored,
  nearest,
  nextPoint,
  sureOf,
  handIn,
  touched,
  turnedRound,
  wantedBy,
  withEvent,
  withFoundAround,
  withProposed,
  type FilmMeasure,
  type Marks,
} from '@/lesson/look/film/marking'
import { difference } from '@/lesson/look/film/motion'
import { isUneven, openFilm, rateOf } from '@/lesson/look/film/openFilm'
import { expectedAt, stretchPx } from '@/lesson/look/film/expected'
import { outlineOf } from '@/lesson/look/film/outline'
import { frameSince, sharedEvents, sinceTie, tiesOf } from '@/lesson/look/film/syncFilms'
import { shownIn } from '@/lesson/look/film/zoom'
import { rateFor } from '@/lesson/look/film/usePlaying'

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
const bare: Marks = {
  view: 'down_the_line',
  width: 720,
  height: 1280,
  fps: 120,
  events: {},
  other_hand: false,
}

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
      marks = touched(marks, next, [1, 2], 1)
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
    let marks = touched(marked, { point: 'seat', event: 'address' }, [1, 1], 1)
    marks = touched(marks, { point: 'seat', event: 'impact' }, [2, 2], 1)
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

describe('what the finder has around a picture', () => {
  it('takes the place of what was found before; points stay where their picture does', () => {
    let marks = withEvent(withEvent(withEvent(bare, 'address', 12), 'top', 40), 'impact', 60)
    marks = touched(marks, { point: 'seat', event: 'address' }, [1, 1], 1)
    marks = touched(marks, { point: 'seat', event: 'impact' }, [2, 2], 1)
    const found = withFoundAround(marks, { address: { frame: 12 }, impact: { frame: 160 } })
    expect(found.events).toEqual({ address: 12, impact: 160 })
    expect(found.points).toEqual({ seat: { address: [1, 1] } })
    expect(found.zoom).toEqual({ seat: { address: 1 } })
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

describe('the times of pictures', () => {
  const at = (rate: number, count: number, from = 0) =>
    Array.from({ length: count }, (_, i) => from + i / rate)

  it('say the faster rate of a film that changes it on the way', () => {
    expect(rateOf([...at(30, 14), ...at(60, 14, 4)])).toBe(60)
  })

  it('are not thrown off by two pictures at nearly one time', () => {
    expect(rateOf([0, 0.001, ...at(60, 20, 1 / 60)])).toBe(60)
  })

  it('are uneven where pictures come at other times than the rate says', () => {
    expect(isUneven(at(120, 40), 120)).toBe(false)
    expect(isUneven([...at(30, 14), ...at(60, 14, 4)], 60)).toBe(false)
    const jittered = at(30, 40).map((t, i) => t + (i % 3) * 0.011)
    expect(isUneven(jittered, 30)).toBe(true)
  })
})

describe('films tied at a moment', () => {
  const slow: Marks = { ...bare, fps: 30, events: { top: 20, impact: 28, finish: 60 } }
  const fast: Marks = { ...bare, fps: 240, events: { top: 100, impact: 164 } }

  it('show the same moment of the swing, whatever their rates', () => {
    const since = sinceTie(slow, 'impact', 20)
    expect(since).toBeCloseTo(-8 / 30)
    expect(frameSince(fast, 'impact', since, 400)).toBe(100)
    expect(frameSince(fast, 'impact', 3, 400)).toBe(399)
    expect(frameSince(fast, 'impact', -3, 400)).toBe(0)
  })

  it('are tied at what all of them have, the ball first', () => {
    expect(tiesOf([['top', 'impact'], ['top']]).map((t) => t.id)).toEqual(['top'])
    expect(tiesOf([['top', 'impact']]).map((t) => t.id)).toEqual(['impact', 'top'])
    expect(sharedEvents([slow, fast]).map((e) => e.id)).toEqual(['top', 'impact'])
  })

  it('play as slowly as asked, however slowly their files do', () => {
    expect(rateFor(0.25, 240, 30)).toBe(2) // filmed at 240, played at 30: eight times too slow
    expect(rateFor(0.125, 120, 120)).toBe(0.125)
    expect(rateFor(1, 960, 30)).toBe(16)
  })
})

describe('two pictures laid together', () => {
  const laid = { at: [300, 900], cm_per_px: 0.2, level_rad: 0.05 }

  it('put the feet at one place, at one scale', () => {
    const lie = lieOf(laid, 360, 720, 'right')
    expect(lie.to).toEqual([180, 410])
    expect(lie.scale).toBeCloseTo(0.4) // 360 px for 180 cm
    expect(lieOf({ ...laid, cm_per_px: 0.4 }, 360, 720, 'right').scale).toBeCloseTo(0.8)
    expect(styleOf(lie)).toContain('rotate(0.05rad) scale(0.4) translate(-300px, -900px)')
  })

  it('are mirrored with their slope for a left-hander', () => {
    const lie = lieOf(laid, 360, 720, 'left')
    expect(lie.from).toEqual([420, 900])
    expect(lie.turn).toBe(-0.05)
  })
})

describe('the outline of a picture', () => {
  it('is where its brightness changes, and nowhere else', () => {
    const width = 8
    const rgba = new Uint8ClampedArray(4 * width * 6)
    for (let p = 0; p < width * 6; p++) rgba.fill(p % width < 4 ? 40 : 200, 4 * p, 4 * p + 4)
    const row = [...outlineOf(rgba, width).slice(2 * width, 3 * width)]
    expect(row.map((v) => v > 0)).toEqual([false, false, false, true, true, false, false, false])
  })
})

describe('what a student points to', () => {
  const film = {
    cm_per_unit: 2,
    bases: {
      down_the_line: { address: { heel: 0, seat: -7 }, down: { heel: 0, seat: -8 }, impact: {} },
    },
  } as unknown as Knowledge['film']
  const heel = {
    ...seat,
    formula: 'rise',
    points: ['trail_heel'],
    event: 'lead_arm_level_down',
    felt_on: 'down',
  } as FeltMeasure

  it('is so far above where the figure had it', () => {
    const ground = fromWhere(heel, film)
    expect(ground).toEqual([38, 112])
    expect(feltAt(heel, [60, 108], film)).toBe(8)
    expect(placeOfFelt(heel, 8, film)).toEqual([38, 108])
  })

  it('is so far to the right for what moves across', () => {
    const away = { ...seat, felt_on: 'impact' } as FeltMeasure
    expect(fromWhere(away, film)).toEqual([35, 64])
    expect(feltAt(away, [37.5, 90], film)).toBe(5)
  })
})

describe('a film kept on this device', () => {
  it('says in its name until when', () => {
    expect(keptFrom('ab-1_2026-12-05_my%20swing_2.mp4')).toEqual({
      id: 'ab-1',
      until: '2026-12-05',
      name: 'my swing_2.mp4',
    })
    expect(keptFrom('something else')).toBeNull()
    expect(dayAfter(7, new Date(2026, 11, 28))).toBe('2027-01-04')
  })

  it('is not there where a browser keeps none', async () => {
    vi.stubGlobal('navigator', {})
    expect(await keptFilms()).toEqual([])
    await expect(keepFilm('a', new File(['x'], 'x.mp4'), 7)).rejects.toThrow('cannot keep films')
  })
})

describe('a file that is too large', () => {
  it('is refused before anything of it is read', async () => {
    const file = new File(['x'], 'long.mp4')
    Object.defineProperty(file, 'size', { value: 4_000_000_001 })
    await expect(openFilm(file)).rejects.toThrow('larger than 4 GB')
  })
})

describe('what the finder says of itself', () => {
  it('is how far off each event may be, in whole pictures', () => {
    const two = { address: { sd_frames: 0.9 }, top: { sd_frames: 1 }, impact: { sd_frames: 0.4 } }
    expect(sureOf(two)).toBe(
      'The finder is within 1 picture of impact, within 2 pictures of address and top. Look at each.',
    )
    expect(sureOf({})).toBe('')
  })
})

describe('how near the picture is shown', () => {
  const film = { width: 1080, height: 1920 }
  const pane = { width: 800, height: 600 }
  it('is all of it, in the middle, where nothing is looked at', () => {
    const { scale, left, top } = shownIn(pane, film, null)
    expect(scale).toBeCloseTo(600 / 1920)
    expect([left, top]).toEqual([(800 - 1080 * scale) / 2, 0])
  })
  it('is the stretch around a place, that place in the middle', () => {
    const place: [number, number] = [540, 960]
    const { scale, left, top } = shownIn(pane, film, { place, stretch: 300 })
    expect(scale).toBeCloseTo(2)
    expect(left + 540 * scale).toBeCloseTo(400)
    expect(top + 960 * scale).toBeCloseTo(300)
  })
  it('goes no farther than the picture does, and is never smaller than all of it', () => {
    const corner = shownIn(pane, film, { place: [0, 1920], stretch: 300 })
    expect([corner.left, corner.top]).toEqual([0, 600 - 1920 * corner.scale])
    expect(shownIn(pane, film, { place: [0, 0], stretch: 99_999 }).scale).toBeCloseTo(600 / 1920)
  })
})

describe('a touch', () => {
  it('carries how large the picture was, and loses it with its event', () => {
    const at = { point: 'seat', event: 'impact' } as const
    const marks = touched(withEvent(bare, 'impact', 70), at, [5, 6], 0.4)
    expect(marks.zoom).toEqual({ seat: { impact: 0.4 } })
    expect(withEvent(marks, 'impact', 72).zoom).toEqual({ seat: {} })
  })
})

describe('a film that shows the other hand', () => {
  it('keeps every mark where it was touched, and counts from the other side', () => {
    const marks: Marks = {
      ...touched(withEvent(bare, 'impact', 70), { point: 'seat', event: 'impact' }, [100, 6], 1),
      ground: [
        [10, 1],
        [20, 1],
      ],
      off_line_cm: 20,
    }
    const turned = turnedRound(marks)
    expect(turned.points).toEqual({ seat: { impact: [620, 6] } })
    expect(turned.ground).toEqual([
      [710, 1],
      [700, 1],
    ])
    expect(turned.off_line_cm).toBe(-20)
    const hand = handIn(turned, 'right')
    expect(hand).toBe('left')
    expect(mirrored([620, 6], 720, hand)).toEqual([100, 6])
    expect(turnedRound(turned)).toEqual({ ...marks, scale: undefined })
  })
})

describe('where the next point probably is', () => {
  const film = {
    cm_per_unit: 1.5,
    bases: { down_the_line: { address: { seat: -7, spine: 38 }, impact: { seat: -9, spine: 36 } } },
    scales: [{ id: 'shoe', name: 'a shoe', cm: 30, views: ['down_the_line'] }],
  } as unknown as Knowledge['film']
  const scaled: Marks = {
    ...bare,
    scale: { by: 'known', start: [0, 0], end: [300, 0], cm: 100 },
  }
  it('is nowhere before anything was touched, then where it was at another event', () => {
    const next = { point: 'seat', event: 'impact' } as const
    expect(expectedAt(bare, next, film)).toBeNull()
    expect(expectedAt(scaled, next, film)).toBeNull()
    const before = touched(bare, { point: 'seat', event: 'address' }, [200, 500], 1)
    expect(expectedAt(before, next, film)).toEqual([200, 500])
  })
  it('is as the figure has it from what was touched, to its scale', () => {
    const marks = touched(scaled, { point: 'trail_heel', event: 'address' }, [300, 1100], 1)
    const [x, y] = expectedAt(marks, { point: 'seat', event: 'address' }, film) ?? [0, 0]
    expect(x).toBeCloseTo(300 + 4.5 * (38 + 4 - 7 - 38))
    expect(y).toBeCloseTo(1100 + 4.5 * (64 - 112))
    expect(stretchPx(marks, film)).toBe(240)
    expect(stretchPx(bare, film)).toBe(320)
  })
})
