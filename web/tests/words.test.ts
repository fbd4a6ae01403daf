import { describe, expect, it } from 'vitest'
import { handicapWord, typedHandicap } from '@/ui/handicap'
import { leftToRight, pushSign, toWord } from '@/ui/frame'
import { signed, typedNumber } from '@/ui/units'
import type { Shape } from '@/api/client'
import { changeWords, degreesWord, directionWord, say, timesWord } from '@/ui/words'
import { knowledge } from './mounting'

describe('words', () => {
  it('names real sides for both hands', () => {
    expect(directionWord('far_pull', 'right')).toBe('far left')
    expect(directionWord('far_pull', 'left')).toBe('far right')
    expect(degreesWord(-5.2, 'right')).toBe('5° left')
    expect(degreesWord(-5.2, 'left')).toBe('5° right')
    expect(leftToRight('left')[0]).toBe('far_push')
    expect(pushSign('left')).toBe(-1)
  })
  it('says lead and trail as the instructor chose', () => {
    const text = 'The trail heel goes to the pull side. Lead foot square'
    expect(say(text, { hand: 'right', sides: 'lead_trail' })).toBe(
      'The trail heel goes to the left side. Lead foot square',
    )
    expect(say(text, { hand: 'right', sides: 'left_right' })).toBe(
      'The right heel goes to the left side. Left foot square',
    )
    expect(say(text, { hand: 'left', sides: 'left_right' })).toBe(
      'The left heel goes to the right side. Right foot square',
    )
  })
  it('turns degrees into the words of the trade', () => {
    const words = [-7, -6, -2.1, 2, 2.1, 6.1].map((deg) => toWord(deg, knowledge.noting))
    expect(words).toEqual(['far_pull', 'pull', 'pull', 'straight', 'push', 'far_push'])
  })
  it('reads numbers as people type them, and tells nothing from nonsense', () => {
    expect([' 3,5 ', '−2', '-2.5', '0'].map(typedNumber)).toEqual([3.5, -2, -2.5, 0])
    expect(['', '   '].map(typedNumber)).toEqual([null, null])
    expect(['abc', '12 yd', '1e999'].map(typedNumber)).toEqual([undefined, undefined, undefined])
  })
  it('writes a real minus', () => {
    expect([signed(-3.26, 1), signed(2), signed(-0.2)]).toEqual(['−3.3', '+2', '0'])
  })
})

const of = (value: number) => ({ value, se: 1 })
const nothing: Shape['SeenOut'] = {
  start_deg: of(0),
  curve_deg: null,
  low_point_cm: of(0.4),
  heel_toe_mm: of(-1),
  carry_pct: null,
}

describe('sentences', () => {
  it('says bits as a factor', () => {
    expect(timesWord(Math.log2(9))).toBe('9 times likelier with this cause')
    expect(timesWord(-1)).toBe('2.0 times likelier without it')
    expect(timesWord(1.2, '', '')).toBe('2.3 times likelier')
  })
  it('tells a change as an onlooker sees it, mirrored for a left-hander', () => {
    const change = { ...nothing, start_deg: of(4.6), heel_toe_mm: of(12), low_point_cm: of(-3) }
    expect(changeWords(change, 'right')).toBe(
      'starts 5° more to the right, strike 12 mm nearer the toe, low point 3 cm further back',
    )
    expect(changeWords(change, 'left')).toContain('more to the left, strike 12 mm nearer the toe')
    expect(changeWords(nothing, 'right')).toBe('much as before')
  })
})

describe('a handicap as written at the club', () => {
  it('is better than scratch with a plus, and takes a comma', () => {
    expect(['+2', ' 12,4 ', '0', '+0.5', '-3', ''].map(typedHandicap)).toEqual([
      -2,
      12.4,
      0,
      -0.5,
      -3,
      null,
    ])
    expect(['+11', '55', 'scratch', '+'].map(typedHandicap)).toEqual([
      undefined,
      undefined,
      undefined,
      null,
    ])
    expect([-2, 12.4].map(handicapWord)).toEqual(['+2', '12.4'])
  })
})
