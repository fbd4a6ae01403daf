import { beforeEach, describe, expect, it, vi } from 'vitest'
import { createPinia, setActivePinia } from 'pinia'
import { nextTick, ref, type Ref } from 'vue'
import type { Lesson, LoggedShot, Shot } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import { SHAPE_KEYS } from '@/lesson/keys'
import { useBallEntry } from '@/lesson/shots/useBallEntry'
import type { OpenLesson, Touched } from '@/lesson/useLesson'
import { knowledge } from './mounting'

let shots: LoggedShot[]
let block: Ref<string>
let entry: ReturnType<typeof useBallEntry>

beforeEach(() => {
  setActivePinia(createPinia())
  useKnowledge().knowledge = knowledge
  const lesson = ref({ blocks: [{ id: 'B', shots: [] }] } as unknown as Lesson)
  const list = lesson.value.blocks[0]?.shots ?? []
  shots = list
  const open = {
    lesson,
    putShot(id: string, _block: string, observed: Shot, touched: Touched) {
      const known = list.find((s) => s.id === id)
      if (known) Object.assign(known, { observed, touched })
      else list.push({ id, observed, touched } as unknown as LoggedShot)
    },
    deleteShot(id: string) {
      list.splice(
        list.findIndex((s) => s.id === id),
        1,
      )
    },
  } as unknown as OpenLesson
  block = ref('B')
  entry = useBallEntry(open, () => block.value)
})

const flight = { startDeg: -4, curveDeg: 5, carryM: 118, tapM: null }
const tap = (startDeg: number, tapM: number) => ({
  startDeg,
  curveDeg: null,
  carryM: null,
  tapM,
})

describe('logging a ball', () => {
  it('takes up to three touches in any order, any of which may be skipped', () => {
    entry.strike({ heelToeMm: -12, lowHighMm: 3 })
    entry.flight(flight)
    entry.contact('clean')
    expect(shots).toHaveLength(1)
    expect(shots[0]?.observed).toEqual({
      heel_toe_mm: -12,
      low_high_mm: 3,
      start: 'pull',
      curve: 'push',
      carry_m: 118,
      contact: 'clean',
    })
  })
  it('keeps where the finger was for the mark, and only a word as evidence', () => {
    entry.flight(flight)
    expect(shots[0]?.touched).toEqual({ start_deg: -4, curve_deg: 5 })
    expect(shots[0]?.observed.start_deg).toBeUndefined()
  })
  it('begins the next ball when what is filled is touched again, or at next', () => {
    entry.contact('clean')
    entry.contact('fat')
    entry.next()
    entry.divot({ startCm: -2, lengthCm: null, directionDeg: null })
    expect(shots.map((s) => s.observed)).toEqual([
      { contact: 'clean' },
      { contact: 'fat' },
      { divot_start_cm: -2 },
    ])
  })
  it('changes an earlier ball in place once it is chosen, and lets go of it', () => {
    entry.contact('clean')
    entry.contact('fat')
    entry.choose(shots[0]?.id ?? '')
    entry.contact('thin')
    entry.contact('top')
    expect(shots.map((s) => s.observed.contact)).toEqual(['top', 'fat'])
    entry.next()
    entry.contact('hosel')
    expect(shots).toHaveLength(3)
  })
  it('replaces a whole flight, so that an old curve never stays behind', () => {
    entry.flight(flight)
    entry.choose(shots[0]?.id ?? '')
    entry.flight(tap(7, 100))
    expect(shots[0]?.observed).toEqual({ start: 'far_push' })
    expect(shots[0]?.touched).toEqual({ start_deg: 7 })
  })
  it('makes one ball of a tap where it started and a tap where it landed', () => {
    entry.flight(tap(-4, 60))
    entry.flight(tap(1, 120))
    expect(shots).toHaveLength(1)
    expect(shots[0]?.observed).toEqual({ start: 'pull', curve: 'push', carry_m: 120 })
    expect(shots[0]?.touched).toEqual({ start_deg: -4, curve_deg: 5 })
    entry.flight(tap(3, 60)) // the flight is whole: this begins the next ball
    expect(shots).toHaveLength(2)
  })
  it('makes two balls of two taps that another touch or some seconds part', () => {
    entry.flight(tap(-4, 60))
    entry.contact('clean')
    entry.flight(tap(1, 120))
    expect(shots).toHaveLength(2)
    vi.useFakeTimers({ now: Date.now() + 10_000 })
    entry.flight(tap(1, 60))
    vi.useRealTimers()
    expect(shots).toHaveLength(3)
  })
  it('steps along the tape and deletes the newest or the chosen ball', () => {
    for (const word of ['clean', 'fat', 'thin'] as const) entry.contact(word)
    entry.step(-1)
    entry.remove()
    expect(shots.map((s) => s.observed.contact)).toEqual(['clean', 'thin'])
    entry.remove()
    expect(shots.map((s) => s.observed.contact)).toEqual(['clean'])
  })
  it('adds single values by key, and a second value for the same begins the next ball', () => {
    entry.set({ start: 'pull' })
    entry.set({ curve: 'push' })
    entry.set({ start: 'push', heel_toe_mm: 11 })
    expect(shots.map((s) => s.observed)).toEqual([
      { start: 'pull', curve: 'push' },
      { start: 'push', heel_toe_mm: 11 },
    ])
    entry.choose(shots[0]?.id ?? '')
    entry.set({ start: 'straight' })
    expect(shots[0]?.observed.start).toBe('straight')
    entry.adjust({ carry_m: 120 })
    entry.adjust({ carry_m: 115 })
    expect(shots).toHaveLength(2)
    expect(shots[0]?.observed.carry_m).toBe(115)
  })
  it('takes a whole flight in a word, and of a slice not where it started', () => {
    for (const [, shape] of SHAPE_KEYS) entry.shape(shape.noted)
    expect(shots.map((s) => s.observed)).toEqual([
      { curve: 'far_push' },
      { curve: 'far_pull' },
      { start: 'push', curve: 'straight' },
      { start: 'pull', curve: 'straight' },
      { start: 'straight', curve: 'straight' },
    ])
  })
  it('has no ball open in another block than the one it was begun in', async () => {
    entry.contact('clean')
    block.value = 'R'
    await nextTick()
    expect(entry.openId.value).toBe(null)
    entry.contact('fat')
    expect(shots[0]?.observed).toEqual({ contact: 'clean' })
  })
})
