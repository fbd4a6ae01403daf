// The one table of keys: what each does, where it does nothing, and that the help tells of it.
import { describe, expect, it, vi } from 'vitest'
import { act, KEY_HELP, type Actions, type Reach } from '@/lesson/keys'

const NAMES = [
  'start', 'curve', 'shape', 'contact', 'strike', 'divot', 'carry', 'answer', 'repetition', 'stage', 'next',
  'step', 'remove', 'undo', 'redo', 'help', 'escape',
] as const // prettier-ignore
const TO_RIGHT = ['far_pull', 'pull', 'straight', 'push', 'far_push'] as const
const ON_SHOTS: Reach = { balls: true, answers: true, repetitions: false }
const ELSEWHERE: Reach = { balls: false, answers: false, repetitions: false }

function press(k: string, reach = ON_SHOTS, more: object = {}, directions = TO_RIGHT) {
  const actions = Object.fromEntries(NAMES.map((n) => [n, vi.fn()])) as unknown as Actions
  const event = { key: k, ctrlKey: false, metaKey: false, shiftKey: false, altKey: false, ...more }
  const done = act(event, directions, actions, reach)
  const called = NAMES.flatMap((n) =>
    vi.mocked(actions[n]).mock.calls.map((given) => [n, ...given]),
  )
  return { done, called }
}

describe('a key', () => {
  it.each([
    ['1', 'start', 'far_pull'],
    ['T', 'curve', 'far_push'],
    ['g', 'contact', 'heel'],
    ['h', 'contact', 'hosel'],
    ['8', 'shape', { start: 'push', curve: 'straight' }],
    ['6', 'shape', { curve: 'far_push' }],
    ['z', 'strike', -22],
    [',', 'divot', -1],
    ['+', 'carry', 5],
    ['p', 'answer', 'partly'],
    ['ArrowRight', 'step', 1],
    ['ArrowLeft', 'step', -1],
    [']', 'stage', 1],
    ['[', 'stage', -1],
  ])('%s: %s %s', (k, name, value) => {
    expect(press(k)).toEqual({ done: true, called: [[name, value]] })
  })
  it.each([
    ['Enter', 'next'],
    ['Delete', 'remove'],
    ['?', 'help'],
    ['Escape', 'escape'],
  ])('%s: %s', (k, name) => {
    expect(press(k)).toEqual({ done: true, called: [[name]] })
  })
  it('start sides are those seen: for a left-hander the first key is the push side', () => {
    const mirrored = [...TO_RIGHT].reverse() as unknown as typeof TO_RIGHT
    expect(press('1', ON_SHOTS, {}, mirrored).called).toEqual([['start', 'far_push']])
  })
  it('undoes and redoes with control, and does nothing else with control or alt', () => {
    expect(press('z', ON_SHOTS, { ctrlKey: true }).called).toEqual([['undo']])
    expect(press('z', ON_SHOTS, { ctrlKey: true, shiftKey: true }).called).toEqual([['redo']])
    for (const more of [{ ctrlKey: true }, { metaKey: true }, { altKey: true }])
      expect(press('a', ON_SHOTS, more)).toEqual({ done: false, called: [] })
    expect(press('F5').done).toBe(false)
    expect(press('k').done).toBe(false)
  })
  it.each(['1', 'q', 'a', 'z', ',', '+', 'Enter', 'Delete', 'ArrowLeft'])(
    '%s logs no ball where none is seen',
    (k) => {
      expect(press(k, { ...ELSEWHERE, answers: true })).toEqual({ done: false, called: [] })
    },
  )
  it('answers looks only beside the decision; help, escape and stages work everywhere', () => {
    expect(press('y', ELSEWHERE).done).toBe(false)
    expect(press('y', { ...ELSEWHERE, answers: true }).called).toEqual([['answer', 'yes']])
    for (const k of ['?', 'Escape', '[', ']']) expect(press(k, ELSEWHERE).done).toBe(true)
  })
  it.each([
    ['r', 'pass'],
    ['E', 'early'],
    ['l', 'late'],
  ])('on the bench %s is a repetition: %s', (k, result) => {
    const reach = { ...ELSEWHERE, repetitions: true }
    expect(press(k, reach).called).toEqual([['repetition', result]])
    expect(press(k, ELSEWHERE).done).toBe(false)
  })
  it('that does something is in the help', () => {
    const helped = new Set(KEY_HELP.flatMap((row) => row.keys.toLowerCase().split(' ')))
    for (const k of '12345qwertasdfghzxcvb,.ypnurel[]?'.split('')) expect(helped).toContain(k)
    for (const k of ['enter', 'delete', 'esc', 'ctrl+z']) expect(helped).toContain(k)
  })
})
