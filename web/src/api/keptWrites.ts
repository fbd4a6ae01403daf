// Writes that have not arrived yet, kept in the browser's own database across reloads.
import { openDB, type IDBPDatabase } from 'idb'
import type { Shape } from '@/api/client'
import type { Write } from '@/api/writes'

/**
 * One write that waits. `name`: its own id. `page`: where it was made. `owner`: the page that sends
 * it. `refused`: what the server said against it; it stands until it is mended or thrown away.
 */
export interface Entry {
  name: string
  page: string
  owner: string
  at: number
  write: Write
  refused?: Shape['ErrorShape']
}

export interface Keeper {
  all: () => Promise<Entry[]>
  put: (entry: Entry) => Promise<unknown>
  remove: (name: string) => Promise<unknown>
}

const STORE = 'writes'
const OLD = 'firm-footing-outbox'

export function keptWrites(): Keeper {
  let opened: Promise<IDBPDatabase> | null = null
  const database = () =>
    (opened ??= openDB('firm-footing', 1, {
      upgrade(db) {
        db.createObjectStore(STORE, { keyPath: 'name' })
      },
    }))
  return {
    async all() {
      const found = (await (await database()).getAll(STORE)) as Entry[]
      return [...found, ...fromBefore()].sort((a, b) => a.at - b.at)
    },
    async put(entry) {
      const kept = (await database()).transaction(STORE, 'readwrite')
      // a plain copy: what the screen watches cannot be stored
      const written = kept.store.put(JSON.parse(JSON.stringify(entry)))
      kept.commit() // now: the page may be gone before it hears that it was written
      return Promise.all([written, kept.done])
    },
    async remove(name) {
      return (await database()).delete(STORE, name)
    },
  }
}

/** What an earlier version kept elsewhere. */
function fromBefore(): Entry[] {
  try {
    const writes = JSON.parse(localStorage.getItem(OLD) ?? '[]') as Write[]
    localStorage.removeItem(OLD)
    return writes.map((write, i) => ({ name: `before-${i}`, page: '', owner: '', at: i, write }))
  } catch {
    return []
  }
}
