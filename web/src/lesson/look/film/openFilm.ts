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
const WATCHED = 24
/** Slow enough that every picture of a fast film is shown. */
const WATCHED_RATE = 0.25
const PATIENCE_MS = 8000

/** What the file holds; FilmProblem says why it cannot be used. */
export async function openFilm(file: File): Promise<OpenFilm> {
  if (file.size > LARGEST) {
    throw new FilmProblem('This file is larger than 4 GB. Cut the film to one swing first.')
  }
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
    const plays = await picturesASecond(video)
    const frames = Math.round(video.duration * plays)
    if (frames < 12) throw new FilmProblem('This film is too short to hold a swing.')
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

/** The shortest time between two pictures, seen over the first of them. */
async function picturesASecond(video: HTMLVideoElement): Promise<number> {
  const times: number[] = []
  video.playbackRate = WATCHED_RATE
  await video.play()
  await new Promise<void>((done) => {
    const late = setTimeout(done, PATIENCE_MS)
    const see = (_now: number, { mediaTime }: VideoFrameCallbackMetadata) => {
      times.push(mediaTime)
      if (times.length > WATCHED || video.ended) {
        clearTimeout(late)
        done()
      } else video.requestVideoFrameCallback(see)
    }
    video.addEventListener('ended', () => {
      clearTimeout(late)
      done()
    })
    video.requestVideoFrameCallback(see)
  })
  video.pause()
  const steps = times.slice(1).map((t, i) => t - (times[i] ?? 0))
  const least = Math.min(...steps.filter((s) => s > 1e-4))
  if (!Number.isFinite(least)) throw new FilmProblem('There is only one picture in this file.')
  return Math.round(1 / least)
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

/** How much of each picture is another than the one before, and how far down that lies. */
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
  const change = [0]
  const down = [0.5]
  let before: Uint8ClampedArray | null = null
  for (let frame = 0; frame < film.frames; frame++) {
    await seek(video, frame, film.plays)
    pen.drawImage(video, 0, 0, SMALL.width, SMALL.height)
    const now = pen.getImageData(0, 0, SMALL.width, SMALL.height).data
    if (before !== null) {
      const [moved, lies] = difference(before, now)
      change.push(moved)
      down.push(lies)
    }
    before = now
    if (frame % 10 === 0) onPart(frame / film.frames)
  }
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
