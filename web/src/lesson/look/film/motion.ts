// How much moves in a film, picture by picture: what the finder proposes events from.
import { FilmProblem, type OpenFilm } from '@/lesson/look/film/film'
import { frameAt, heard, letGo, playThrough, seekTo, SLOWEST } from '@/lesson/look/film/playing'

/** So slowly that hardly a picture is passed over. */
const SHOWN_A_SECOND = 30
const SMALL = { width: 90, height: 160 } as const
/** Grey levels: less is the sensor's noise. */
const NOISE = 6

/** Of all pictures: a device that passes over more of them plays the film again, at half the speed. */
const ENOUGH = 0.8

export interface Motion {
  change: number[]
  down: number[]
}

/**
 * How much of each picture is another than the one before, and how far down that lies. The film is
 * played through; what changed over pictures that were passed over is shared out among them.
 */
export async function motionOf(film: OpenFilm, onPart: (part: number) => void): Promise<Motion> {
  const video = document.createElement('video')
  video.muted = true
  video.src = film.url
  await heard(video, 'loadeddata', 'The film cannot be read any more: open it again.')
  const canvas = new OffscreenCanvas(SMALL.width, SMALL.height)
  const pen = canvas.getContext('2d', { willReadFrequently: true })
  if (pen === null) throw new FilmProblem('This browser cannot read pictures out of a film.')
  let rate = Math.min(1, SHOWN_A_SECOND / film.plays)
  let [found, seen] = await playedOnce(film, video, pen, rate, onPart)
  while (seen < ENOUGH * film.frames && rate / 2 >= SLOWEST) {
    rate /= 2
    await seekTo(video, 0)
    ;[found, seen] = await playedOnce(film, video, pen, rate, onPart)
  }
  letGo(video)
  return found
}

/** The motion as one playing shows it, and how many pictures it showed. */
async function playedOnce(
  film: OpenFilm,
  video: HTMLVideoElement,
  pen: OffscreenCanvasRenderingContext2D,
  rate: number,
  onPart: (part: number) => void,
): Promise<[Motion, number]> {
  const change = Array<number>(film.frames).fill(0)
  const down = Array<number>(film.frames).fill(0.5)
  let seen = 0
  let before: { frame: number; data: Uint8ClampedArray } | null = null
  await playThrough(video, rate, (seconds) => {
    const frame = frameAt(seconds, film)
    pen.drawImage(video, 0, 0, SMALL.width, SMALL.height)
    const { data } = pen.getImageData(0, 0, SMALL.width, SMALL.height)
    if (before !== null && frame > before.frame) {
      const [moved, lies] = difference(before.data, data)
      change.fill(moved / (frame - before.frame), before.frame + 1, frame + 1)
      down.fill(lies, before.frame + 1, frame + 1)
    }
    before = { frame, data }
    seen++
    onPart(frame / film.frames)
    return frame < film.frames - 1
  })
  return [{ change, down }, seen]
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
