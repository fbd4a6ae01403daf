// What is entered goes out one after the other and is kept until it has arrived: range Wi-Fi comes
// and goes, tablets run flat. One outbox for the whole page, whichever lesson is open.
import { inject, reactive, shallowReactive, type InjectionKey } from 'vue'
import { ApiError, type ChangedLesson, type Diagnosis, type Shape } from '@/api/client'
import { AlivePages } from '@/sync/alivePages'
import { writeStore, type Entry, type WriteStore } from '@/sync/writeStore'
import { newId } from '@/sync/page'
import {
  isInOrder,
  isStep,
  mayPass,
  send,
  standing,
  takenBack,
  together,
  type Write,
} from '@/sync/writes'

export type { Write } from '@/sync/writes'

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

/** Waited after a failure; after each further one twice as long, up to the longest. */
const RETRY_MS = 2000
const LONGEST_RETRY_MS = 60_000
const ADOPT_MS = 10_000
/** So often the server may fail at one write before it stands aside and lets the others go. */
const MOST_FAILURES = 10
const GIVEN_UP: Shape['ErrorShape'] = {
  code: 'server',
  message: 'The application failed at this again and again.',
  hint: 'It is kept on this device, and what came after it was sent. Send it again, or throw it away.',
  where: 'server',
}

export class Outbox {
  /** What the screens may show. */
  readonly state = reactive({
    entries: shallowReactive<Entry[]>([]),
    unreachable: false,
    /** The server does not know this device: all waits until it is paired. */
    notPaired: false,
    /** The browser keeps nothing: what waits is lost when the page is closed. */
    keepsNothing: false,
  })
  private readonly listeners = new Map<string, Listener>()
  private busy = false
  private timer: ReturnType<typeof setTimeout> | null = null
  /** Passes one after the other in which something failed. */
  private inVain = 0
  /** Put here and never sent: a newer version may take its place. */
  private readonly unsent = new Set<string>()
  private lastOrder = 0
  private readonly failures = new Map<string, number>()
  private readonly pages: AlivePages

  constructor(
    private readonly page: string,
    private readonly store: WriteStore = writeStore(),
    private readonly deliver: typeof send = send,
  ) {
    this.pages = new AlivePages(page, store)
  }

  /** Take over what earlier pages left, before anything is drawn; then look now and then for more. */
  async start(): Promise<void> {
    await this.pages.begin(() => void this.stillOurs())
    await this.readOwn()
    await this.claimOrphans()
    setInterval(() => void this.claimOrphans(), ADOPT_MS)
    window.addEventListener('online', this.tryNow)
  }

  subscribe(lesson: string, listener: Listener): () => void {
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

  /** The id of the last write of a lesson that stands and can be taken back; null: none waits. */
  lastStanding(lesson: string): string | null {
    return this.nameOf(standing(this.waiting(lesson)).findLast(isStep))
  }

  /** The id of the write that was taken back last; null: none waits. */
  lastTakenBack(lesson: string): string | null {
    return this.nameOf(takenBack(this.waiting(lesson)).at(-1))
  }

  private nameOf(write: Write | undefined): string | null {
    return this.state.entries.find((e) => e.write === write)?.name ?? null
  }

  /** Queue a write. A newer version of a row that has not left yet takes the older one's place. */
  put(write: Write): void {
    const { entries } = this.state
    const older = entries[entries.length - 1]
    // one that was sent may have arrived, and only its answer been lost: it goes again as it is
    const free = older && this.unsent.has(older.name) && !older.refused
    const both = free ? together(older.write, write) : null
    const entry = { name: newId(), page: this.page, owner: this.page, order: ++this.lastOrder }
    if (both && older) {
      entries.pop()
      this.unsent.delete(older.name)
      this.forget(older)
      entry.order = older.order
    }
    this.unsent.add(entry.name)
    this.add({ ...entry, write: both ?? write })
    void this.flush()
  }

  /** Send a refused write again, changed or as it is. */
  resend(name: string, write: Write): void {
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
    this.inVain = failed.length > 0 ? this.inVain + 1 : 0
    if (this.timer !== null) clearTimeout(this.timer)
    this.timer = null
    if (!waits) return
    const longer = RETRY_MS * 2 ** Math.max(0, this.inVain - 1)
    this.timer = setTimeout(() => void this.flush(), Math.min(LONGEST_RETRY_MS, longer))
  }

  /** Nothing is in the way any more, as far as anyone can tell: try now. */
  private readonly tryNow = () => {
    this.inVain = 0
    void this.flush()
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
    this.unsent.delete(entry.name)
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
      this.state.notPaired = false
      this.drop(entry)
      if (entry.write.kind === 'undo') this.dropTakenBack(entry.write.body.write)
      const listener = this.listeners.get(lesson)
      if (answer && this.count(lesson) === 0) listener?.settled(answer)
      else if (answer) listener?.arrived(answer)
      return true
    } catch (error) {
      const said = error instanceof ApiError ? error : null
      if (said !== null && isRefusal(said)) {
        this.state.unreachable = false
        this.refuse(entry, said)
        return true
      }
      this.state.unreachable = said === null || said.status === 0
      this.state.notPaired = said?.status === 401
      if (said !== null && said.status >= 500 && this.hasFailedTooOften(entry)) {
        this.refuse(entry, new ApiError(GIVEN_UP, said.status))
        return true
      }
      failed.push(entry)
      this.tell(lesson)
      return !this.state.unreachable && !this.state.notPaired
    }
  }

  private hasFailedTooOften({ name }: Entry): boolean {
    const times = (this.failures.get(name) ?? 0) + 1
    this.failures.set(name, times)
    return times >= MOST_FAILURES
  }

  /** What was refused and then taken back is no work of anybody's any more. */
  private dropTakenBack(name: string | null | undefined): void {
    if (this.state.entries.find((e) => e.name === name)?.refused) this.throwAway(name ?? '')
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
    this.unsent.delete(entry.name)
    this.forget(entry)
    this.tell(entry.write.lesson)
  }

  private tell(lesson: string): void {
    this.listeners.get(lesson)?.waiting(this.count(lesson), this.state.unreachable)
  }

  private keep(entry: Entry): void {
    this.store.put(entry).catch(() => {
      this.state.keepsNothing = true
    })
  }

  private forget(entry: Entry): void {
    this.store.remove(entry.name).catch(() => {
      this.state.keepsNothing = true
    })
  }

  /** Writes of pages that are closed are sent from here; each has one owner. */
  private async claimOrphans(): Promise<void> {
    try {
      this.takeUp(await this.store.claimOrphans(this.page, await this.pages.isGone()))
    } catch {
      this.state.keepsNothing = true
    }
  }

  /** What this page kept before it was loaded again. */
  private async readOwn(): Promise<void> {
    try {
      const kept = await this.store.all()
      this.lastOrder = Math.max(0, ...kept.map((e) => e.order))
      this.takeUp(kept.filter((e) => e.owner === this.page))
    } catch {
      this.state.keepsNothing = true
    }
  }

  private takeUp(entries: readonly Entry[]): void {
    const here = new Set(this.state.entries.map((e) => e.name))
    const more = entries.filter((e) => !here.has(e.name))
    for (const entry of more) {
      this.lastOrder = Math.max(this.lastOrder, entry.order)
      this.add(entry)
    }
    if (more.length > 0) void this.flush()
  }

  /** After a long sleep: what another page has taken over is sent from there. */
  private async stillOurs(): Promise<void> {
    const kept = await this.store.all().catch(() => null)
    if (kept === null) return
    const theirs = new Set(kept.filter((e) => e.owner !== this.page).map((e) => e.name))
    const { entries } = this.state
    for (const entry of entries.filter((e) => theirs.has(e.name))) {
      entries.splice(entries.indexOf(entry), 1)
      this.tell(entry.write.lesson)
    }
  }
}

/** A sentence about what was sent; anything else is worth trying again. */
function isRefusal({ status }: ApiError): boolean {
  return status >= 400 && status < 500 && ![401, 408, 429].includes(status)
}

export const OUTBOX: InjectionKey<Outbox> = Symbol('what waits to be sent')

export function useOutbox(): Outbox {
  const outbox = inject(OUTBOX)
  if (outbox === undefined) throw new Error('There is no outbox above this component.')
  return outbox
}

/** What is told of a conflict: of which field, what the server keeps, what was sent. */
export type Conflict = Pick<Shape['ErrorShape'], 'where' | 'theirs' | 'mine'>
