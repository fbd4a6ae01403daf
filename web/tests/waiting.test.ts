// What waits is kept across pages, counted, and what was refused can be mended.
import 'fake-indexeddb/auto'
import { IDBFactory } from 'fake-indexeddb'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { writeStore, type Entry } from '@/sync/writeStore'
import { newId } from '@/sync/page'
import { standing, type Write } from '@/sync/writes'
import { applyWrite, begunHere } from '@/sync/applyWrite'
import {
  bothCanBeKept,
  puttingBack,
  rowWord,
  settledConflict,
  valueWord,
} from '@/sync/waiting/conflict'
import { block, furnish, lesson, shot } from './mounting'

const note = (text: string): Write => ({ kind: 'note', lesson: 'L', id: text, body: { text } })
const entry = (name: string, order: number): Entry => {
  return { name, page: 'P', owner: 'P', order, write: note(name) }
}
const told = {
  where: 'listen.health',
  theirs: 'pregnant, no impact drills',
  mine: 'sore wrist',
}
const stale = {
  kind: 'lesson',
  lesson: 'L',
  id: 'L',
  body: { listen: { health: 'sore wrist', goal: 'x' }, was: { 'listen.health': '' } },
} as unknown as Write

beforeEach(furnish)

describe('writes that wait', () => {
  it('are there for the next page, in the order they were made', async () => {
    const here = writeStore()
    await here.put(entry('b', 2))
    await here.put(entry('a', 1))
    await here.put(entry('c', 3))
    await here.remove('c')
    const next = await writeStore().all()
    expect(next.map((e) => e.write.id)).toEqual(['a', 'b'])
  })
  it('of an earlier version are taken over once', async () => {
    localStorage.setItem('firm-footing-outbox', JSON.stringify([note('old')]))
    const kept = writeStore()
    await kept.all() // looking takes nothing
    const taken = () => kept.claimOrphans('P', () => false)
    expect((await taken()).map((e) => [e.write.id, e.owner])).toEqual([['old', 'P']])
    expect(await taken()).toEqual([])
  })
  it('have names that no other page makes', () => {
    expect(new Set(Array.from({ length: 200 }, newId)).size).toBe(200)
  })
})

describe('a lesson with writes that wait', () => {
  it('shows them as the server will', () => {
    const listen = { goal: '', health: 'sore wrist' } as never
    const shots = [shot('a', { start: 'pull' })]
    const now = lesson([block(shots)], { listen, repetitions: [] })
    const writes = [
      { kind: 'shot', lesson: 'L', id: 'b', body: { block_id: 'B', observed: {}, touched: {} } },
      { kind: 'shot-gone', lesson: 'L', id: 'a' },
      { kind: 'lesson', lesson: 'L', id: 'L', body: { listen: { goal: 'x' }, was: {} } },
      { kind: 'decision', lesson: 'L', id: 'd', body: { cause: 'backs_up', id: 'd' } },
      { kind: 'repetition', lesson: 'L', id: 'r', body: { drill: 'd', result: 'pass' } },
      note('tired'),
    ] as unknown as Write[]
    for (const write of [...writes, ...writes]) applyWrite(now, write)
    expect(now.blocks[0]?.shots.map((s) => s.id)).toEqual(['b'])
    expect(now.listen).toMatchObject({ goal: 'x', health: 'sore wrist' })
    expect(now.decisions.map((d) => d.cause)).toEqual(['backs_up'])
    expect([now.repetitions.length, now.notes.length]).toEqual([1, 1])
  })
  it('is as it stands once what was taken back is out of it', () => {
    const undo = { kind: 'undo', lesson: 'L', id: 'L', body: { step: null } } as Write
    const redo = { ...undo, kind: 'redo' } as Write
    const texts = (writes: Write[]) => standing(writes).map((w) => w.id)
    expect(texts([note('a'), note('b'), undo])).toEqual(['a'])
    expect(texts([note('a'), note('b'), undo, undo, redo])).toEqual(['a'])
    expect(texts([note('a'), undo, note('c'), redo])).toEqual(['c'])
    expect(texts([undo])).toEqual([])
  })
  it('is there although the server has never heard of it', () => {
    const student = lesson().student
    const begun = { kind: 'new-lesson', lesson: 'N', id: student.id, student, body: {} }
    const found = begunHere([begun as unknown as Write], 'N')
    expect(found).toMatchObject({ id: 'N', student, blocks: [{ shots: [] }] })
    expect(begunHere([], 'N')).toBeNull()
  })
})

describe('a conflict', () => {
  it('keeps both, in one field', () => {
    expect(settledConflict(stale, told, 'both')).toMatchObject({
      body: {
        listen: { health: 'pregnant, no impact drills; sore wrist', goal: 'x' },
        was: { 'listen.health': 'pregnant, no impact drills' },
      },
    })
  })
  it('keeps this one, knowing of the other', () => {
    expect(settledConflict(stale, told, 'mine')).toMatchObject({
      body: { listen: { health: 'sore wrist' }, was: { 'listen.health': told.theirs } },
    })
  })
  it("keeps the other's, and sends what is left", () => {
    expect(settledConflict(stale, told, 'theirs')).toMatchObject({
      body: { listen: { goal: 'x' }, was: {} },
    })
    const only = { ...stale, body: { listen: { health: 'sore wrist' }, was: {} } } as Write
    expect(settledConflict(only, told, 'theirs')).toBeNull()
  })
  it.each([
    ['', 'nothing'],
    [true, 'yes'],
    [['lower_back', 'knee'], 'lower back, knee'],
    [{ knee: { side: 'left' } }, 'knee side left'],
    [null, 'nothing'],
  ])('says %j as %s', (value, word) => {
    expect(valueWord(value)).toBe(word)
  })
})

describe('of a ball that two devices changed', () => {
  const conflict = { where: 'observed.contact', theirs: 'thin', mine: 'clean' }
  const write = {
    kind: 'shot',
    lesson: 'L',
    id: 's',
    body: {
      block_id: 'B',
      observed: { contact: 'clean', curve: 'push' },
      was: { observed: { contact: 'fat', curve: null } },
    },
  } as unknown as Write
  const sent = (choice: 'mine' | 'theirs') =>
    (settledConflict(write, conflict, choice) as { body: unknown } | null)?.body

  it('this one is sent as seen beside the other', () => {
    expect(sent('mine')).toMatchObject({
      observed: { contact: 'clean', curve: 'push' },
      was: { observed: { contact: 'thin', curve: null } },
    })
  })
  it("the other's leaves what else is new here", () => {
    expect(sent('theirs')).toMatchObject({ observed: { contact: 'thin', curve: 'push' } })
  })
  it("nothing is left of a note where the other's is kept", () => {
    const note = { kind: 'note', lesson: 'L', id: 'n', body: { text: 'b', was: { text: 'a' } } }
    const both = { where: 'text', theirs: 'c', mine: 'b' }
    expect(settledConflict(note as Write, both, 'theirs')).toBeNull()
    expect(settledConflict(note as Write, both, 'both')).toMatchObject({ body: { text: 'c; b' } })
  })
  it("only words of one's own can both be kept", () => {
    expect(bothCanBeKept(conflict)).toBe(false)
    expect(bothCanBeKept(told)).toBe(true)
  })
  it('is read out without what was left open', () => {
    const observed = { contact: 'toe', carry_m: 137.16, start_deg: null, heel_toe_mm: -12 }
    const row = { observed, touched: { start_deg: 0.003 }, block_id: 'B' }
    expect(rowWord(row)).toBe('contact toe, carry 137.2 m, heel toe -12 mm')
  })
  it('one that was taken out there is put back as new', () => {
    expect((puttingBack(write) as { body: object }).body).not.toHaveProperty('was')
  })
})

describe('writes of several pages', () => {
  it('are taken over all at once, from pages that are gone', async () => {
    const here = writeStore()
    await here.put({ ...entry('of-q', 1), owner: 'Q' })
    await here.put({ ...entry('of-r', 2), owner: 'R' })
    const taken = await here.claimOrphans('P', (owner) => owner === 'Q')
    expect(taken.map((e) => [e.name, e.owner])).toEqual([['of-q', 'P']])
    expect(await writeStore().claimOrphans('S', (owner) => owner === 'Q')).toEqual([])
  })
  it('count their beats, and leave', async () => {
    const here = writeStore()
    await here.beat('P')
    await here.beat('P')
    await here.beat('Q')
    await here.leave('Q')
    expect([...(await here.beats())]).toEqual([['P', 2]])
  })
  it('are not waited for while a page of an older version holds them', async () => {
    vi.stubGlobal('indexedDB', new IDBFactory())
    const held = await new Promise<IDBDatabase>((done) => {
      const asked = indexedDB.open('firm-footing', 1)
      asked.onupgradeneeded = () => asked.result.createObjectStore('writes', { keyPath: 'name' })
      asked.onsuccess = () => {
        done(asked.result)
      }
    })
    const here = writeStore()
    await expect(here.put(entry('a', 1))).rejects.toThrow('older page')
    held.close()
    await here.put(entry('a', 1))
    expect((await here.all()).map((e) => e.name)).toEqual(['a'])
  })
})
