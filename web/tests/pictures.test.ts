// Pictures of a film as they are decoded, held and let go of.
import { describe, expect, it } from 'vitest'
import { turned, type Copied, type Decoder } from '@/lesson/look/film/decoding'
import { NearPictures } from '@/lesson/look/film/nearPictures'

const FRAMES = 300
/** A whole picture comes every hundred, as in a phone's film. */
const GROUP = 100

interface Own extends Copied {
  frame: number
}
/** Counts what is decoded, and how much of it lies about. */
class Film implements Decoder {
  begun = 0
  decoded = 0
  inDecoder = 0
  copies = true
  constructor(
    private readonly gone: readonly number[] = [],
    private readonly breaksAt = Infinity,
  ) {}
  keyOf = (frame: number) => GROUP * Math.floor(frame / GROUP)
  async *from(first: number) {
    this.begun++
    this.decoded += first - this.keyOf(first)
    for (let frame = first; frame < FRAMES; frame++) {
      await Promise.resolve()
      if (frame === this.breaksAt) throw new Error('broken')
      if (this.gone.includes(frame)) continue
      this.decoded++
      this.inDecoder++
      const letGo = () => this.inDecoder--
      const own: Own = { frame, bytes: 10, pixels: () => Promise.reject(new Error('not drawn')) }
      const copied = () => {
        letGo()
        return this.copies ? Promise.resolve(own) : Promise.reject(new Error('no copies'))
      }
      yield { frame, draw: () => undefined, copied, letGo }
    }
  }
}
const rest = () => new Promise((done) => setTimeout(done))
const frameOf = async (near: NearPictures, frame: number) =>
  ((await near.at(frame)) as Own | null)?.frame ?? null
/** As many bytes as this many pictures on either side take. */
const side = (pictures: number) => 10 * (2 * pictures + 1)

describe('the pictures around the one that is shown', () => {
  it('are each decoded once, all the way on', async () => {
    const film = new Film()
    const near = new NearPictures(film, FRAMES, side(20))
    for (let frame = 0; frame < FRAMES; frame++) {
      expect(await frameOf(near, frame)).toBe(frame)
      await rest()
    }
    expect([film.begun, film.decoded, film.inDecoder]).toEqual([1, FRAMES, 0])
  })

  it('are there before a step back asks for them, over several at a time', async () => {
    const film = new Film()
    const near = new NearPictures(film, FRAMES, side(20))
    expect(await frameOf(near, 290)).toBe(290)
    await rest()
    const begun = film.begun
    for (let frame = 289; frame >= 0; frame--) {
      let waited = true
      void near.at(frame).then(() => (waited = false))
      await Promise.resolve().then(() => Promise.resolve())
      expect([frame, waited]).toEqual([frame, false])
      await rest()
    }
    expect(film.begun - begun).toBeLessThanOrEqual(290 / 10 + 1)
    expect(film.inDecoder).toBe(0)
  })

  it('are held ready either way after a leap, and at both ends', async () => {
    const film = new Film()
    const near = new NearPictures(film, FRAMES, side(20))
    for (const at of [150, 7, 299, 105, 0, 292]) {
      expect(await frameOf(near, at)).toBe(at)
      await rest()
      const { begun } = film
      for (const by of [1, 2, -1, -2, -3])
        if (at + by >= 0 && at + by < FRAMES) expect(await frameOf(near, at + by)).toBe(at + by)
      expect(film.begun - begun).toBeLessThanOrEqual(1)
    }
  })

  it('take no more memory than they may', async () => {
    const near = new NearPictures(new Film(), FRAMES, side(5))
    for (const at of [0, 50, 150, 151, 152, 140, 130, 299]) {
      await near.at(at)
      await rest()
      expect(near.bytes).toBeGreaterThan(0)
      expect(near.bytes).toBeLessThanOrEqual(side(5))
    }
  })

  it('that the file names and does not hold are said to be missing, and the others come', async () => {
    const near = new NearPictures(new Film([30, 31, 299]), FRAMES, side(20))
    expect(await frameOf(near, 29)).toBe(29)
    await rest()
    expect(await frameOf(near, 30)).toBeNull()
    expect(await frameOf(near, 32)).toBe(32)
    expect(await frameOf(near, 299)).toBeNull()
    expect(await frameOf(near, 298)).toBe(298)
  })

  it('are missing from a damage to the next one packed whole, and no farther', async () => {
    const film = new Film([], 140)
    const near = new NearPictures(film, FRAMES, side(20))
    for (const [frame, found] of [
      [145, null],
      [139, 139],
      [199, null],
      [200, 200],
      [3, 3],
    ] as const)
      expect([frame, await frameOf(near, frame)]).toEqual([frame, found])
    const { begun } = film
    await rest()
    expect(await frameOf(near, 150)).toBeNull() // and are not tried again
    expect(film.begun - begun).toBeLessThanOrEqual(1)
  })

  it('are given up where they cannot be copied', async () => {
    const film = new Film()
    film.copies = false
    const near = new NearPictures(film, FRAMES, side(20))
    expect(await frameOf(near, 45)).toBeNull()
    expect(await frameOf(near, 3)).toBeNull()
  })

  it('answer only the last one that was asked for', async () => {
    const near = new NearPictures(new Film(), FRAMES, side(20))
    const [first, last] = [frameOf(near, 90), frameOf(near, 10)]
    expect([await first, await last]).toEqual([null, 10])
  })

  it('are let go of when the film is put away', async () => {
    const film = new Film()
    const near = new NearPictures(film, FRAMES, side(20))
    const asked = near.at(200)
    near.close()
    expect(await asked).toBeNull()
    await rest()
    expect([near.bytes, film.inDecoder]).toEqual([0, 0])
    expect(await near.at(3)).toBeNull()
  })
})

describe('a picture that was filmed lying', () => {
  // two wide, three high: 1 2 / 3 4 / 5 6
  const data = new Uint8ClampedArray(new Uint32Array([1, 2, 3, 4, 5, 6]).buffer)
  const pixelsAt = (degrees: number) => {
    const seen = turned({ data, width: 2, height: 3 }, degrees)
    return [seen.width, ...new Uint32Array(seen.data.buffer)]
  }
  it('is turned clockwise', () => {
    expect(pixelsAt(0)).toEqual([2, 1, 2, 3, 4, 5, 6])
    expect(pixelsAt(90)).toEqual([3, 5, 3, 1, 6, 4, 2])
    expect(pixelsAt(180)).toEqual([2, 6, 5, 4, 3, 2, 1])
    expect(pixelsAt(270)).toEqual([3, 2, 4, 6, 1, 3, 5])
  })
})
