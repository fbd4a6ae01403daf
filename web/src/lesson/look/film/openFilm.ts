// A film of this device as the browser plays it. It is read where it lies and goes nowhere.

export interface OpenFilm {
  name: string
  url: string
  width: number
  height: number
  /** Pictures a second as the file plays them. */
  plays: number
  frames: number
}

export class FilmProblem extends Error {}

const LARGEST = 4_000_000_000
const TOO_SHORT = 'This film is too short to hold a swing.'
/** A downswing alone is longer. */
const SHORTEST_S = 0.15
const WATCHED = 40
/** Slow enough that every picture of a fast film is shown. */
const WATCHED_RATE = 0.25
const PATIENCE_MS = 8000
/** So slowly that hardly a picture is passed over. */
const SHOWN_A_SECOND = 30

/** What the file holds; FilmProblem says why it cannot be used. */
export async function openFilm(file: File): Promise<OpenFilm> {
  if (file.size > LARGEST) {
    throw new FilmProblem('This file is larger than 4 GB. Cut the film to one swing first.')
  }
  if (file.size === 0) throw new FilmProblem('This file is empty.')
  const url = URL.createObjectURL(file)
  try {
    const video = document.createElement('video')
    video.muted = true
    video.playsInline = true
    video.preload = 'auto'
    video.src = url
    await heard(
      video,
      'loadeddata',
      'This browser cannot play this file: it is not a film it knows.',
    )
    if (video.videoWidth === 0) throw new FilmProblem('There is no picture in this file.')
    if (!Number.isFinite(video.duration))
      throw new FilmProblem('This film has no end: save it anew.')
    if (video.duration < SHORTEST_S) throw new FilmProblem(TOO_SHORT)
    const plays = await picturesASecond(video)
    const frames = Math.round(video.duration * plays)
    if (frames < 12) throw new FilmProblem(TOO_SHORT)
    return {
      name: file.name,
      url,
      width: video.videoWidth,
      height: video.videoHeight,
      plays,
      frames,
    }
  } catch (error) {
    URL.revokeObjectURL(url)
    throw error
  }
}

function heard(video: HTMLVideoElement, event: string, otherwise: string): Promise<void> {
  return new Promise((resolve, reject) => {
    const late = setTimeout(() => {
      reject(new FilmProblem(otherwise))
    }, PATIENCE_MS)
    const end = (settle: () => void) => () => {
      clearTimeout(late)
      settle()
    }
    video.addEventListener(event, end(resolve), { once: true })
    video.addEventListener(
      'error',
      end(() => {
        reject(new FilmProblem(otherwise))
      }),
      { once: true },
    )
  })
}

/** Rates that cameras have; what is within one in a hundred of one of them is that one. */
const USUAL = [24, 25, 30, 50, 60, 100, 120, 200, 240] as const

/**
 * Pictures a second, from when some of them are shown, seconds. Pictures that were passed over and
 * times that a file rounds to milliseconds do no harm. Null: from one picture nothing follows.
 */
export function rateOf(times: readonly number[]): number | null {
  const steps = times.slice(1).map((t, i) => t - (times[i] ?? 0))
  const real = steps.filter((s) => s > 1e-4)
  if (real.length === 0) return null
  const least = Math.min(...real)
  const pictures = real.reduce((sum, s) => sum + Math.round(s / least), 0)
  const found = pictures / real.reduce((sum, s) => sum + s, 0)
  return USUAL.find((rate) => Math.abs(found / rate - 1) < 0.01) ?? Math.round(found * 100) / 100
}

/** Plays the film through, and says of each picture when it is shown; `see` answers whether to go on. */
async function playThrough(
  video: HTMLVideoElement,
  rate: number,
  see: (seconds: number) => boolean,
): Promise<void> {
  video.playbackRate = rate
  await video.play()
  await new Promise<void>((done) => {
    let quiet = setTimeout(done, PATIENCE_MS)
    const end = () => {
      clearTimeout(quiet)
      done()
    }
    const shown = (_now: number, { mediaTime }: VideoFrameCallbackMetadata) => {
      clearTimeout(quiet)
      quiet = setTimeout(done, PATIENCE_MS)
      if (see(mediaTime)) video.requestVideoFrameCallback(shown)
      else end()
    }
    video.addEventListener('ended', end, { once: true })
    video.requestVideoFrameCallback(shown)
  })
  video.pause()
}

async function picturesASecond(video: HTMLVideoElement): Promise<number> {
  const times: number[] = []
  await playThrough(video, WATCHED_RATE, (seconds) => times.push(seconds) < WATCHED)
  const rate = rateOf(times)
  if (rate === null) throw new FilmProblem('There is only one picture in this file.')
  return rate
}

/** Shows exactly this picture: sought at the middle of its time. */
export async function seek(video: HTMLVideoElement, frame: number, plays: number): Promise<void> {
  const wanted = (frame + 0.5) / plays
  if (Math.abs(video.currentTime - wanted) < 1e-6) return
  const there = new Promise<void>((done) => {
    video.addEventListener(
      'seeked',
      () => {
        done()
      },
      { once: true },
    )
  })
  video.currentTime = wanted
  await there
}

const SMALL = { width: 90, height: 160 } as const
/** Grey levels: less is the sensor's noise. */
const NOISE = 6

/**
 * How much of each picture is another than the one before, and how far down that lies. The film is
 * played through; what changed over pictures that were passed over is shared out among them.
 */
export async function motionOf(
  film: OpenFilm,
  onPart: (part: number) => void,
): Promise<{ change: number[]; down: number[] }> {
  const video = document.createElement('video')
  video.muted = true
  video.src = film.url
  await heard(video, 'loadeddata', 'The film cannot be read any more: open it again.')
  const canvas = new OffscreenCanvas(SMALL.width, SMALL.height)
  const pen = canvas.getContext('2d', { willReadFrequently: true })
  if (pen === null) throw new FilmProblem('This browser cannot read pictures out of a film.')
  const change = Array<number>(film.frames).fill(0)
  const down = Array<number>(film.frames).fill(0.5)
  let before: { frame: number; data: Uint8ClampedArray } | null = null
  await playThrough(video, Math.min(1, SHOWN_A_SECOND / film.plays), (seconds) => {
    const frame = Math.min(film.frames - 1, Math.round(seconds * film.plays))
    pen.drawImage(video, 0, 0, SMALL.width, SMALL.height)
    const { data } = pen.getImageData(0, 0, SMALL.width, SMALL.height)
    if (before !== null && frame > before.frame) {
      const [moved, lies] = difference(before.data, data)
      change.fill(moved / (frame - before.frame), before.frame + 1, frame + 1)
      down.fill(lies, before.frame + 1, frame + 1)
    }
    before = { frame, data }
    onPart(frame / film.frames)
    return frame < film.frames - 1
  })
  return { change, down }
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
