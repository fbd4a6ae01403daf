// The posed figure: every number of it moves something, and left-handers are mirrored.
import { beforeEach, describe, expect, it } from 'vitest'
import { downTheLine, faceOn, type Pose } from '@/drawing/pose'
import PosedFigure from '@/drawing/PosedFigure.vue'
import { furnish, show } from './mounting'

beforeEach(furnish)

const BEHIND: Pose = { seat: -7, low: 0, spine: 38, head: 0, knee: 5, trail_knee: 0, heel: 0, slid: 0, reach: 8, arm: 30, shaft: 52 } // prettier-ignore
const FACING: Pose = { hips: 0, spine: 4, head: 0, lead_flare: 0.5, lead_toe: 0, heel: 0, roll: 0, hands: 3, high: 0, fold: 0, shaft: -4, ball: 4 } // prettier-ignore

describe('the figure', () => {
  it.each(Object.keys(BEHIND))('seen from behind, %s moves something', (name) => {
    const moved = downTheLine({ ...BEHIND, [name]: (BEHIND[name] ?? 0) + 6 })
    expect(moved).not.toEqual(downTheLine(BEHIND))
  })
  it.each(Object.keys(FACING))('face on, %s moves something', (name) => {
    const moved = faceOn({ ...FACING, [name]: (FACING[name] ?? 0) + 6 })
    expect(moved).not.toEqual(faceOn(FACING))
  })
  it('bends toward the ball, and leans from the target', () => {
    const [tall, bent] = [20, 50].map((spine) => downTheLine({ ...BEHIND, spine }).head)
    expect(bent?.x).toBeGreaterThan(tall?.x ?? 0)
    expect(bent?.y).toBeGreaterThan(tall?.y ?? 0)
    expect(faceOn({ ...FACING, spine: 20 }).head.x).toBeLessThan(faceOn(FACING).head.x)
    expect(faceOn({ ...FACING, ball: 40 }).ball).toBeNull()
  })
  it.each([
    ['down_the_line', BEHIND, '.head'],
    ['face_on', FACING, '.arm'],
    ['feet', { lead: 80, lead_toe: 10, trail_toe: 90, aim: 0, up: 1 }, '.load'],
    ['hand', { knuckles: 2.5 }, '.knuckle'],
    ['club', { tilt: 10 }, '.fist'],
  ])('is drawn for %s, mirrored for a left-hander', async (view, pose, part) => {
    const { page, give } = await show(PosedFigure, { view, pose, hand: 'right', word: 'Sound' })
    expect(page.find(part).exists()).toBe(true)
    expect(page.html()).not.toContain('scale(-1 1)')
    await give({ hand: 'left' })
    expect(page.html()).toContain('scale(-1 1)')
  })
  it('shows as many knuckles as there are', async () => {
    const { page } = await show(PosedFigure, {
      view: 'hand',
      pose: { knuckles: 2.5 },
      hand: 'right',
      word: 'Sound',
    })
    expect(page.findAll('.knuckle:not(.hidden)')).toHaveLength(3)
  })
})
