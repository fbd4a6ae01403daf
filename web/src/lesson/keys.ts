// Every key of the lesson screen, in one table: what handles them and what shows them read it.
import type { AnswerWord, Direction, Shape, Shot } from '@/api/client'

export const START_KEYS = ['1', '2', '3', '4', '5'] as const
export const CURVE_KEYS = ['q', 'w', 'e', 'r', 't'] as const
export const CONTACT_KEYS: readonly [string, NonNullable<Shot['contact']>][] = [
  ['a', 'clean'],
  ['s', 'fat'],
  ['d', 'thin'],
  ['f', 'top'],
  ['g', 'heel'],
  ['h', 'hosel'],
  ['j', 'toe'],
]
/** A whole flight in a word; of a slice or hook it is not said where it started. */
export const SHAPE_KEYS: readonly [string, { id: string; word: string; noted: Shot }][] = [
  ['6', { id: 'slice', word: 'Slice', noted: { curve: 'far_push' } }],
  ['7', { id: 'hook', word: 'Hook', noted: { curve: 'far_pull' } }],
  ['8', { id: 'push', word: 'Push', noted: { start: 'push', curve: 'straight' } }],
  ['9', { id: 'pull', word: 'Pull', noted: { start: 'pull', curve: 'straight' } }],
  ['0', { id: 'straight', word: 'Straight', noted: { start: 'straight', curve: 'straight' } }],
]
/** Strike by key, from the heel to the toe, in millimetres. */
export const STRIKE_KEYS: readonly [string, number][] = [
  ['z', -22],
  ['x', -11],
  ['c', 0],
  ['v', 11],
  ['b', 22],
]
export const ANSWER_KEYS: readonly [string, AnswerWord][] = [
  ['y', 'yes'],
  ['p', 'partly'],
  ['n', 'no'],
  ['u', 'unknown'],
]

export const REPETITION_KEYS: readonly [string, Result][] = [
  ['r', 'pass'],
  ['e', 'early'],
  ['l', 'late'],
]
type Result = Shape['RepetitionIn']['result']

export interface Actions {
  start: (direction: Direction) => void
  curve: (direction: Direction) => void
  shape: (noted: Shot) => void
  contact: (word: NonNullable<Shot['contact']>) => void
  strike: (mm: number) => void
  divot: (byCm: number) => void
  carry: (by: number) => void
  answer: (word: AnswerWord) => void
  repetition: (result: Result) => void
  stage: (by: 1 | -1) => void
  next: () => void
  step: (by: 1 | -1) => void
  remove: () => void
  undo: () => void
  redo: () => void
  help: () => void
  escape: () => void
}

/** What keys may do on a stage: only what is seen there. */
export interface Reach {
  balls: boolean
  answers: boolean
  repetitions: boolean
}

/** Do what a key means; false when it means nothing here. */
export function act(
  event: Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'shiftKey' | 'altKey'>,
  directions: readonly Direction[],
  actions: Actions,
  reach: Reach,
): boolean {
  const key = event.key.length === 1 ? event.key.toLowerCase() : event.key
  if (event.ctrlKey || event.metaKey) return undoKey(key, event.shiftKey, actions)
  if (event.altKey) return false
  const anywhere: Record<string, () => void> = {
    Escape: actions.escape,
    '?': actions.help,
    '[': () => {
      actions.stage(-1)
    },
    ']': () => {
      actions.stage(1)
    },
  }
  const ofBalls: Record<string, () => void> = {
    Enter: actions.next,
    ArrowLeft: () => {
      actions.step(-1)
    },
    ArrowRight: () => {
      actions.step(1)
    },
    Delete: actions.remove,
    ',': () => {
      actions.divot(-1)
    },
    '.': () => {
      actions.divot(1)
    },
    '-': () => {
      actions.carry(-5)
    },
    '+': () => {
      actions.carry(5)
    },
    '=': () => {
      actions.carry(5)
    },
  }
  const start = directions[START_KEYS.indexOf(key as (typeof START_KEYS)[number])]
  const curve = directions[CURVE_KEYS.indexOf(key as (typeof CURVE_KEYS)[number])]
  const shape = SHAPE_KEYS.find(([k]) => k === key)
  const contact = CONTACT_KEYS.find(([k]) => k === key)
  const strike = STRIKE_KEYS.find(([k]) => k === key)
  const answer = reach.answers ? ANSWER_KEYS.find(([k]) => k === key) : undefined
  const repetition = reach.repetitions ? REPETITION_KEYS.find(([k]) => k === key) : undefined
  if (anywhere[key]) anywhere[key]()
  else if (repetition) actions.repetition(repetition[1])
  else if (answer) actions.answer(answer[1])
  else if (!reach.balls) return false
  else if (start) actions.start(start)
  else if (curve) actions.curve(curve)
  else if (shape) actions.shape(shape[1].noted)
  else if (contact) actions.contact(contact[1])
  else if (strike) actions.strike(strike[1])
  else if (ofBalls[key]) ofBalls[key]()
  else return false
  return true
}

function undoKey(key: string, shift: boolean, actions: Actions): boolean {
  if (key === 'z' && !shift) actions.undo()
  else if (key === 'y' || (key === 'z' && shift)) actions.redo()
  else return false
  return true
}

export const KEY_HELP: readonly { keys: string; what: string }[] = [
  { keys: '1 2 3 4 5', what: 'the ball starts far left, left, straight, right, far right' },
  { keys: 'Q W E R T', what: 'it curves far left, left, not, right, far right' },
  { keys: '6 7 8 9 0', what: 'a whole flight: slice, hook, push, pull, straight' },
  { keys: 'A S D F G H J', what: 'contact: clean, fat, thin, top, heel, hosel, toe' },
  { keys: 'Z X C V B', what: 'strike from the heel to the toe' },
  { keys: ', .', what: 'divot 1 cm further back or ahead (first: at the ball)' },
  { keys: '− +', what: 'carry 5 less or more (first: as expected)' },
  {
    keys: 'Tab ← → ↑ ↓',
    what: 'on the range: aim, with Shift the landing; Enter logs',
  },
  { keys: 'Enter', what: 'next ball' },
  { keys: '← →', what: 'choose an earlier or later ball' },
  { keys: 'Delete', what: 'delete the chosen or newest ball' },
  { keys: 'Y P N U', what: 'answer the next look: yes, partly, no, could not tell' },
  { keys: '← → Space', what: 'in a film: a picture back or on, play (Page up, Page down: ten)' },
  { keys: '1 … 9', what: 'in a film: this picture is address, ... impact, finish' },
  { keys: 'R E L', what: 'on the bench: right, not yet early, not yet late' },
  { keys: '[ ]', what: 'the stage before or after' },
  { keys: 'Ctrl+Z Ctrl+Y', what: 'undo, redo' },
  { keys: 'Esc', what: 'let go of a chosen ball or cause' },
  { keys: '?', what: 'show or hide these keys' },
]
