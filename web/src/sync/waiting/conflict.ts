// Two devices changed one field: which of the two is sent, or both together?
import type { Shape } from '@/api/client'
import { IN_PART, type Write } from '@/sync/writes'

export type Choice = 'mine' | 'theirs' | 'both'
type Conflict = Pick<Shape['ErrorShape'], 'where' | 'theirs' | 'mine'>
type Body = Record<string, unknown> & { was?: Record<string, unknown> }

/** The write to send in place of the refused one; null: nothing of it is left. */
export function settledConflict(write: Write, conflict: Conflict, choice: Choice): Write | null {
  const body = structuredCopy((write as { body: Body }).body)
  if (!IN_PART.has(write.kind)) return settledWhole(write, body, conflict, choice)
  const [name = '', field] = conflict.where.split('.')
  const holder = field === undefined ? body : (body[name] as Record<string, unknown>)
  const key = field ?? name
  if (choice === 'theirs') {
    Reflect.deleteProperty(holder, key)
    if (field !== undefined && Object.keys(holder).length === 0) Reflect.deleteProperty(body, name)
    Reflect.deleteProperty(body.was ?? {}, conflict.where)
    const left = Object.keys(body).filter((k) => k !== 'was')
    return left.length > 0 ? ({ ...write, body } as Write) : null
  }
  if (choice === 'both') holder[key] = bothWords(conflict)
  body.was = { ...body.was, [conflict.where]: conflict.theirs }
  return { ...write, body } as Write
}

/** A row that is sent whole: what is not this device's is as the other one has it. */
function settledWhole(write: Write, body: Body, conflict: Conflict, choice: Choice): Write | null {
  const [name = '', field] = conflict.where.split('.')
  const was = (body.was ??= {})
  const [sent, had] = (field === undefined ? [body, was] : [body[name], was[name]]) as Body[]
  const key = field ?? name
  if (sent === undefined || had === undefined) return write
  had[key] = conflict.theirs
  if (choice !== 'mine') sent[key] = choice === 'both' ? bothWords(conflict) : conflict.theirs
  const isNew = Object.entries(was).some(([n, v]) => JSON.stringify(v) !== JSON.stringify(body[n]))
  return isNew ? ({ ...write, body } as Write) : null
}

/** The write to send for a row that another device took out: it is put back. */
export function puttingBack(write: Write): Write {
  const body = structuredCopy((write as { body: Body }).body)
  delete body.was
  return { ...write, body } as Write
}

function bothWords({ theirs, mine }: Conflict): string {
  return [theirs, mine].map(String).join('; ')
}

/** Words of one's own: of two of them both can be kept. Of two that were chosen only one. */
const FREE: ReadonlySet<string> = new Set([
  'complaint',
  'feels',
  'goal',
  'event',
  'background',
  'health',
  'about',
  'text',
  'course',
])

export function bothCanBeKept({ where, theirs, mine }: Conflict): boolean {
  const field = where.split('.').at(-1) ?? ''
  return FREE.has(field) && typeof theirs === 'string' && typeof mine === 'string'
}

/** What a row says, without what it leaves open and where its drawing was touched. */
export function rowWord(row: unknown): string {
  const { observed, marks, ...rest } = row as Record<string, unknown>
  const said = { ...(observed as object | undefined), ...(marks as object | undefined), ...rest }
  const unsaid = new Set(['touched', 'block_id', 'check_id'])
  const parts = Object.entries(said).filter(([name, v]) => v != null && !unsaid.has(name))
  return valueWord(Object.fromEntries(parts))
}

/** A value as one would read it out. */
export function valueWord(value: unknown): string {
  if (value === null || value === undefined || value === '') return 'nothing'
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  if (Array.isArray(value)) return value.length > 0 ? value.map(valueWord).join(', ') : 'nothing'
  if (typeof value === 'object') {
    const parts = Object.entries(value).map(([name, v]) => named(name, v))
    return parts.length > 0 ? parts.join(', ') : 'nothing'
  }
  if (typeof value === 'number') return String(Math.round(value * 10) / 10)
  return plain(String(value as string))
}

const UNITS: Record<string, string> = { deg: '°', mm: ' mm', cm: ' cm', m: ' m', mps: ' m/s' }

/** "carry 137.2 m" */
function named(name: string, value: unknown): string {
  const [, what, unit] = /^(.*)_(deg|mm|cm|mps|m)$/.exec(name) ?? []
  if (what === undefined || unit === undefined) return `${plain(name)} ${valueWord(value)}`
  return `${plain(what)} ${valueWord(value)}${UNITS[unit] ?? ''}`
}

const plain = (word: string) => word.replaceAll('_', ' ')

function structuredCopy(body: Body): Body {
  return JSON.parse(JSON.stringify(body)) as Body
}
