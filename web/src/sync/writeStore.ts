// Writes that have not arrived yet, kept in the browser's own database across reloads, and which
// pages are alive to send them.
import { openDB, type IDBPDatabase } from 'idb'
import type { Shape } from '@/api/client'
import type { Write } from '@/sync/writes'

/**
 * One write that waits. `name`: its own id. `page`: where it was made. `owner`: the page that sends
 * it. `order`: which came first; no clock, for clocks are put right. `refused`: what the server said
 * against it; it stands until it is mended or thrown away.
 */
export interface Entry {
  name: string
  page: string
  owner: string
  order: number
  write: Write
  refused?: Shape['ErrorShape']
}

export interface WriteStore {
  /** In the order they were made. */
  all: () => Promise<Entry[]>
  put: (entry: Entry) => Promise<unknown>
  remove: (name: string) => Promise<unknown>
  /** Take over, all at once, what belongs to pages of which `isGone` says so, or to none. */
  claimOrphans: (page: string, isGone: (owner: string) => boolean) => Promise<Entry[]>
  /** A page is alive: its number goes up. */
  beat: (page: string) => Promise<unknown>
  /** A page is closed: what it leaves may be taken over at once. */
  leave: (page: string) => Promise<unknown>
  /** The numbers of all pages that did not leave. */
  beats: () => Promise<Map<string, number>>
}

const WRITES = 'writes'
const PAGES = 'pages'
const OLD = 'firm-footing-outbox'

export function writeStore(): WriteStore {
  let opened: Promise<IDBPDatabase> | null = null
  const letGo = () => {
    opened = null
  }
  const database = () => {
    opened ??= openKept(letGo)
    opened.catch(letGo)
    return opened
  }
  return {
    async all() {
      return inOrder((await (await database()).getAll(WRITES)) as Entry[])
    },
    async put(entry) {
      const kept = (await database()).transaction(WRITES, 'readwrite')
      // a plain copy: what the screen watches cannot be stored
      const written = kept.store.put(JSON.parse(JSON.stringify(entry)))
      kept.commit() // now: the page may be gone before it hears that it was written
      return Promise.all([written, kept.done])
    },
    async remove(name) {
      return (await database()).delete(WRITES, name)
    },
    async claimOrphans(page, isGone) {
      const kept = (await database()).transaction(WRITES, 'readwrite')
      const orphans = inOrder((await kept.store.getAll()) as Entry[])
        .filter((e) => e.owner !== page && isGone(e.owner))
        .map((e) => ({ ...e, owner: page }))
      await Promise.all([...orphans.map((e) => kept.store.put(e)), kept.done])
      return [...fromBefore().map((e) => ({ ...e, owner: page })), ...orphans]
    },
    async beat(page) {
      const pages = (await database()).transaction(PAGES, 'readwrite')
      const last = (await pages.store.get(page)) as { beat: number } | undefined
      return Promise.all([pages.store.put({ page, beat: (last?.beat ?? 0) + 1 }), pages.done])
    },
    async leave(page) {
      const pages = (await database()).transaction(PAGES, 'readwrite')
      const left = pages.store.delete(page)
      pages.commit()
      return Promise.all([left, pages.done])
    },
    async beats() {
      const found = await (await database()).getAll(PAGES)
      return new Map((found as { page: string; beat: number }[]).map((p) => [p.page, p.beat]))
    },
  }
}

/**
 * A page of an older version that is still open holds the database: then this one keeps nothing for
 * now, and tries again with the next write. `letGo`: a newer version wants it.
 */
function openKept(letGo: () => void): Promise<IDBPDatabase> {
  return new Promise((resolve, reject) => {
    let isLate = false
    const opening = openDB('firm-footing', 2, {
      upgrade(db, from) {
        if (from < 1) db.createObjectStore(WRITES, { keyPath: 'name' })
        db.createObjectStore(PAGES, { keyPath: 'page' })
      },
      blocked() {
        isLate = true
        reject(new Error('An older page holds what is kept.'))
      },
      blocking(_from, _to, event) {
        ;(event.target as IDBDatabase).close()
        letGo()
      },
    })
    opening.then((db) => {
      if (isLate) db.close()
      else resolve(db)
    }, reject)
  })
}

/** An earlier version kept the moment in the place of the number. */
function inOrder(entries: (Entry & { at?: number })[]): Entry[] {
  return entries
    .map(({ at, ...e }) => ({ ...e, order: e.order ?? at ?? 0 }))
    .sort((a, b) => a.order - b.order)
}

/** What an earlier version kept elsewhere. */
function fromBefore(): Entry[] {
  try {
    const writes = JSON.parse(localStorage.getItem(OLD) ?? '[]') as Write[]
    localStorage.removeItem(OLD)
    return writes.map((write, order) => {
      return { name: `before-${order}`, page: '', owner: '', order, write }
    })
  } catch {
    return []
  }
}
