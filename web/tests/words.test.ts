import { describe, expect, it } from 'vitest'
import { leftToRight, pushSign, toWord } from '@/ui/frame'
import { signed, typedNumber } from '@/ui/units'
import type { Diagnosis, Knowledge, Shape } from '@/api/client'
import {
  changeWords,
  degreesWord,
  directionWord,
  patternWords,
  say,
  standingDetail,
  standingWord,
  timesWord,
} from '@/ui/words'

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
    const words = [-7, -6, -2.1, 2, 2.1, 6.1].map(toWord)
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
  it('tells a pattern and leaves out what is not known', () => {
    expect(patternWords({ ...nothing, carry_pct: of(93) }, 'right')).toBe(
      'starts straight, centre strike, low point 0 cm, carries 93 % of what is expected',
    )
  })
  it('says where the decision stands and what would turn it', () => {
    const knowledge = {
      causes: [
        { id: 'a', label: 'heel up' },
        { id: 'b', label: 'chest first' },
      ],
      mechanisms: [],
      checks: [{ id: 'c', label: 'arms tense' }],
    } as unknown as Knowledge
    const turn = { check: 'c', answer: 'yes', chance: 0.34, then_first: 'b' }
    const stands = (kind: string, margin = 0.1, turned: unknown = turn, first = 0.5) =>
      ({
        standing: {
          kind,
          margin,
          leading: ['a', 'b'],
          turn: turned,
          balls_missing: 3,
          answers_missing: 1,
        },
        ranking: { causes: [{ id: 'a', probability: first }] },
      }) as unknown as Diagnosis
    expect(standingWord(stands('too_little'), knowledge)).toBe(
      'Not enough yet: 3 more balls or 1 more answer.',
    )
    expect(standingWord(stands('open'), knowledge)).toBe('Open between heel up and chest first.')
    expect(standingWord(stands('open', 0.3), knowledge)).toBe('Nearly: heel up.')
    expect(standingDetail(stands('open', 0.3), knowledge)).toBe(
      '“Arms tense: yes” (34\u00a0% likely) would put chest first first.',
    )
    expect(standingWord(stands('settled', 0.6), knowledge)).toBe('Settled: heel up.')
    expect(standingDetail(stands('settled', 0.6), knowledge)).toBe(
      'It would change with “Arms tense: yes” (34\u00a0% likely).',
    )
    expect(standingDetail(stands('settled', 0.6, null), knowledge)).toBe(
      'No single look left would turn it.',
    )
    expect(standingWord(stands('unclear'), knowledge)).toBe('No cause stands out yet.')
    expect(standingWord(stands('unclear', 0.1, null, 0.9), knowledge)).toBe(
      'Heel up, but where it starts is open.',
    )
  })
})
