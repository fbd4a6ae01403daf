// A film in a video element: awaited, shown picture by picture, played through.
import { FilmProblem, type OpenFilm } from '@/lesson/look/film/film'

const PATIENCE_MS = 8000
/** Browsers tell times to a millisecond, and less. */
const ROUNDED_S = 0.0011
const DAMAGED =
  'This picture cannot be read: the file is damaged. The last one that could be read is shown.'
/** How slowly and fast browsers play at all. */
export const SLOWEST = 0.0625
export const FASTEST = 16

/** Waits for an event of the video; FilmProblem with these words when it fails or never comes. */
export function heard(video: HTMLVideoElement, event: string, otherwise: string): Promise<void> {
  return new Promise((resolve, reject) => {
    const over = new AbortController()
    const fail = () => {
      over.abort()
      reject(new FilmProblem(otherwise))
    }
    const late = setTimeout(fail, PATIENCE_MS)
    const done = () => {
      over.abort()
      resolve()
    }
    over.signal.addEventListener('abort', () => {
      clearTimeout(late)
    })
    video.addEventListener(event, done, { signal: over.signal })
    video.addEventListener('error', fail, { signal: over.signal })
  })
}

/** Plays the film through, and says of each picture when it is shown; `see` answers whether to go on. */
export async function playThrough(
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
    for (const over of ['ended', 'error']) video.addEventListener(over, end, { once: true })
    video.requestVideoFrameCallback(shown)
  })
  video.pause()
}

/** The middle of the time for which a picture is shown, seconds of the file. */
export function middleOf(frame: number, { plays, listing }: OpenFilm): number {
  const from = listing?.times[frame]
  if (listing === null || from === undefined) return (frame + 0.5) / plays
  return (from + (listing.times[frame + 1] ?? from + 1 / plays)) / 2
}

/** Shows exactly this picture, sought at the middle of its time; FilmProblem as `seekTo`. */
export async function seek(video: HTMLVideoElement, frame: number, film: OpenFilm): Promise<void> {
  await seekTo(video, middleOf(frame, film))
}

/** Goes to a moment, seconds, and waits until its picture is there; FilmProblem: it cannot be shown. */
export async function seekTo(video: HTMLVideoElement, seconds: number): Promise<void> {
  if (Math.abs(video.currentTime - seconds) < 1e-6) return
  if (video.error) await loadedAnew(video)
  const there = heard(video, 'seeked', DAMAGED)
  video.currentTime = seconds
  await there
}

/** A film that met a damaged picture plays nothing more until then. */
async function loadedAnew(video: HTMLVideoElement): Promise<void> {
  const there = heard(video, 'loadeddata', DAMAGED)
  video.load()
  await there
}

/** The picture that is shown at this time of the file, seconds. */
export function frameAt(seconds: number, { plays, frames, listing }: OpenFilm): number {
  if (listing === null) return Math.min(frames - 1, Math.max(0, Math.round(seconds * plays)))
  const { times } = listing
  let [low, high] = [0, times.length - 1]
  while (low < high) {
    const middle = Math.ceil((low + high) / 2)
    if ((times[middle] ?? Infinity) <= seconds + ROUNDED_S) low = middle
    else high = middle - 1
  }
  return low
}

/** A video element that is no longer needed keeps its decoded pictures until it is told. */
export function letGo(video: HTMLVideoElement): void {
  video.removeAttribute('src')
  video.load()
}
