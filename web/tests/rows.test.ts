import { describe, expect, it } from 'vitest'
import type { CauseRank, Diagnosis } from '@/api/client'
import { bringsAbout, partsOf, rowsOf, startOf } from '@/lesson/decide/rows'

function cause(id: string, root: number, more: Partial<CauseRank> = {}): CauseRank {
  const usual = {
    id,
    root,
    probability: root,
    word: 'possible',
    seen: null,
    group: 'downswing',
    comes_from: null,
    for: [],
    against: [],
    better_explained: [],
    explains: {},
    explains_words: {},
    chain: [id],
  }
  return { ...usual, ...more } as CauseRank
}
const ranking = (causes: CauseRank[]) => ({ causes }) as unknown as Diagnosis['ranking']

describe('the rows of the decision', () => {
  it('keeps the one order and draws what comes from a cause under it', () => {
    const rows = rowsOf(
      ranking([
        cause('heel', 0.5),
        cause('grip', 0.3),
        cause('knee', 0.2, { probability: 0.6, comes_from: 'heel' }),
      ]),
    )
    expect(rows.map((r) => r.cause.id)).toEqual(['heel', 'grip'])
    expect(rows[0]?.bringsAbout.map((c) => c.id)).toEqual(['knee'])
  })
  it('gives both causes that the verdict names a line of their own', () => {
    const toes = cause('toes', 0.37, { probability: 0.9, comes_from: 'knee' })
    const rows = rowsOf(ranking([cause('knee', 0.37), toes, cause('heel', 0.23)]))
    expect(rows.map((r) => r.cause.id)).toEqual(['knee', 'toes', 'heel'])
    expect(rows[0]?.bringsAbout).toEqual([toes])
  })
  it('never hides the first of the order, nor a cause whose source stands below it', () => {
    const rows = rowsOf(
      ranking([
        cause('knee', 0.4, { probability: 0.8, comes_from: 'heel' }),
        cause('heel', 0.3),
        cause('toes', 0.01, { probability: 0.05, comes_from: 'knee' }),
      ]),
    )
    expect(rows.map((r) => r.cause.id)).toEqual(['knee', 'heel'])
    expect(rows[0]?.bringsAbout).toEqual([]) // hardly there at all
  })
  it('keeps a line for what was seen, however unlikely', () => {
    const seen = cause('toes', 0.01, { probability: 0.05, comes_from: 'knee', seen: 'yes' })
    const rows = rowsOf(ranking([cause('knee', 0.4), seen]))
    expect(rows[0]?.bringsAbout).toEqual([seen])
  })
  it('says that a cause may bring about what nobody saw', () => {
    expect(bringsAbout(cause('knee', 0.1))).toBe('may bring about')
    expect(bringsAbout(cause('knee', 0.1, { seen: 'yes' }))).toBe('brings about')
  })
  it('has no start beside a verdict that nothing stands out', () => {
    const found = (kind: string) =>
      ({ decision_status: { kind }, ranking: { start_with: 'heel' } }) as unknown as Diagnosis
    expect(startOf(found('open'))).toBe('heel')
    expect(startOf(found('not_enough'))).toBeNull()
  })
})

describe('what a cause explains', () => {
  const of = (part: number, whole: number, inWords = false) =>
    partsOf(
      cause('heel', 0.5, {
        explains: { heel_toe_mm: part },
        explains_words: { heel_toe_mm: 'partly' },
      }),
      { ranking: { deviation: { heel_toe_mm: whole } }, strike_in_words: inWords },
    )
  it('is a share of the deviation, in whole units', () => {
    expect(of(-7, -14)).toEqual([
      { id: 'heel_toe_mm', name: 'Strike', word: 'partly', share: 0.5, text: '7 of 14 mm' },
    ])
  })
  it('is nothing where it works the other way, and no more than all', () => {
    expect(of(3, -14)[0]?.share).toBe(0)
    expect(of(3, -14)[0]?.text).toBe('0 of 14 mm')
    expect(of(-20, -14)[0]?.share).toBe(1)
    expect(of(-20, -14)[0]?.text).toBe('all of 14 mm')
  })
  it('has no millimetres where only words tell of the strike', () => {
    expect(of(-7, -14, true)).toEqual([
      { id: 'heel_toe_mm', name: 'Strike', word: 'partly', share: 0.5, text: '' },
    ])
  })
  it('is not spoken of where there is no miss, so no word for it', () => {
    const none = cause('heel', 0.5, { explains: { heel_toe_mm: -1 }, explains_words: {} })
    expect(
      partsOf(none, { ranking: { deviation: { heel_toe_mm: -2 } }, strike_in_words: false }),
    ).toEqual([])
  })
})
