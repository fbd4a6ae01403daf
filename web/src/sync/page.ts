// Which page is this, among several on the same tablet? And ids that no other page makes.

/** A new id; pages served without a certificate have no `randomUUID`. */
export function newId(): string {
  if (typeof crypto.randomUUID === 'function') return crypto.randomUUID()
  const bytes = crypto.getRandomValues(new Uint8Array(16))
  return Array.from(bytes, (b) => b.toString(16).padStart(2, '0')).join('')
}

const KEPT = 'firm-footing-page'
const lockOf = (page: string) => `firm-footing-page-${page}`

/**
 * The page's id, the same after a reload. A copied tab has the other's: who holds the lock keeps it.
 */
export async function thisPage(): Promise<string> {
  const kept = remembered()
  if (kept !== null && (await hold(kept))) return kept
  const page = newId()
  await hold(page)
  try {
    sessionStorage.setItem(KEPT, page)
  } catch {
    // it is another page after a reload, then
  }
  return page
}

/** Pages that are open now; null: this browser cannot tell. */
export async function openPages(): Promise<Set<string> | null> {
  if (!('locks' in navigator)) return null
  const { held } = await navigator.locks.query()
  const prefix = lockOf('')
  const names = (held ?? []).map((lock) => lock.name ?? '')
  return new Set(names.filter((n) => n.startsWith(prefix)).map((n) => n.slice(prefix.length)))
}

function remembered(): string | null {
  try {
    return sessionStorage.getItem(KEPT)
  } catch {
    return null
  }
}

/** Hold the page's lock for as long as it is open; whether it was free. */
function hold(page: string): Promise<boolean> {
  if (!('locks' in navigator)) return Promise.resolve(true)
  return new Promise((resolve) => {
    void navigator.locks.request(lockOf(page), { ifAvailable: true }, (lock) => {
      resolve(lock !== null)
      return lock === null ? undefined : new Promise(() => undefined)
    })
  })
}
