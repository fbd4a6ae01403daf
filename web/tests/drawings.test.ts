// What is drawn where, and what a touch on it means; mirrored for left-handers.
import type { VueWrapper } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'
import ClubFace from '@/drawing/ClubFace.vue'
import DeliveryPlan from '@/drawing/DeliveryPlan.vue'
import GroundPlan from '@/drawing/GroundPlan.vue'
import LostStrip from '@/drawing/LostStrip.vue'
import RangeFan from '@/drawing/RangeFan.vue'
import SideView from '@/drawing/SideView.vue'
import TurfStrip from '@/drawing/TurfStrip.vue'
import { GROUND } from '@/drawing/chain'
import { ballAt, toPoint, trackPath, type Track } from '@/drawing/range'
import { drawn } from './lacking'
import { furnish, keepsDrags, knowledge, readings, shot, show } from './mounting'

beforeEach(furnish)

async function touch(page: VueWrapper, from: [number, number], to = from): Promise<void> {
  const at = ([clientX, clientY]: [number, number]) => ({
    clientX,
    clientY,
    button: 0,
    pointerId: 1,
  })
  await page.find('svg').trigger('pointerdown', at(from))
  await page.find('svg').trigger('pointermove', at(to))
  await page.find('svg').trigger('pointerup', at(to))
}
const said = (page: VueWrapper, event: string) => page.emitted(event)?.at(-1)?.[0]

describe('the face', () => {
  const props = {
    hand: 'right',
    shots: [
      shot('a', { heel_toe_mm: -10, low_high_mm: 4 }),
      shot('b', { heel_toe_mm: 8 }),
      shot('c', {}),
    ],
    newest: 'b',
    kind: 'iron',
    seen: 'front',
    lit: null,
    predictedMm: null,
    reading: false,
    middle: null,
    scatterMm: null,
  }
  it('says the strike of a touch, heel to the right as one looks at it', async () => {
    const { page } = await show(ClubFace, props)
    await touch(page, [165 + 35, 142 - 14])
    expect(said(page, 'touched')).toEqual({ heelToeMm: -10, lowHighMm: 4 })
  })
  it.each([
    ['left', 'front'],
    ['right', 'player'],
  ])('turns round for a %s-hander seen from the %s', async (hand, seen) => {
    const { page } = await show(ClubFace, { ...props, hand, seen })
    await touch(page, [165 + 35, 142])
    expect(said(page, 'touched')).toEqual({ heelToeMm: 10, lowHighMm: 0 })
    const a = page.findAll('circle.mark')[0]?.attributes('cx')
    expect(Number(a)).toBe(165 - 35)
  })
  it('takes no strike from a touch off the face, and says that it was one', async () => {
    const { page } = await show(ClubFace, props)
    drawn.isInside = (at) => at.x < 290
    await touch(page, [165, 142], [310, 142])
    expect(page.emitted('touched')).toBeUndefined()
    expect(page.emitted('missed')).toHaveLength(1)
    drawn.isInside = () => true
  })
  it('follows the finger until it is lifted', async () => {
    const { page } = await show(ClubFace, props)
    await page
      .find('svg')
      .trigger('pointerdown', { clientX: 100, clientY: 142, button: 0, pointerId: 1 })
    await page.find('svg').trigger('pointermove', { clientX: 130, clientY: 142, pointerId: 1 })
    expect(page.find('.held').attributes('cx')).toBe('130')
    expect(page.emitted('touched')).toBeUndefined()
    await page.find('svg').trigger('pointerup', { clientX: 130, clientY: 142, pointerId: 1 })
    expect(said(page, 'touched')).toEqual({ heelToeMm: 10, lowHighMm: 0 })
    expect(page.find('.held').exists()).toBe(false)
  })
  it('chooses the nearest mark while balls are read, and none far from all', async () => {
    const { page } = await show(ClubFace, { ...props, reading: true })
    await touch(page, [165 - 28, 142])
    expect(said(page, 'chosen')).toBe('b')
    await touch(page, [20, 250])
    expect(page.emitted('chosen')).toHaveLength(1)
    expect(page.emitted('touched')).toBeUndefined()
  })
  it('draws the spread about the middle that is told, from three marks on', async () => {
    const spread = { middle: { value: -2, se: 1 }, scatterMm: { heelToe: 6, lowHigh: 2 } }
    const few = await show(ClubFace, { ...props, ...spread })
    expect(few.page.find('[data-testid=strike-spread]').exists()).toBe(false)
    const shots = [...props.shots, shot('d', { heel_toe_mm: 0 })]
    const { page } = await show(ClubFace, { ...props, ...spread, shots })
    const ellipse = page.find('[data-testid=strike-spread]').attributes()
    expect(Number(ellipse.cx)).toBe(165 + 7)
    expect(Number(ellipse.rx)).toBe(21)
  })
  it('marks the newest ball and the prediction', async () => {
    const { page } = await show(ClubFace, { ...props, predictedMm: 0, lit: 'heel' })
    expect(page.findAll('circle.newest')).toHaveLength(1)
    expect(page.find('[data-testid=predicted-strike]').attributes('cx')).toBe('165')
    expect(page.find('rect.lit').exists()).toBe(true)
  })
})

describe('the ground', () => {
  const props = {
    hand: 'right',
    shots: [shot('a', { divot_start_cm: -2, divot_length_cm: 10 }), shot('b', {})],
    newest: 'a',
    chain: [],
    knowledge,
    footWords: { lead: 'Left', trail: 'Right' },
    changing: null,
    predictedLowCm: null,
    lowPoint: null,
  }
  const { ball, pxPerCm } = GROUND
  it('keeps a drag to itself', async () => {
    expect(keepsDrags((await show(GroundPlan, props)).page)).toBe(true)
  })
  it('says where a divot starts, and its length and direction when it is drawn', async () => {
    const { page } = await show(GroundPlan, props)
    await touch(page, [ball.x, ball.y + 3 * pxPerCm])
    expect(said(page, 'touched')).toEqual({ startCm: -3, lengthCm: null, directionDeg: null })
    await touch(page, [ball.x, ball.y], [ball.x - 2 * pxPerCm, ball.y - 12 * pxPerCm])
    expect(said(page, 'touched')).toEqual({ startCm: 0, lengthCm: 12, directionDeg: -9 })
  })
  it('moves the divot of the ball that is changed, with its length and direction', async () => {
    const divot = { divot_start_cm: -3, divot_length_cm: 14, divot_direction_deg: -5 }
    const { page } = await show(GroundPlan, { ...props, shots: [shot('a', divot)], changing: 'a' })
    const y = ball.y + 3 * pxPerCm
    await touch(page, [ball.x, y - 20], [ball.x + 3, y - 20 - 5 * pxPerCm])
    expect(said(page, 'touched')).toEqual({ startCm: 2, lengthCm: 14, directionDeg: -5 })
    await touch(page, [ball.x, ball.y + 9 * pxPerCm]) // beside it: another place
    expect(said(page, 'touched')).toMatchObject({ startCm: -9, lengthCm: null })
  })
  it('is mirrored for a left-hander: the same side is the other push', async () => {
    const { page } = await show(GroundPlan, { ...props, hand: 'left' })
    const x = GROUND.width - ball.x
    await touch(page, [x, ball.y], [x + 2 * pxPerCm, ball.y - 12 * pxPerCm])
    expect(said(page, 'touched')).toMatchObject({ directionDeg: -9 })
  })
  it('takes no touch beside the turf', async () => {
    const { page } = await show(GroundPlan, props)
    await touch(page, [40, 40])
    expect(page.emitted('touched')).toBeUndefined()
  })
  it('draws the low point where it lies four times in five', async () => {
    const { page } = await show(GroundPlan, { ...props, lowPoint: { value: 5, se: 2 } })
    const band = page.find('[data-testid=low-band] rect').attributes()
    expect(Number(band.height)).toBeCloseTo(2 * 1.28 * 2 * pxPerCm)
    expect(Number(band.y) + Number(band.height) / 2).toBeCloseTo(ball.y - 5 * pxPerCm)
  })
})

const RANGE = { width: 780, height: 300, reachM: 137.16 * 1.25 }
const TRACK: Track = {
  places: [
    [0, 0, 0],
    [60, 20, -2],
    [120, 0, 0],
  ],
  startDeg: -4,
  curveDeg: 4,
}

describe('the range', () => {
  const props = {
    hand: 'right',
    shots: [shot('a', { start_deg: -3, curve_deg: 6, carry_m: 120 }), shot('b', { start: 'push' })],
    newest: 'b',
    changing: null,
    expectedM: 137.16,
    unit: 'yd',
    way: null,
    predicted: null,
    reading: false,
    tracks: new Map(),
    wild: new Set(),
  }
  it('turns a drag into start, curve and carry', async () => {
    const { page } = await show(RangeFan, props)
    const from = toPoint(-4, 60, RANGE)
    const to = toPoint(2, 110, RANGE)
    await touch(page, [from.x, from.y], [to.x, to.y])
    const flight = said(page, 'touched') as { startDeg: number; curveDeg: number; carryM: number }
    expect(flight.startDeg).toBeCloseTo(-4, 5)
    expect(flight.curveDeg).toBeCloseTo(6, 5)
    expect(flight.carryM).toBeCloseTo(120 * 0.9144, 5) // 110 m is read in whole 5 yd
  })
  it.each(['right', 'left'] as const)('drags the landing of a chosen ball, %s', async (hand) => {
    const { page } = await show(RangeFan, { ...props, hand, changing: 'a' })
    const sign = hand === 'right' ? 1 : -1
    const [landing, to] = [toPoint(3 * sign, 120, RANGE), toPoint(1 * sign, 110, RANGE)]
    await touch(page, [landing.x + 5, landing.y], [to.x, to.y])
    const flight = said(page, 'touched') as { startDeg: number; curveDeg: number; carryM: number }
    expect(flight.startDeg).toBeCloseTo(-3, 5) // it started where it did
    expect(flight.curveDeg).toBeCloseTo(4, 5)
    expect(flight.carryM).toBeCloseTo(120 * 0.9144, 5)
  })
  it('a tap is a start alone, to the other side for a left-hander', async () => {
    const { page } = await show(RangeFan, { ...props, hand: 'left' })
    const at = toPoint(-4, 60, RANGE)
    await touch(page, [at.x, at.y])
    const flight = said(page, 'touched') as { startDeg: number; curveDeg: null }
    expect(flight.startDeg).toBeCloseTo(4, 5)
    expect(flight.curveDeg).toBeNull()
  })
  it('keeps a drag to itself', async () => {
    expect(keepsDrags((await show(RangeFan, props)).page)).toBe(true)
  })
  it('forgets a touch that the browser took away', async () => {
    const { page } = await show(RangeFan, props)
    await page
      .find('svg')
      .trigger('pointerdown', { clientX: 300, clientY: 100, button: 0, pointerId: 1 })
    expect(page.find('.draft').exists()).toBe(true)
    await page.find('svg').trigger('pointercancel')
    expect(page.find('.draft').exists()).toBe(false)
    expect(page.emitted('touched')).toBeUndefined()
  })
  it('chooses the nearest landing while balls are read', async () => {
    const { page } = await show(RangeFan, { ...props, reading: true })
    const end = toPoint(3, 120, RANGE)
    await page.find('svg').trigger('pointerdown', { clientX: end.x + 6, clientY: end.y, button: 0 })
    expect(said(page, 'chosen')).toBe('a')
  })
  it.each(['right', 'left'] as const)('is aimed by keyboard, %s-handed', async (hand) => {
    const { page } = await show(RangeFan, { ...props, shots: [], newest: null, hand })
    const range = page.find('[role=slider]')
    expect(range.attributes('aria-valuetext')).toBe('0 balls')
    await range.trigger('keydown', { key: 'ArrowLeft' })
    await range.trigger('keydown', { key: 'ArrowRight', shiftKey: true })
    await range.trigger('keydown', { key: 'ArrowDown' })
    expect(range.attributes('aria-valuetext')).toBe(
      '0 balls. Aimed: starts 2° left, ends straight, 145 yd',
    )
    expect(page.find('.draft').exists()).toBe(true)
    await range.trigger('keydown', { key: 'Enter' })
    const sign = hand === 'right' ? 1 : -1
    expect(said(page, 'touched')).toEqual({
      startDeg: -2 * sign,
      curveDeg: 2 * sign,
      carryM: 145 * 0.9144,
      tapM: null,
    })
    await range.trigger('keydown', { key: 'Enter' })
    expect(page.emitted('touched')).toHaveLength(1)
    await range.trigger('keydown', { key: 'ArrowLeft' })
    await range.trigger('keydown', { key: 'Escape' })
    expect(page.find('.draft').exists()).toBe(false)
  })
  it('takes no keys after a press, and a field that was typed into is left', async () => {
    const { page } = await show(RangeFan, props)
    const field = document.body.appendChild(document.createElement('input'))
    field.focus()
    await page.find('svg').trigger('mousedown')
    expect(document.activeElement).toBe(document.body)
    field.remove()
  })
  it('says its newest ball, and chooses another while balls are read', async () => {
    const { page } = await show(RangeFan, { ...props, newest: 'a', reading: true })
    const range = page.find('[role=slider]')
    expect(range.attributes('aria-label')).toBe('Range: where the ball starts and lands')
    expect(range.attributes('aria-valuetext')).toBe(
      '2 balls. The last: starts 3° left, ends 3° right, 131 yd',
    )
    expect(range.attributes('aria-valuenow')).toBe('-3')
    await range.trigger('keydown', { key: 'ArrowRight' })
    expect(said(page, 'chosen')).toBe('b')
    await range.trigger('keydown', { key: 'Enter' })
    expect(page.emitted('touched')).toBeUndefined()
  })
  it('draws a computed flight from the ball to its mark', async () => {
    const { page } = await show(RangeFan, {
      ...props,
      tracks: new Map([['a', TRACK]]),
      wild: new Set(['a']),
    })
    const path = page.findAll('g.flight path')[0]?.attributes('d') ?? ''
    const ball = ballAt(RANGE)
    const landing = toPoint(3, 120, RANGE)
    expect(path.startsWith(`M${ball.x.toFixed(1)} ${ball.y.toFixed(1)}L`)).toBe(true)
    expect(path.endsWith(`L${landing.x.toFixed(1)} ${landing.y.toFixed(1)}`)).toBe(true)
    expect(page.findAll('g.flight')[0]?.classes()).toContain('wild')
  })
  it('turns a track as its mark says, and leaves one alone that fits', () => {
    const end = (path: string) => path.split('L').at(-1)
    const as = (startDeg: number, curveDeg: number) =>
      end(trackPath(TRACK, { startDeg, curveDeg }, 1, RANGE))
    const at = (deg: number) => {
      const p = toPoint(deg, 120, RANGE)
      return `${p.x.toFixed(1)} ${p.y.toFixed(1)}`
    }
    expect(as(-4, 4)).toBe(at(0))
    expect(as(-2, 4)).toBe(at(2))
    expect(as(-4, 9)).toBe(at(5))
    expect(end(trackPath(TRACK, { startDeg: -2, curveDeg: 4 }, -1, RANGE))).toBe(at(-2))
  })
})

describe('the side view', () => {
  it('draws every flight, says the height of the newest and chooses by touch', async () => {
    const balls = readings().balls.map((b) => ({ id: b.shot_id, track: b.track, apexM: b.apex_m }))
    const { page } = await show(SideView, { balls, newest: 'b', reachM: 137, unit: 'yd' })
    expect(page.findAll('path.flight')).toHaveLength(2)
    expect(page.find('[data-testid=apex]').text()).toBe('23 yd up')
    await page.findAll('path.flight')[0]?.trigger('pointerdown')
    expect(said(page, 'chosen')).toBe('a')
    const none = await show(SideView, { balls: [], newest: null, reachM: 137, unit: 'm' })
    expect(none.page.find('[data-testid=apex]').exists()).toBe(false)
  })
})

describe('the turf strip', () => {
  const shots = [
    shot('a', { divot_start_cm: -3, divot_length_cm: 10 }),
    shot('b', { divot_start_cm: -30 }),
  ]
  it('says the low point with its doubt and reaches as far as the divots', async () => {
    const lowPoint = { value: -2.4, se: 1.6 }
    const { page } = await show(TurfStrip, { shots, newest: 'a', lowPoint, teed: false })
    expect(page.find('[data-testid=low-says]').text()).toBe('low point −2 cm ± 2')
    for (const mark of page.findAll('line.mark')) {
      expect(Number(mark.attributes('x1'))).toBeGreaterThanOrEqual(0)
    }
    await page.findAll('.divot')[1]?.trigger('pointerdown')
    expect(said(page, 'chosen')).toBe('b')
  })
  it('says that a teed ball takes no turf, unless some was noted', async () => {
    const teed = { newest: null, lowPoint: null, teed: true }
    expect((await show(TurfStrip, { ...teed, shots: [] })).page.text()).toContain(
      'no turf is taken',
    )
    expect((await show(TurfStrip, { ...teed, shots })).page.text()).not.toContain('no turf')
  })
})

describe('the delivery', () => {
  const delivery = {
    path: { value: -4.12, se: 1 },
    face: { value: 0.6, se: 1.2 },
    attack: { value: -3.04, se: 0.4 },
  }
  it('says path, face and attack with their doubt', async () => {
    const { page } = await show(DeliveryPlan, { hand: 'right', ...delivery, chosen: null })
    expect(page.find('[data-testid=path-says]').text()).toBe('path 4.1° left ± 1.0')
    expect(page.find('[data-testid=face-says]').text()).toBe('face 0.6° right ± 1.2')
    expect(page.find('[data-testid=attack-says]').text().replace(/\s+/g, ' ')).toBe(
      'attack −3.0° ± 0.4',
    )
  })
  it('mirrors for a left-hander and says what is not known', async () => {
    const { page } = await show(DeliveryPlan, {
      hand: 'left',
      ...delivery,
      face: null,
      attack: null,
      chosen: null,
    })
    expect(page.find('[data-testid=path-says]').text()).toBe('path 4.1° right ± 1.0')
    expect(page.find('[data-testid=face-says]').text()).toBe('face not known')
    expect(page.find('.face').exists()).toBe(false)
  })
  it('lays a chosen ball over the block', async () => {
    const chosen = { path: 2, face: 3, attack: -1 }
    const { page } = await show(DeliveryPlan, { hand: 'right', ...delivery, chosen })
    expect(page.findAll('.chosen path')).toHaveLength(3)
  })
})

describe('lost distance', () => {
  const props = { lost: readings().lost, source: 'named', unit: 'yd', whose: 'The block' }
  it('says what is short, of what, and where it went, largest first', async () => {
    const { page } = await show(LostStrip, props)
    expect(page.text()).toContain('The block: 16 yd short of 150 yd expected (your figure)')
    expect(page.findAll('.items > span').map((i) => i.text())).toEqual([
      'strike 15',
      'unexplained 2',
      'loft and spin 1',
    ])
    expect(page.find('.won').text()).toBe('won: club speed +2')
  })
  it('gives no account that does not add up, and says what to look at', async () => {
    const lost = { ...readings().lost, actual_m: 137.16, adds_up: false, remainder_m: -40 }
    const { page } = await show(LostStrip, { ...props, lost, unit: 'm' })
    expect(page.find('[data-testid=does-not-add-up]').text()).toContain('would have cost 40 m')
    expect(page.find('.bar').exists()).toBe(false)
    expect(page.text()).not.toContain('unexplained')
  })
  it('parts the bar so that it is full', async () => {
    const { page } = await show(LostStrip, props)
    const parts = page
      .findAll('.bar > span')
      .map((s) => parseFloat(s.attributes('style')?.replace('width: ', '') ?? ''))
    expect(parts.reduce((a, b) => a + b)).toBeCloseTo(100, 5)
  })
  it('says longer where more came than was expected, and a carry that was computed', async () => {
    const lost = { ...readings().lost, actual_m: 150, measured: false }
    const { page } = await show(LostStrip, { ...props, lost, unit: 'm', source: 'handicap' })
    expect(page.text()).toContain('13 m longer')
    expect(page.text()).toContain('carry as computed')
    expect(page.text()).toContain('usual at this handicap')
  })
})
