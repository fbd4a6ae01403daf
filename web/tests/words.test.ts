import { describe, expect, it, vi } from 'vitest'
import { act, type Actions } from '@/lesson/keys'
import { KEY_HELP } from '@/lesson/keys'
import { leftToRight, pushSign, toWord } from '@/ui/frame'
import { signed, typedNumber } from '@/ui/units'
import { degreesWord, directionWord, say } from '@/ui/words'

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
    expect(say(text, { hand: 'right', sides: 'lead_trail' })).toBe(text)
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

describe('keys', () => {
  const press = (key: string, more: Partial<KeyboardEvent> = {}) => {
    const actions = Object.fromEntries(
      'start curve contact strike divot carry answer next step remove undo redo help escape'
        .split(' ')
        .map((name) => [name, vi.fn()]),
    ) as unknown as Actions
    const event = { key, ctrlKey: false, metaKey: false, shiftKey: false, altKey: false, ...more }
    const done = act(event, leftToRight('right'), actions)
    const called = Object.entries(actions).find(([, f]) => vi.mocked(f).mock.calls.length > 0)
    return { done, name: called?.[0], given: called ? vi.mocked(called[1]).mock.calls[0] : [] }
  }
  it('does what the table of keys says', () => {
    expect(press('1')).toEqual({ done: true, name: 'start', given: ['far_pull'] })
    expect(press('T')).toEqual({ done: true, name: 'curve', given: ['far_push'] })
    expect(press('g').given).toEqual(['hosel'])
    expect(press('z').given).toEqual([-22])
    expect(press('p').given).toEqual(['partly'])
    expect(press('Enter').name).toBe('next')
    expect(press('ArrowLeft').given).toEqual([-1])
    expect(press('z', { ctrlKey: true }).name).toBe('undo')
    expect(press('z', { ctrlKey: true, shiftKey: true }).name).toBe('redo')
    expect(press('j').done).toBe(false)
  })
  it('shows every key that it handles', () => {
    const shown = KEY_HELP.map((row) => row.keys).join(' ')
    for (const key of '12345qwertasdfghzxcvbypnu'.toUpperCase()) expect(shown).toContain(key)
    for (const key of ['Enter', 'Delete', 'Esc', '?', 'Ctrl+Z']) expect(shown).toContain(key)
  })
})
