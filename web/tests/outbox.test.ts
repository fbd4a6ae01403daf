import { beforeEach, describe, expect, it, vi } from 'vitest'
import { ApiError, hearingFirst, type Diagnosis, type Lesson } from '@/api/client'
import type { Entry, WriteStore } from '@/sync/writeStore'
import { Outbox, type Write } from '@/sync/outbox'
import { writesWord } from '@/sync/writes'
import { changedFields } from '@/sync/changedFields'

interface Body {
  was?: unknown
}
const lesson = { id: 'L' } as Lesson
const shot = (id: string, mm: number, of = 'L'): Write => ({
  kind: 'shot',
  lesson: of,
  id,
  body: { block_id: 'B', observed: { heel_toe_mm: mm } as never, touched: {} },
})
const block = (body: object): Write => ({ kind: 'block', lesson: 'L', id: 'B', body })
const error = (status: number, code = 'refused') =>
  new ApiError({ code, message: 'No.', hint: '', where: '' } as never, status)
const gone = error(0, 'unreachable')

/** What a browser keeps; `full`: nothing. */
function store(kept = new Map<string, Entry>(), full = false): WriteStore {
  const or = <T>(value: T) => (full ? Promise.reject(new Error('full')) : Promise.resolve(value))
  const beats = new Map<string, number>()
  return {
    all: () => or([...kept.values()]),
    put: (entry) => or(full ? null : kept.set(entry.name, entry)),
    remove: (name) => or(kept.delete(name)),
    claimOrphans: (page, isGone) => {
      const orphans = [...kept.values()].filter((e) => e.owner !== page && isGone(e.owner))
      for (const e of orphans) kept.set(e.name, { ...e, owner: page })
      return or(orphans.map((e) => ({ ...e, owner: page })))
    },
    beat: (page) => or(beats.set(page, (beats.get(page) ?? 0) + 1)),
    leave: (page) => or(beats.delete(page)),
    beats: () => or(beats),
  }
}
function listener() {
  return {
    arrived: vi.fn(),
    weighed: vi.fn(),
    settled: vi.fn(),
    waiting: vi.fn(),
    refused: vi.fn(),
  }
}
type Sent = [Write, boolean, string, string]
function made(deliver: unknown, kept?: Map<string, Entry>, full = false) {
  const outbox = new Outbox('P', store(kept, full), deliver as never)
  const heard = listener()
  outbox.subscribe('L', heard)
  return { outbox, heard }
}
const sentIds = (deliver: { mock: { calls: unknown[][] } }) =>
  deliver.mock.calls.map((call) => (call as Sent)[0].id)

vi.stubGlobal('navigator', {})

beforeEach(() => {
  vi.useFakeTimers()
})

describe('the outbox', () => {
  it('sends in order and settles once everything has arrived', async () => {
    const deliver = vi.fn().mockResolvedValue(lesson)
    const kept = new Map<string, Entry>()
    const { outbox, heard } = made(deliver, kept)
    outbox.put(shot('a', 1))
    outbox.put(shot('b', 2))
    await vi.runAllTimersAsync()
    expect(sentIds(deliver)).toEqual(['a', 'b'])
    expect(heard.settled).toHaveBeenCalledOnce()
    expect(kept.size).toBe(0)
  })

  it('waits longer after each failure, and goes at once when the browser is online', async () => {
    let isThere = false
    const deliver = vi.fn(() =>
      isThere ? Promise.resolve(lesson) : Promise.reject(new TypeError('no network')),
    )
    const { outbox } = made(deliver)
    await outbox.start()
    outbox.put(shot('a', 1))
    const tries = async (ms: number) => {
      await vi.advanceTimersByTimeAsync(ms)
      return deliver.mock.calls.length
    }
    expect(await tries(1)).toBe(1)
    expect(await tries(2_000)).toBe(2)
    expect(await tries(2_000)).toBe(2)
    expect(await tries(2_000)).toBe(3)
    expect(await tries(7_000)).toBe(3)
    expect(await tries(1_000)).toBe(4)
    const before = await tries(600_000)
    expect(before).toBeGreaterThan(12) // never later than after a minute
    expect(before).toBeLessThan(20)
    isThere = true
    window.dispatchEvent(new Event('online'))
    expect(await tries(1)).toBe(before + 1)
    expect(outbox.state.entries).toEqual([])
  })

  it('asks what follows with the last write alone', async () => {
    const deliver = vi.fn().mockResolvedValue(lesson)
    const { outbox } = made(deliver)
    for (const id of ['a', 'b', 'c']) outbox.put(shot(id, 1))
    await vi.runAllTimersAsync()
    expect(deliver.mock.calls.map((call) => [(call as Sent)[0].id, (call as Sent)[1]])).toEqual([
      ['a', true], // it left before the others came
      ['b', false],
      ['c', true],
    ])
  })

  it('tells the ranking before the rest, and only that of all that was put', async () => {
    const found = { ranking: {} } as Diagnosis
    type Heard = (found: Diagnosis) => void
    const deliver = vi.fn(
      (_w: Write, _last: boolean, _name: string, _page: string, hear: Heard) => {
        hear(found)
        return new Promise((done) => setTimeout(() => done({ ...lesson, diagnosis: {} }), 10))
      },
    )
    const { outbox, heard } = made(deliver)
    outbox.put(shot('a', 1))
    await vi.advanceTimersByTimeAsync(1)
    expect(heard.weighed).toHaveBeenCalledWith(found)
    expect(heard.settled).not.toHaveBeenCalled()
    await vi.runAllTimersAsync()
    expect(heard.settled).toHaveBeenCalledWith({ ...lesson, diagnosis: found })

    heard.weighed.mockClear()
    deliver.mockImplementationOnce((_w, _last, _name, _page, hear) => {
      outbox.put(shot('c', 1)) // another ball meanwhile
      hear(found)
      return Promise.resolve(lesson)
    })
    outbox.put(shot('b', 1))
    await vi.advanceTimersByTimeAsync(5)
    expect(heard.weighed).toHaveBeenCalledOnce() // that of c
    await vi.runAllTimersAsync()
  })

  it('keeps what cannot be sent, says so, and sends it under the same name', async () => {
    const deliver = vi.fn().mockRejectedValueOnce(gone).mockResolvedValue(lesson)
    const kept = new Map<string, Entry>()
    const { outbox, heard } = made(deliver, kept)
    outbox.put(shot('a', 1))
    await vi.advanceTimersByTimeAsync(100)
    expect(heard.waiting).toHaveBeenLastCalledWith(1, true)
    expect(kept.size).toBe(1)
    await vi.runAllTimersAsync()
    const names = deliver.mock.calls.map((call) => (call as Sent)[2])
    expect(new Set(names).size).toBe(1)
    expect(names).toHaveLength(2)
    expect(kept.size).toBe(0)
  })

  it('sends what an earlier page left, under that page', async () => {
    const left: Entry = { name: 'n', page: 'Q', owner: 'Q', order: 1, write: shot('a', 1) }
    const deliver = vi.fn().mockResolvedValue(lesson)
    const { outbox } = made(deliver, new Map([['n', left]]))
    void outbox.start()
    await vi.advanceTimersByTimeAsync(50)
    expect((deliver.mock.calls[0] as Sent).slice(2, 4)).toEqual(['n', 'Q'])
  })

  it('sends although the browser keeps nothing, and says that it does not', async () => {
    const deliver = vi.fn().mockResolvedValue(lesson)
    const { outbox, heard } = made(deliver, undefined, true)
    for (const id of ['a', 'b', 'c']) outbox.put(shot(id, 1))
    await vi.runAllTimersAsync()
    expect(sentIds(deliver)).toEqual(['a', 'b', 'c'])
    expect(heard.settled).toHaveBeenCalledOnce()
    expect(outbox.state.keepsNothing).toBe(true)
  })

  it('lets a refused write stand with its sentence, and goes on', async () => {
    const deliver = vi.fn().mockRejectedValueOnce(error(409)).mockResolvedValue(lesson)
    const { outbox, heard } = made(deliver)
    outbox.put(shot('a', 1))
    outbox.put(shot('b', 2))
    await vi.runAllTimersAsync()
    expect(heard.refused).toHaveBeenCalledOnce()
    expect(heard.settled).toHaveBeenCalledOnce()
    const [stands] = outbox.state.entries
    expect(stands?.refused?.message).toBe('No.')
    outbox.resend(stands?.name ?? '', shot('a', 9))
    await vi.runAllTimersAsync()
    expect(outbox.state.entries).toEqual([])
  })

  it.each([500, 503, 429])('keeps a write through an error %i of the server', async (status) => {
    const deliver = vi.fn().mockRejectedValueOnce(error(status)).mockResolvedValue(lesson)
    const { outbox, heard } = made(deliver)
    outbox.put(shot('a', 1))
    outbox.put(shot('b', 2))
    await vi.runAllTimersAsync()
    expect(heard.refused).not.toHaveBeenCalled()
    expect(sentIds(deliver)).toEqual(['a', 'b', 'a'])
    expect(outbox.state.entries).toEqual([])
  })

  it('waits while the device is not paired, an undo too, and goes on once it is', async () => {
    const deliver = vi.fn().mockRejectedValueOnce(error(401)).mockResolvedValue(lesson)
    const { outbox, heard } = made(deliver)
    outbox.put(shot('a', 1))
    outbox.put({ kind: 'undo', lesson: 'L', id: 'L', body: { write: 'x' } })
    await vi.advanceTimersByTimeAsync(10)
    expect(outbox.state.notPaired).toBe(true)
    expect(outbox.count('L')).toBe(2)
    await vi.runAllTimersAsync()
    expect(heard.refused).not.toHaveBeenCalled()
    expect(sentIds(deliver)).toEqual(['a', 'a', 'L'])
    expect([outbox.state.notPaired, outbox.count('L')]).toEqual([false, 0])
  })

  it('stops sending what fails again and again, says so, and keeps it', async () => {
    const deliver = vi.fn((write: Write) =>
      write.id === 'a' ? Promise.reject(error(500, 'server')) : Promise.resolve(lesson),
    )
    const kept = new Map<string, Entry>()
    const { outbox, heard } = made(deliver, kept)
    outbox.put(shot('a', 1))
    outbox.put(shot('b', 2))
    await vi.runAllTimersAsync()
    expect(sentIds(deliver).filter((id) => id === 'a')).toHaveLength(10)
    expect(heard.refused).toHaveBeenCalledOnce()
    expect([...kept.values()].map((e) => e.refused?.code)).toEqual(['server'])
  })

  it('names the write that an undo takes back, whatever becomes of the others', async () => {
    const deliver = vi
      .fn()
      .mockResolvedValueOnce(lesson) // the ball
      .mockRejectedValueOnce(error(409, 'conflict')) // the goal
      .mockResolvedValue(lesson)
    const { outbox } = made(deliver)
    outbox.put(shot('a', 1))
    const ball = outbox.lastStanding('L')
    outbox.put({ kind: 'lesson', lesson: 'L', id: 'L', body: { listen: { goal: 'x' } } } as never)
    const goal = outbox.lastStanding('L')
    expect(new Set([ball, goal, null]).size).toBe(3)
    outbox.put({ kind: 'undo', lesson: 'L', id: 'L', body: { write: goal } })
    expect(outbox.lastStanding('L')).toBe(ball)
    expect(outbox.lastTakenBack('L')).toBe(goal)
    await vi.runAllTimersAsync()
    expect((deliver.mock.calls[2] as Sent)[0]).toMatchObject({ body: { write: goal } })
    expect(outbox.state.entries).toEqual([]) // the refused goal went with its undo
  })

  it('is in no conflict with itself where only the answer was lost', async () => {
    const deliver = vi.fn().mockRejectedValueOnce(gone).mockResolvedValue(lesson)
    const { outbox } = made(deliver)
    const note = (text: string, was: string): Write => ({
      kind: 'note',
      lesson: 'L',
      id: 'n',
      body: { text, was: { text: was } },
    })
    outbox.put(note('b', 'a'))
    await vi.advanceTimersByTimeAsync(10)
    outbox.put(note('c', 'b'))
    outbox.put(note('d', 'c'))
    await vi.runAllTimersAsync()
    const sent = deliver.mock.calls as Sent[]
    expect(sent.map(([write]) => (write as { body: object }).body)).toEqual([
      { text: 'b', was: { text: 'a' } },
      { text: 'b', was: { text: 'a' } },
      { text: 'd', was: { text: 'b' } },
    ])
    expect(sent[1]?.[2]).toBe(sent[0]?.[2])
  })

  it('keeps the order they were made in, whatever the clock does', async () => {
    vi.setSystemTime(new Date('2026-06-01T12:00:00Z'))
    const kept = new Map<string, Entry>()
    const { outbox } = made(vi.fn().mockRejectedValue(gone), kept)
    outbox.put(shot('a', 1))
    vi.setSystemTime(new Date('2026-06-01T11:00:00Z'))
    outbox.put(shot('b', 1))
    outbox.put(shot('c', 1))
    const orders = [...kept.values()].sort((x, y) => x.order - y.order).map((e) => e.write.id)
    expect(orders).toEqual(['a', 'b', 'c'])
    await vi.advanceTimersByTimeAsync(1)
  })

  it('leaves to an open page what it has yet to send, without locks too', async () => {
    const left: Entry = { name: 'n', page: 'P', owner: 'P', order: 1, write: shot('a', 1) }
    const shared = store(new Map([['n', left]]))
    const deliver = vi.fn().mockResolvedValue(lesson)
    await shared.beat('P')
    const alive = setInterval(() => void shared.beat('P'), 60_000) // hidden: once a minute
    void new Outbox('Q', shared, deliver as never).start()
    await vi.advanceTimersByTimeAsync(600_000)
    expect(deliver).not.toHaveBeenCalled()
    clearInterval(alive)
    await vi.advanceTimersByTimeAsync(200_000)
    expect(sentIds(deliver)).toEqual(['a'])
  })

  it('takes over at once what a closed page left', async () => {
    const left: Entry = { name: 'n', page: 'P', owner: 'P', order: 1, write: shot('a', 1) }
    const shared = store(new Map([['n', left]]))
    const deliver = vi.fn().mockResolvedValue(lesson)
    await shared.beat('P')
    await shared.leave('P')
    void new Outbox('Q', shared, deliver as never).start()
    await vi.advanceTimersByTimeAsync(10)
    expect(sentIds(deliver)).toEqual(['a'])
  })

  it('sends nothing that another page took over while this one slept', async () => {
    const kept = new Map<string, Entry>()
    const deliver = vi.fn().mockRejectedValue(gone)
    const outbox = new Outbox('P', store(kept), deliver as never)
    void outbox.start()
    await vi.advanceTimersByTimeAsync(10)
    outbox.put(shot('a', 1))
    await vi.advanceTimersByTimeAsync(10)
    for (const [name, e] of kept) kept.set(name, { ...e, owner: 'Q' })
    globalThis.dispatchEvent(Object.assign(new Event('pageshow'), { persisted: true }))
    await vi.advanceTimersByTimeAsync(10)
    expect(outbox.state.entries).toEqual([])
    expect(kept.size).toBe(1) // it is the other's now
  })

  it('holds back what rests on a write that waits', async () => {
    const deliver = vi.fn().mockRejectedValueOnce(error(500)).mockResolvedValue(lesson)
    const { outbox } = made(deliver)
    outbox.put(block({ kind: 'retest' }))
    outbox.put(shot('a', 1))
    outbox.put(shot('z', 1, 'other lesson'))
    outbox.put({ kind: 'undo', lesson: 'L', id: 'L', body: { step: null } })
    await vi.runAllTimersAsync()
    expect(sentIds(deliver)).toEqual(['B', 'z', 'B', 'a', 'L'])
  })

  it('holds back a ball of a lesson whose student could not be added', async () => {
    const deliver = vi.fn().mockRejectedValueOnce(error(500)).mockResolvedValue(lesson)
    const { outbox } = made(deliver)
    outbox.put({ kind: 'new-student', lesson: '', id: 'S', body: {} as never })
    const body = {} as never
    outbox.put({ kind: 'new-lesson', lesson: 'L', id: 'S', student: {} as never, body })
    outbox.put(shot('a', 1))
    await vi.runAllTimersAsync()
    expect(sentIds(deliver)).toEqual(['S', 'S', 'S', 'a'])
  })

  it('replaces a waiting version of the same ball but never the one on its way', async () => {
    let release: (value: Lesson) => void = () => undefined
    const first = new Promise<Lesson>((resolve) => (release = resolve))
    const deliver = vi.fn().mockReturnValueOnce(first).mockResolvedValue(lesson)
    const { outbox } = made(deliver)
    for (const mm of [1, 2, 3]) outbox.put(shot('a', mm))
    release(lesson)
    await vi.runAllTimersAsync()
    const sent = deliver.mock.calls.map((call) => (call as Sent)[0])
    expect(sent.map((w) => (w as { body: { observed: object } }).body.observed)).toEqual([
      { heel_toe_mm: 1 },
      { heel_toe_mm: 3 },
    ])
    expect(new Set(deliver.mock.calls.map((call) => (call as Sent)[2])).size).toBe(2)
  })

  it('keeps what only the older of two partial writes says', async () => {
    let release: (value: Lesson) => void = () => undefined
    const first = new Promise<Lesson>((resolve) => (release = resolve))
    const deliver = vi.fn().mockReturnValueOnce(first).mockResolvedValue(lesson)
    const { outbox } = made(deliver)
    outbox.put(shot('a', 1))
    outbox.put(block({ kind: 'retest', club: '7i' }))
    outbox.put(block({ club: 'd' }))
    outbox.put(block({ expected_carry_m: 200 }))
    const heard = (listen: object, was: object): Write =>
      ({ kind: 'lesson', lesson: 'L', id: 'L', body: { listen, was } }) as Write
    outbox.put(heard({ goal: 'x' }, { 'listen.goal': '' }))
    outbox.put(heard({ goal: 'xy', feels: 'f' }, { 'listen.goal': 'x', 'listen.feels': '' }))
    release(lesson)
    await vi.runAllTimersAsync()
    const bodies = deliver.mock.calls.map((call) => ((call as Sent)[0] as { body: object }).body)
    expect(bodies.slice(1)).toEqual([
      { kind: 'retest', club: 'd', expected_carry_m: 200 },
      {
        listen: { goal: 'xy', feels: 'f' },
        was: { 'listen.goal': '', 'listen.feels': '' },
      },
    ])
  })

  it('remembers what it was before the older of two, and nothing of what is new', async () => {
    const deliver = vi.fn().mockRejectedValueOnce(gone).mockResolvedValue(lesson)
    const { outbox } = made(deliver)
    const ball = (mm: number, was?: number): Write => {
      const before = was === undefined ? null : { observed: { heel_toe_mm: was } }
      const { body, ...rest } = shot('a', mm) as Write & { kind: 'shot' }
      return { ...rest, body: { ...body, was: before } }
    }
    outbox.put(shot('z', 0))
    await vi.advanceTimersByTimeAsync(10)
    outbox.put(ball(2, 1))
    outbox.put(ball(3, 2))
    outbox.put(block({ kind: 'retest' }))
    outbox.put(block({ club: 'd', was: { club: '7i' } }))
    await vi.runAllTimersAsync()
    const bodies = deliver.mock.calls.map((call) => (call as Sent)[0] as { body: Body })
    expect(bodies.slice(2).map((w) => w.body.was)).toEqual([
      { observed: { heel_toe_mm: 1 } },
      undefined,
    ])
  })

  it('says what waits', () => {
    expect(writesWord([shot('a', 1), shot('b', 1), block({})])).toBe('2 balls, 1 block')
  })
})

describe('a change of the lesson', () => {
  const now = { complaint: 'Slices', listen: { goal: '', health: 'knee' } }
  it('carries the field that changed and what it was', () => {
    const wanted = { complaint: 'Slices', listen: { goal: 'break 90', health: 'knee' } }
    expect(changedFields(now, wanted)).toEqual({
      listen: { goal: 'break 90' },
      was: { 'listen.goal': '' },
    })
  })
  it('is none where nothing is new', () => {
    expect(changedFields(now, { complaint: 'Slices' })).toBeNull()
  })
})

describe('an answer in two lines', () => {
  const whole = '{"diagnosis":{"ranking":{"causes":[]}},\n"id":"L","balls":[]}'
  const answering = (parts: string[], status = 200) => {
    const bytes = new ReadableStream({
      start(stream) {
        for (const part of parts) stream.enqueue(new TextEncoder().encode(part))
        stream.close()
      },
    })
    vi.stubGlobal('fetch', () => Promise.resolve(new Response(bytes, { status })))
  }

  it.each([
    ['in two parts', whole.split(/(?<=\n)/)],
    ['in one', [whole]],
    ['letter by letter', [...whole]],
  ])('is heard once, and is the same in the end: %s', async (_how, parts) => {
    const heard = vi.fn()
    answering(parts)
    const response = await hearingFirst(heard)('/')
    expect(heard.mock.calls).toEqual([[{ ranking: { causes: [] } }]])
    expect(await response.json()).toEqual(JSON.parse(whole))
  })

  it.each([
    ['a refusal', '{"code":"refused",\n"message":"No."}', 409],
    ['an answer without a ranking', '{"id":"L",\n"balls":null}', 200],
  ])('leaves %s as it is', async (_what, text, status) => {
    const heard = vi.fn()
    answering([text], status)
    const response = await hearingFirst(heard)('/')
    expect(heard).not.toHaveBeenCalled()
    expect(response.status).toBe(status)
    expect(await response.text()).toBe(text)
  })
})
