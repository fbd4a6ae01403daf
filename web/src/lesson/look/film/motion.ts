// How much moves in a film, picture by picture: what the finder proposes events from.
import { decoderOf } from '@/lesson/look/film/decoding'
import { FilmProblem, type OpenFilm } from '@/lesson/look/film/film'
import { frameAt, heard, letGo, playThrough, seekTo, SLOWEST } from '@/lesson/look/film/playing'

/** So slowly that hardly a picture is passed over. */
const SHOWN_A_SECOND = 30
const SMALL = { width: 90, height: 160 } as const
/** Grey levels: less is the sensor's noise. */
const NOISE = 6

/** Of all pictures: a device that passes over more of them plays the film again, at half the speed. */
const ENOUGH = 0.8

const DAMAGED =
  'This file is damaged: part of the film cannot be read. Mark the events by hand, or save the film anew.'

export interface Motion {
  change: number[]
  down: number[]
}

/**
 * How much of each picture is another than the one before, and how far down that lies. `onPart`: how
 * much of the film is looked through; answers whether to go on.
 */
export async function motionOf(film: OpenFilm, onPart: (part: number) => boolean): Promise<Motion> {
  const canvas = new OffscreenCanvas(SMALL.width, SMALL.height)
  const pen = canvas.getContext('2d', { willReadFrequently: true })
  if (pen === null) throw new FilmProblem('This browser cannot read pictures out of a film.')
  return (await decoded(film, pen, onPart)) ?? (await played(film, pen, onPart))
}

/** The motion seen so far. */
class Seen {
  readonly motion: Motion
  pictures = 0
  /** Nobody wants it any more. */
  isOver = false
  private before: { frame: number; data: Uint8ClampedArray } | null = null
  constructor(frames: number) {
    this.motion = {
      change: Array<number>(frames).fill(0),
      down: Array<number>(frames).fill(0.5),
    }
  }
  /** What changed over pictures that were passed over is shared out among them. */
  add(frame: number, { data }: ImageData): void {
    const { before, motion } = this
    if (before !== null && frame > before.frame) {
      const [moved, lies] = difference(before.data, data)
      motion.change.fill(moved / (frame - before.frame), before.frame + 1, frame + 1)
      motion.down.fill(lies, before.frame + 1, frame + 1)
    }
    this.before = { frame, data }
    this.pictures++
  }
}

type Pen = OffscreenCanvasRenderingContext2D
const small = (pen: Pen) => pen.getImageData(0, 0, SMALL.width, SMALL.height)

/** Every picture, as fast as it is decoded; null: it cannot be, here. */
async function decoded(
  film: OpenFilm,
  pen: Pen,
  onPart: (part: number) => boolean,
): Promise<Motion | null> {
  const decoder = await decoderOf(film)
  if (decoder === null) return null
  const seen = new Seen(film.frames)
  try {
    for await (const picture of decoder.from(0)) {
      picture.draw(pen, SMALL.width, SMALL.height)
      picture.letGo()
      seen.add(picture.frame, small(pen))
      if (!onPart(picture.frame / film.frames)) break
    }
  } catch {
    if (seen.pictures > 0) throw new FilmProblem(DAMAGED)
    return null
  }
  return seen.motion
}

/** The film played through, slower again where too many pictures were passed over. */
async function played(
  film: OpenFilm,
  pen: Pen,
  onPart: (part: number) => boolean,
): Promise<Motion> {
  const video = document.createElement('video')
  video.muted = true
  video.src = film.url
  await heard(video, 'loadeddata', 'The film cannot be read any more: open it again.')
  let rate = Math.min(1, SHOWN_A_SECOND / film.plays)
  let seen = await playedOnce(film, video, pen, rate, onPart)
  while (
    !seen.isOver &&
    !video.error &&
    seen.pictures < ENOUGH * film.frames &&
    rate / 2 >= SLOWEST
  ) {
    rate /= 2
    await seekTo(video, 0)
    seen = await playedOnce(film, video, pen, rate, onPart)
  }
  const isDamaged = video.error !== null
  letGo(video)
  if (isDamaged) throw new FilmProblem(DAMAGED)
  return seen.motion
}

async function playedOnce(
  film: OpenFilm,
  video: HTMLVideoElement,
  pen: Pen,
  rate: number,
  onPart: (part: number) => boolean,
): Promise<Seen> {
  const seen = new Seen(film.frames)
  await playThrough(video, rate, (seconds) => {
    const frame = frameAt(seconds, film)
    pen.drawImage(video, 0, 0, SMALL.width, SMALL.height)
    seen.add(frame, small(pen))
    seen.isOver = !onPart(frame / film.frames)
    return !seen.isOver && frame < film.frames - 1
  })
  return seen
}

/** Of two pictures: how much changed, and how far down, 0 to 1. */
export function difference(
  before: Uint8ClampedArray,
  now: Uint8ClampedArray,
): [moved: number, lies: number] {
  let moved = 0
  let weighted = 0
  for (let pixel = 0; pixel < before.length / 4; pixel++) {
    let off = 0
    for (let colour = 0; colour < 3; colour++) {
      off += (now[4 * pixel + colour] ?? 0) - (before[4 * pixel + colour] ?? 0)
    }
    off = Math.abs(off) / 3
    if (off < NOISE) continue
    moved += off
    weighted += (off * Math.floor(pixel / SMALL.width)) / SMALL.height
  }
  return [moved, moved > 0 ? Math.min(1, weighted / moved) : 0.5]
}
