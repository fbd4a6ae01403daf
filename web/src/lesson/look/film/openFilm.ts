// Opens a film of this device. It is read where it lies and goes nowhere.
import { FilmProblem, type OpenFilm } from '@/lesson/look/film/film'
import { listingOf, whyNotPlayed } from '@/lesson/look/film/listing'
import { heard, letGo, playThrough, seekTo } from '@/lesson/look/film/playing'

const LARGEST = 4_000_000_000
const TOO_SHORT = 'This film is too short to hold a swing.'
/** A downswing alone is longer. */
const SHORTEST_S = 0.15
const LEAST_PICTURES = 12
/** Where in the film its rate is watched, and for how many pictures: phones change it on the way. */
const WATCHED_AT = [0, 0.4, 0.75]
const WATCHED = 14
/** Slow enough that every picture of a fast film is shown. */
const WATCHED_RATE = 0.25
/** Later than any film lasts: sought, a film without a length finds its end. */
const BEYOND_S = 1e7

/** What the file holds; FilmProblem says why it cannot be used. */
export async function openFilm(file: File): Promise<OpenFilm> {
  if (file.size > LARGEST) {
    throw new FilmProblem('This file is larger than 4 GB. Cut the film to one swing first.')
  }
  if (file.size === 0) throw new FilmProblem('This file is empty.')
  const url = URL.createObjectURL(file)
  const video = document.createElement('video')
  try {
    video.muted = true
    video.playsInline = true
    video.preload = 'auto'
    video.src = url
    await loaded(video, file)
    if (video.videoWidth === 0) throw new FilmProblem('There is no picture in this file.')
    const seconds = await lengthOf(video)
    if (seconds < SHORTEST_S) throw new FilmProblem(TOO_SHORT)
    const listing = await listingOf(file)
    const listed = listing?.times
    const watched = listed ?? (await pictureTimes(video, seconds))
    const plays = listed ? meanRateOf(listed) : rateOf(watched)
    if (plays === null) throw new FilmProblem('There is only one picture in this file.')
    const frames = listed ? listed.length : Math.round(seconds * plays)
    if (frames < LEAST_PICTURES) throw new FilmProblem(TOO_SHORT)
    const { videoWidth: width, videoHeight: height } = video
    const uneven = listing === null && isUneven(watched, plays)
    return { name: file.name, url, width, height, plays, frames, listing, uneven, file }
  } catch (error) {
    URL.revokeObjectURL(url)
    throw error
  } finally {
    letGo(video)
  }
}

/** Until its first picture is there; FilmProblem says how to record so that it plays. */
async function loaded(video: HTMLVideoElement, file: File): Promise<void> {
  const otherwise = 'This browser cannot play this file: it is not a film it knows.'
  try {
    await heard(video, 'loadeddata', otherwise)
  } catch (error) {
    const why = await whyNotPlayed(file)
    throw why === null ? error : new FilmProblem(why)
  }
}

/** Seconds; recorders write films whose length stands only at their end. */
async function lengthOf(video: HTMLVideoElement): Promise<number> {
  if (!Number.isFinite(video.duration)) {
    const found = heard(video, 'durationchange', 'This film has no end: save it anew.')
    video.currentTime = BEYOND_S
    await found
    await seekTo(video, 0)
  }
  if (!Number.isFinite(video.duration)) {
    throw new FilmProblem('This film has no end: save it anew.')
  }
  return video.duration
}

/** When pictures are shown, seconds, in a few stretches of the film. */
async function pictureTimes(video: HTMLVideoElement, seconds: number): Promise<number[]> {
  const times: number[] = []
  for (const part of WATCHED_AT) {
    if (part > 0) await seekTo(video, part * seconds)
    const before = times.length
    await playThrough(video, WATCHED_RATE, (t) => times.push(t) - before < WATCHED)
  }
  return times
}

/** Rates that cameras have; what is within one in a hundred of one of them is that one. */
const USUAL = [24, 25, 30, 50, 60, 100, 120, 200, 240] as const
/** Seconds: no camera is faster, and what is longer is a jump to another stretch. */
const SHORTEST_STEP_S = 1 / 300
const LONGEST_STEP_S = 0.5

function stepsOf(times: readonly number[]): number[] {
  const steps = times.slice(1).map((t, i) => t - (times[i] ?? 0))
  return steps.filter((s) => s > SHORTEST_STEP_S && s < LONGEST_STEP_S)
}

/**
 * Pictures a second, from when some of them are shown, seconds. Pictures that were passed over and
 * times that a file rounds to milliseconds do no harm. Null: from one picture nothing follows.
 */
export function rateOf(times: readonly number[]): number | null {
  const real = stepsOf(times)
  if (real.length === 0) return null
  const least = Math.min(...real)
  const pictures = real.reduce((sum, s) => sum + Math.round(s / least), 0)
  return asUsual(pictures / real.reduce((sum, s) => sum + s, 0))
}

function asUsual(found: number): number {
  return USUAL.find((rate) => Math.abs(found / rate - 1) < 0.01) ?? Math.round(found * 100) / 100
}

/** Pictures a second, from when every one of them is shown; null: from one nothing follows. */
export function meanRateOf(times: readonly number[]): number | null {
  const [first, last] = [times[0], times.at(-1)]
  if (first === undefined || last === undefined || last <= first) return null
  return asUsual((times.length - 1) / (last - first))
}

/** A picture and the next one are a whole number of pictures apart, in a film whose rate is steady. */
const UNEVEN = 0.2

/** Whether pictures come at other times than the rate says. */
export function isUneven(times: readonly number[], rate: number): boolean {
  const off = stepsOf(times).map((s) => s * rate - Math.round(s * rate))
  if (off.length === 0) return false
  return Math.sqrt(off.reduce((sum, o) => sum + o * o, 0) / off.length) > UNEVEN
}
