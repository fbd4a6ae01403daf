// How large and where the picture is shown in its pane: plain arithmetic.
import type { Place } from '@/lesson/look/film/marking'

export interface Pane {
  width: number
  height: number
}
/** Page pixels for one of the film, and where the picture's upper left corner lies in the pane. */
export interface Shown {
  scale: number
  left: number
  top: number
}
/** A place of the picture that is looked at, and how wide a stretch around it is seen, pixels. */
export interface LookedAt {
  place: Place
  stretch: number
}
/** Larger than this a pixel of the film is a tile, and nothing more is seen. */
const LARGEST = 6

/** The whole picture in the pane, or a stretch around a place as far as the picture goes. */
export function shownIn(pane: Pane, film: Pane, at: LookedAt | null): Shown {
  const whole = Math.min(pane.width / film.width, pane.height / film.height)
  const near = at ? Math.min(pane.width, pane.height) / at.stretch : whole
  const scale = Math.max(whole, Math.min(LARGEST, near))
  const start = (size: number, room: number, middle: number) => {
    const long = size * scale
    if (long <= room) return (room - long) / 2
    return Math.min(0, Math.max(room - long, room / 2 - middle * scale))
  }
  const [x, y] = at?.place ?? [film.width / 2, film.height / 2]
  return {
    scale,
    left: start(film.width, pane.width, x),
    top: start(film.height, pane.height, y),
  }
}
/** From here on one touch is exact enough: before, a touch brings the picture nearer. */
export const EXACT = 0.9
