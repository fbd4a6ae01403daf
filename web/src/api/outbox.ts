// What is entered goes out one after the other and is kept until it has arrived: range Wi-Fi comes
// and goes, tablets run flat. One outbox for the whole page, whichever lesson is open.
import { inject, reactive, shallowReactive, type InjectionKey } from 'vue'
import { ApiError, type ChangedLesson, type Diagnosis, type Shape } from '@/api/client'
import { keptWrites, type Entry, type Keeper } from '@/api/keptWrites'
import { newId, openPages } from '@/api/page'
import { isInOrder, mayPass, send, together, type Write } from '@/api/writes'

export type { Write } from '@/api/writes'

/** Who has a lesson open hears what becomes of its writes. */
export interface Listener {
  /** One write has arrived, others still wait; the lesson as the server then had it. */
  arrived: (lesson: ChangedLesson) => void
  /** What follows from all that was sent; the lesson itself is on its way. */
  weighed: (found: Diagnosis) => void
  /** Everything has arrived; the lesson as the server has it, and what follows from it. */
  settled: (lesson: ChangedLesson) => void
  /** How many writes wait, and whether the server is out of reach. */
  waiting: (count: number, unreachable: boolean) => void
  /** A write was refused with a sentence; if it `stands`, every page says so. */
  refused: (error: ApiError, stands: boolean) => void
}

const RETRY_MS = 2000
const ADOPT_MS = 10_000

export class Outbox {
  /** What the screens may show. */
  readonly state = reactive({
    entries: shallowReactive<Entry[]>([]),
    unreachable: false,
    /** The browser keeps nothing: what waits is lost when the page is closed. */
    keepsNothing: false,
  })
  private readonly listeners = new Map<string, Listener>()
  private busy = false
  private timer: ReturnType<typeof setTimeout> | null = null
  private onItsWay: string | null = null

  constructor(
    private readonly page: string,
    private readonly keeper: Keeper = keptWrites(),
    private readonly deliver: typeof send = send,
  ) {}

  /** Take over what earlier pages left, before anything is drawn; then look now and then for more. */
  async start(): Promise<void> {
    await this.adopt()
    setInterval(() => void this.adopt(), ADOPT_MS)
  }

  attend(lesson: string, listener: Listener): () => void {
    this.listeners.set(lesson, listener)
    this.tell(lesson)
    return () => {
      if (this.listeners.get(lesson) === listener) this.listeners.delete(lesson)
    }
  }

  /** How many of a lesson's writes have not arrived, refused ones aside. */
  count(lesson: string): number {
    return this.waiting(lesson).length
  }

  /** Writes that have not arrived, in their order, refused ones aside; of one lesson or of all. */
  waiting(lesson?: string): Write[] {
    const entries = this.state.entries.filter((e) => !e.refused)
    return entries.map((e) => e.write).filter((w) => lesson === undefined || w.lesson === lesson)
  }

  /** Queue a write. A newer version of a row that has not left yet takes the older one's place. */
  put(write: Write): void {
    const { entries } = this.state
    const older = entries[entries.length - 1]
    const free = older && older.name !== this.onItsWay && !older.refused
    const both = free ? together(older.write, write) : null
    // under a new name: the older one may have arrived, and only its answer been lost
    const entry = { name: newId(), page: this.page, owner: this.page, at: Date.now() }
    if (both && older) {
      entries.pop()
      this.forget(older)
      entry.at = older.at
    }
    this.add({ ...entry, write: both ?? write })
    void this.flush()
  }

  /** Send a refused write again, changed or as it is. */
  mend(name: string, write: Write): void {
    this.throwAway(name)
    this.put(write)
  }

  throwAway(name: string): void {
    const entry = this.state.entries.find((e) => e.name === name)
    if (entry) this.drop(entry)
  }

  private add(entry: Entry): void {
    this.state.entries.push(entry)
    this.keep(entry)
    this.tell(entry.write.lesson)
  }

  /** One pass over all that waits: what fails waits on, and what does not rest on it goes. */
  private async flush(): Promise<void> {
    if (this.busy) return
    this.busy = true
    const failed: Entry[] = []
    let entry: Entry | undefined
    while ((entry = this.next(failed))) {
      if (!(await this.attempt(entry, failed))) break
    }
    this.busy = false
    const waits = this.state.entries.some((e) => !e.refused)
    if (waits && this.timer === null) {
      this.timer = setTimeout(() => {
        this.timer = null
        void this.flush()
      }, RETRY_MS)
    }
  }

  /** The first that rests on nothing that failed in this pass, nor on what is held back by it. */
  private next(failed: Entry[]): Entry | undefined {
    const held: Entry[] = []
    for (const entry of this.state.entries) {
      if (entry.refused) continue
      if (!failed.includes(entry) && held.every((h) => mayPass(entry.write, h.write))) return entry
      held.push(entry)
    }
    return undefined
  }

  /** Whether it is worth going on. */
  private async attempt(entry: Entry, failed: Entry[]): Promise<boolean> {
    const { lesson } = entry.write
    this.onItsWay = entry.name
    this.tell(lesson)
    try {
      const last = this.count(lesson) === 1
      let weighed: Diagnosis | undefined
      const heard = (found: Diagnosis) => {
        weighed = found
        if (this.count(lesson) === 1) this.listeners.get(lesson)?.weighed(found)
      }
      const answer = await this.deliver(entry.write, last, entry.name, entry.page, heard)
      if (answer && weighed) answer.diagnosis = weighed
      this.state.unreachable = false
      this.onItsWay = null
      this.drop(entry)
      const listener = this.listeners.get(lesson)
      if (answer && this.count(lesson) === 0) listener?.settled(answer)
      else if (answer) listener?.arrived(answer)
      return true
    } catch (error) {
      this.onItsWay = null
      const said = error instanceof ApiError ? error : null
      if (said !== null && isRefusal(said)) {
        this.state.unreachable = false
        this.refuse(entry, said)
        return true
      }
      failed.push(entry)
      this.state.unreachable = said === null || said.status === 0
      this.tell(lesson)
      return !this.state.unreachable
    }
  }

  private refuse(entry: Entry, said: ApiError): void {
    const { entries } = this.state
    const stands = { ...entry, refused: said.shape }
    entries.splice(entries.indexOf(entry), 1, stands)
    this.keep(stands)
    this.tell(entry.write.lesson)
    // an undo that cannot be done any more is no work of anybody's
    const dropped = isInOrder(entry.write) && entry.write.kind !== 'decision'
    if (dropped) this.drop(stands)
    this.listeners.get(entry.write.lesson)?.refused(said, !dropped)
  }

  private drop(entry: Entry): void {
    const { entries } = this.state
    const at = entries.findIndex((e) => e.name === entry.name)
    if (at >= 0) entries.splice(at, 1)
    this.forget(entry)
    this.tell(entry.write.lesson)
  }

  private tell(lesson: string): void {
    this.listeners.get(lesson)?.waiting(this.count(lesson), this.state.unreachable)
  }

  private keep(entry: Entry): void {
    this.keeper.put(entry).catch(() => {
      this.state.keepsNothing = true
    })
  }

  private forget(entry: Entry): void {
    this.keeper.remove(entry.name).catch(() => {
      this.state.keepsNothing = true
    })
  }

  /** Writes of pages that are closed are sent from here; each has one owner. */
  private async adopt(): Promise<void> {
    const take = async () => {
      try {
        const open = await openPages()
        const mine = new Set(this.state.entries.map((e) => e.name))
        for (const entry of await this.keeper.all()) {
          const orphan = entry.owner === this.page || !open?.has(entry.owner)
          if (mine.has(entry.name) || !orphan) continue
          this.add({ ...entry, owner: this.page })
        }
      } catch {
        this.state.keepsNothing = true
      }
    }
    if ('locks' in navigator) await navigator.locks.request('firm-footing-adopt', take)
    else await take()
    if (this.state.entries.length > 0) void this.flush()
  }
}

/** A sentence about what was sent; anything else is worth trying again. */
function isRefusal({ status }: ApiError): boolean {
  return status >= 400 && status < 500 && status !== 408 && status !== 429
}

export const OUTBOX: InjectionKey<Outbox> = Symbol('what waits to be sent')

export function useOutbox(): Outbox {
  const outbox = inject(OUTBOX)
  if (outbox === undefined) throw new Error('There is no outbox above this component.')
  return outbox
}

/** What is told of a conflict: of which field, what the server keeps, what was sent. */
export type Conflict = Pick<Shape['ErrorShape'], 'where' | 'theirs' | 'mine'>
