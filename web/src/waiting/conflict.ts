// Two devices changed one field: which of the two is sent, or both together?
import type { Shape } from '@/api/client'
import type { Write } from '@/api/writes'

export type Choice = 'mine' | 'theirs' | 'both'
type Conflict = Pick<Shape['ErrorShape'], 'where' | 'theirs' | 'mine'>
type Body = Record<string, unknown> & { was?: Record<string, unknown> }

/** The write to send in place of the refused one; null: nothing of it is left. */
export function settledConflict(write: Write, conflict: Conflict, choice: Choice): Write | null {
  const body = structuredCopy((write as { body: Body }).body)
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

function bothWords({ theirs, mine }: Conflict): string {
  return [theirs, mine].map(String).join('; ')
}

/** A value as one would read it out. */
export function valueWord(value: unknown): string {
  if (value === null || value === undefined || value === '') return 'nothing'
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  if (Array.isArray(value)) return value.length > 0 ? value.map(valueWord).join(', ') : 'nothing'
  if (typeof value === 'object') {
    const parts = Object.entries(value).map(([name, v]) => `${plain(name)} ${valueWord(v)}`)
    return parts.length > 0 ? parts.join(', ') : 'nothing'
  }
  return plain(String(value as string | number))
}

const plain = (word: string) => word.replaceAll('_', ' ')

function structuredCopy(body: Body): Body {
  return JSON.parse(JSON.stringify(body)) as Body
}
