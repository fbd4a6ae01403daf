// The pictures around the one that is shown, decoded once and held: a step either way is there at
// once, however far apart the pictures are that the file holds whole.
import type { Copied, Decoded, Decoder } from '@/lesson/look/film/decoding'

/** For one film: some forty pictures of full HD, all of a small film. */
const MOST_BYTES = 120e6
/** On either side, before the first picture says how large it is. */
const FIRST = 12
/** Decoding begins anew at a picture packed whole, not for fewer than this part of a side. */
const WORTH_IT = 0.5

interface Running {
  /** The picture that comes next. */
  next: number
  pictures: AsyncGenerator<Decoded, void>
}
type Run = readonly [from: number, to: number]

export class NearPictures {
  private readonly held = new Map<number, Copied>()
  /** Named by the file, and not to be had from it. */
  private readonly absent = new Set<number>()
  private bytesEach: number | null = null
  private wanted = 0
  private waiting: ((picture: Copied | null) => void) | null = null
  private running: Running | null = null
  private isWorking = false
  private isOver = false

  constructor(
    private readonly decoder: Decoder,
    private readonly frames: number,
    private readonly most = MOST_BYTES,
  ) {}

  /** This picture; null: another one was asked for before it was there, or it is not to be had. */
  async at(frame: number): Promise<Copied | null> {
    this.answer(null)
    this.wanted = frame
    this.prune()
    const here = this.held.get(frame)
    if (here === undefined && (this.isOver || this.absent.has(frame))) return null
    const there = here ?? new Promise<Copied | null>((resolve) => (this.waiting = resolve))
    void this.work()
    return await there
  }

  close(): void {
    this.isOver = true
    this.held.clear()
    this.answer(null)
    void this.running?.pictures.return()
    this.running = null
  }

  /** How much is held. */
  get bytes(): number {
    return [...this.held.values()].reduce((sum, picture) => sum + picture.bytes, 0)
  }

  /** How many pictures are held on either side. */
  private get side(): number {
    if (this.bytesEach === null) return FIRST
    return Math.max(1, Math.floor((this.most / this.bytesEach - 1) / 2))
  }
  private get first(): number {
    return Math.max(0, this.wanted - this.side)
  }
  private get last(): number {
    return Math.min(this.frames - 1, this.wanted + this.side)
  }
  private has(frame: number): boolean {
    return this.held.has(frame) || this.absent.has(frame)
  }

  /** What to decode next; null: nothing. */
  private missing(): Run | null {
    const { wanted, first, last } = this
    if (!this.has(wanted)) return [Math.max(first, this.decoder.keyOf(wanted)), last]
    const enough = WORTH_IT * this.side
    let ahead = wanted
    while (ahead <= last && this.has(ahead)) ahead++
    const goesOn = this.running?.next === ahead || last === this.frames - 1
    if (ahead <= last && (goesOn || last - ahead >= enough)) return [ahead, last]
    let back = wanted
    while (back >= first && this.has(back)) back--
    if (back >= first && (first === 0 || back - first >= enough)) return [first, back]
    return null
  }

  private async work(): Promise<void> {
    if (this.isWorking || this.isOver) return
    this.isWorking = true
    try {
      for (let run = this.missing(); run && !this.isOver; run = this.missing()) {
        await this.decode(run)
      }
    } catch {
      this.close() // what cannot be decoded is shown as the browser plays it
    }
    this.isWorking = false
    if (this.has(this.wanted)) this.answer(null)
  }

  /** Until the last of them is there, or others are wanted sooner. */
  private async decode([from, to]: Run): Promise<void> {
    const running = await this.runningAt(from)
    while (running.next <= to && !this.isOver) {
      const value = await this.next(running)
      if (value === 'damaged') return
      const came = value?.frame ?? this.frames
      for (let frame = running.next; frame < came; frame++) this.absent.add(frame)
      running.next = came + 1
      if (value) await this.take(value)
      const isOnTheWay = this.wanted >= running.next && this.wanted <= to
      if (!isOnTheWay && (!this.has(this.wanted) || running.next > this.last)) return
    }
  }

  /** What comes next; damaged: nothing more can be decoded up to the next picture packed whole. */
  private async next({ next, pictures }: Running): Promise<Decoded | 'damaged' | undefined> {
    try {
      return (await pictures.next()).value ?? undefined
    } catch {
      const key = this.decoder.keyOf(next)
      for (let at = next; at < this.frames && this.decoder.keyOf(at) === key; at++)
        this.absent.add(at)
      this.running = null
      if (this.absent.has(this.wanted)) this.answer(null)
      return 'damaged'
    }
  }

  /** Decoding that goes on to here, where that is sooner than anew. */
  private async runningAt(from: number): Promise<Running> {
    const now = this.running
    if (now && now.next <= from && this.decoder.keyOf(from) <= now.next) return now
    await now?.pictures.return()
    return (this.running = { next: from, pictures: this.decoder.from(from) })
  }

  private async take(picture: Decoded): Promise<void> {
    const { frame } = picture
    if (this.isOver || frame < this.first || frame > this.last) {
      picture.letGo()
      return
    }
    const copy = await picture.copied()
    if (this.isOver) return
    this.bytesEach = copy.bytes
    this.held.set(frame, copy)
    this.prune()
    if (frame === this.wanted) this.answer(copy)
  }

  private prune(): void {
    for (const frame of this.held.keys())
      if (frame < this.first || frame > this.last) this.held.delete(frame)
  }
  private answer(picture: Copied | null): void {
    this.waiting?.(picture)
    this.waiting = null
  }
}
