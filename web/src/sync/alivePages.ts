// Which of the pages that left writes are alive? Without the browser's locks (a network without a
// certificate) each page counts its own heart beats, and no clock of one is held against another's.
import type { WriteStore } from '@/sync/writeStore'
import { openPages } from '@/sync/page'

const BEAT_MS = 5_000
/** Longer than a browser makes a hidden page wait between two beats: once a minute. */
const SILENT_MS = 150_000

export class AlivePages {
  private readonly heard = new Map<string, { beat: number; since: number }>()
  private lastBeat = -Infinity

  constructor(
    private readonly page: string,
    private readonly store: WriteStore,
    private readonly clock: () => number = () => performance.now(),
  ) {}

  /** Beat from now on; `woken`: it slept so long that another page may have taken its writes. */
  async begin(woken: () => void): Promise<void> {
    if ('locks' in navigator) return // the browser knows which pages are open
    await this.beat()
    setInterval(() => {
      if (this.clock() - this.lastBeat > SILENT_MS / 2) woken()
      void this.beat()
    }, BEAT_MS)
    globalThis.addEventListener?.('pagehide', () => void this.store.leave(this.page))
    globalThis.addEventListener?.('pageshow', (event) => {
      if (event.persisted) void this.beat().then(woken)
    })
  }

  private async beat(): Promise<void> {
    this.lastBeat = this.clock()
    await this.store.beat(this.page).catch(() => undefined)
  }

  /** Whether a page is gone: by the browser's locks, else because it left or fell silent. */
  async isGone(): Promise<(page: string) => boolean> {
    const open = await openPages()
    if (open) return (page) => !open.has(page)
    const beats = await this.store.beats()
    const now = this.clock()
    for (const [page, beat] of beats) {
      if (this.heard.get(page)?.beat !== beat) this.heard.set(page, { beat, since: now })
    }
    return (page) => {
      const last = this.heard.get(page)
      return !beats.has(page) || last === undefined || now - last.since > SILENT_MS
    }
  }
}
