// The causes as they are listed: one order, and what comes from a cause under it.
import type { CauseRank, Diagnosis } from '@/api/client'

export interface Row {
  cause: CauseRank
  /** Causes that most likely come from this one. */
  bringsAbout: CauseRank[]
}

/** A cause less likely than this is not worth a line under another. */
const LEAST_SHOWN = 0.2
/** The verdict names so many of the order, with their numbers: each has a line of its own. */
const NAMED = 2

export function rowsOf(ranking: Diagnosis['ranking']): Row[] {
  const parents = new Map(ranking.causes.map((c, i) => [c.id, i]))
  const under = new Map<string, CauseRank[]>()
  const isUnder = (cause: CauseRank, place: number): boolean => {
    const parent = cause.comes_from === null ? undefined : parents.get(cause.comes_from)
    return parent !== undefined && parent < place
  }
  const top: CauseRank[] = []
  ranking.causes.forEach((cause, place) => {
    const below = isUnder(cause, place)
    if (!below || place < NAMED) top.push(cause)
    if (!below) return
    if (cause.probability >= LEAST_SHOWN || cause.seen === 'yes') {
      const parent = cause.comes_from ?? ''
      under.set(parent, [...(under.get(parent) ?? []), cause])
    }
  })
  return top.map((cause) => ({ cause, bringsAbout: under.get(cause.id) ?? [] }))
}

/** The cause to start with as long as the evidence says more than a guess. */
export function startOf(diagnosis: Diagnosis): string | null {
  return diagnosis.decision_status.kind === 'not_enough' ? null : diagnosis.ranking.start_with
}

/** On the first cause: the same scale as the verdict's. */
export const BADGE_WORDS = { start: 'Start here', first: 'First so far' } as const

/** "brings about", or "may bring about" of what nobody saw. */
export function bringsAbout(cause: CauseRank): string {
  return cause.seen === 'yes' ? 'brings about' : 'may bring about'
}

export const SEEN_WORDS = { yes: 'Seen', partly: 'Partly seen', no: 'Looked, not seen' } as const

/** What one reads of a deviation: name, unit and digits. */
export const EXPLAINED = {
  path_deg: { name: 'Path', unit: '°' },
  face_to_path_deg: { name: 'Face', unit: '°' },
  low_point_cm: { name: 'Low point', unit: ' cm' },
  heel_toe_mm: { name: 'Strike', unit: ' mm' },
  club_speed_pct: { name: 'Club speed', unit: ' %' },
} as const
export type Explained = keyof typeof EXPLAINED
export interface AccountPart {
  id: Explained
  name: string
  word: string
  /** Of the deviation, 0 to 1. */
  share: number
  text: string
}

/** What of a diagnosis says what there is to account for. */
export interface Accounted {
  ranking: Pick<Diagnosis['ranking'], 'deviation'>
  strike_in_words: boolean
}

/** How much a cause accounts for of each deviation that the ranking has a word for; nobody measured
 * the millimetres of a strike that only words of contact tell. */
export function partsOf(
  cause: CauseRank,
  { ranking: { deviation }, strike_in_words: inWords }: Accounted,
): AccountPart[] {
  return (Object.keys(EXPLAINED) as Explained[]).flatMap((id) => {
    const whole = deviation[id]
    const part = cause.explains[id]
    const word = cause.explains_words[id]
    if (!whole || part === undefined || word === undefined) return []
    const { name, unit } = EXPLAINED[id]
    const share = Math.max(0, Math.min(1, part / whole))
    if (id === 'heel_toe_mm' && inWords) return [{ id, name, word, share, text: '' }]
    const size = share === 1 ? 'all' : Math.abs(share * whole).toFixed(0)
    const text = `${size} of ${Math.abs(whole).toFixed(0)}${unit}`
    return [{ id, name, word, share, text }]
  })
}
