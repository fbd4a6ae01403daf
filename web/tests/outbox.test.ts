import { beforeEach, describe, expect, it, vi } from 'vitest'
import { ApiError, type Lesson } from '@/api/client'
import { Outbox, type Write } from '@/api/outbox'

const kept = new Map<string, string>()
vi.stubGlobal('localStorage', {
  getItem: (key: string) => kept.get(key) ?? null,
  setItem: (key: string, value: string) => kept.set(key, value),
  removeItem: (key: string) => kept.delete(key),
})

const lesson = { id: 'L' } as Lesson
const shot = (id: string, mm: number): Write => ({
  kind: 'shot',
  lesson: 'L',
  id,
  body: { block_id: 'B', observed: { heel_toe_mm: mm } as never, touched: {} },
})
const gone = new ApiError({ code: 'unreachable', message: '', hint: '', where: '' }, 0)
const refused = new ApiError({ code: 'refused', message: 'No.', hint: '', where: '' }, 409)

function listener() {
  return { settled: vi.fn(), waiting: vi.fn(), refused: vi.fn() }
}

beforeEach(() => {
  kept.clear()
  vi.useFakeTimers()
})

describe('the outbox', () => {
  it('sends in order and settles once everything has arrived', async () => {
    const heard = listener()
    const deliver = vi.fn().mockResolvedValue(lesson)
    const outbox = new Outbox('L', heard, deliver)
    outbox.put(shot('a', 1))
    outbox.put(shot('b', 2))
    await vi.runAllTimersAsync()
    expect(deliver.mock.calls.map(([w]) => (w as Write).id)).toEqual(['a', 'b'])
    expect(heard.settled).toHaveBeenCalledOnce()
    expect(kept.size).toBe(0)
  })

  it('asks what follows with the last write alone', async () => {
    const deliver = vi.fn().mockResolvedValue(lesson)
    const outbox = new Outbox('L', listener(), deliver)
    for (const id of ['a', 'b', 'c']) outbox.put(shot(id, 1))
    await vi.runAllTimersAsync()
    expect(deliver.mock.calls.map(([w, asks]) => [(w as Write).id, asks])).toEqual([
      ['a', true], // it left before the others came
      ['b', false],
      ['c', true],
    ])
  })

  it('keeps what cannot be sent, says so, and sends it when it can', async () => {
    const heard = listener()
    const deliver = vi.fn().mockRejectedValueOnce(gone).mockResolvedValue(lesson)
    const outbox = new Outbox('L', heard, deliver)
    outbox.put(shot('a', 1))
    await vi.advanceTimersByTimeAsync(100)
    expect(heard.waiting).toHaveBeenLastCalledWith(1, true)
    expect(JSON.parse(kept.get('firm-footing-outbox') ?? '[]')).toHaveLength(1)
    await vi.runAllTimersAsync()
    expect(deliver).toHaveBeenCalledTimes(2)
    expect(kept.size).toBe(0)
  })

  it('finds what an earlier page could not send', async () => {
    kept.set('firm-footing-outbox', JSON.stringify([shot('a', 1)]))
    const deliver = vi.fn().mockResolvedValue(lesson)
    new Outbox('L', listener(), deliver)
    await vi.runAllTimersAsync()
    expect(deliver).toHaveBeenCalledOnce()
  })

  it('drops a refused write, says why, and goes on', async () => {
    const heard = listener()
    const deliver = vi.fn().mockRejectedValueOnce(refused).mockResolvedValue(lesson)
    const outbox = new Outbox('L', heard, deliver)
    outbox.put(shot('a', 1))
    outbox.put(shot('b', 2))
    await vi.runAllTimersAsync()
    expect(heard.refused).toHaveBeenCalledWith(refused)
    expect(deliver).toHaveBeenCalledTimes(2)
    expect(outbox.empty).toBe(true)
  })

  it('replaces a waiting version of the same ball but never the one on its way', async () => {
    let release: (value: Lesson) => void = () => undefined
    const first = new Promise<Lesson>((resolve) => (release = resolve))
    const deliver = vi.fn().mockReturnValueOnce(first).mockResolvedValue(lesson)
    const outbox = new Outbox('L', listener(), deliver)
    for (const mm of [1, 2, 3]) outbox.put(shot('a', mm))
    release(lesson)
    await vi.runAllTimersAsync()
    const sent = deliver.mock.calls.map(([w]) => w as Write & { body: { observed: object } })
    expect(sent.map((w) => w.body.observed)).toEqual([{ heel_toe_mm: 1 }, { heel_toe_mm: 3 }])
  })

  it('keeps what only the older of two partial writes says', async () => {
    let release: (value: Lesson) => void = () => undefined
    const first = new Promise<Lesson>((resolve) => (release = resolve))
    const deliver = vi.fn().mockReturnValueOnce(first).mockResolvedValue(lesson)
    const outbox = new Outbox('L', listener(), deliver)
    outbox.put(shot('a', 1))
    const block = (body: object): Write => ({ kind: 'block', lesson: 'L', id: 'B', body })
    outbox.put(block({ kind: 'retest', club: '7i' }))
    outbox.put(block({ club: 'd' }))
    outbox.put(block({ expected_carry_m: 200 }))
    release(lesson)
    await vi.runAllTimersAsync()
    expect(deliver).toHaveBeenCalledTimes(2)
    expect((deliver.mock.calls[1]?.[0] as { body: object }).body).toEqual({
      kind: 'retest',
      club: 'd',
      expected_carry_m: 200,
    })
  })
})
