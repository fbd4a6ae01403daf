// What of a change is new? Only that is sent, with what it was before.
type Fields = Record<string, unknown>

/** Values of several fields; within them, each field counts by itself. */
const PARTS: ReadonlySet<string> = new Set(['school', 'listen', 'cue', 'sheet'])

/** The body to send, null when nothing is new. */
export function changedFields<T extends object>(now: object, wanted: T): T | null {
  const was: Fields = {}
  const sent: Fields = {}
  for (const [name, value] of Object.entries(wanted)) {
    const before = (now as Fields)[name]
    if (!PARTS.has(name)) {
      if (same(before, value)) continue
      sent[name] = value
      was[name] = before ?? null
      continue
    }
    const part: Fields = {}
    for (const [field, inner] of Object.entries(value as Fields)) {
      const old = (before as Fields | undefined)?.[field]
      if (same(old, inner)) continue
      part[field] = inner
      was[`${name}.${field}`] = old ?? null
    }
    if (Object.keys(part).length > 0) sent[name] = part
  }
  return Object.keys(sent).length > 0 ? ({ ...sent, was } as T) : null
}

/** Of the fields that are sent, what they were; null: there was nothing yet. */
export function before(now: object | null | undefined, sent: object): Fields | null {
  if (!now) return null
  const names = Object.keys(sent)
  return Object.fromEntries(names.map((name) => [name, (now as Fields)[name] ?? null]))
}

function same(one: unknown, other: unknown): boolean {
  return JSON.stringify(one) === JSON.stringify(other)
}
