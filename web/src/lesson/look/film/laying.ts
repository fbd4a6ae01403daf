// Two pictures laid together: same scale, same level, feet on feet. Plain arithmetic.
import type { Handedness } from '@/api/client'
import { mirrored, type Place } from '@/lesson/look/film/marking'

/** A place of the player in a picture, what a pixel is worth, and how far the ground rises. */
export interface Laid {
  at: readonly number[]
  cm_per_px: number
  level_rad: number
}

/** What a stage shows, in centimetres from the feet: half its width, above and below. */
const HALF_WIDTH_CM = 90
const ABOVE_CM = 205
const BELOW_CM = 20
export const STAGE = { wide: 2 * HALF_WIDTH_CM, high: ABOVE_CM + BELOW_CM } as const

export interface Lie {
  /** Pixels of the stage for one of the picture's. */
  scale: number
  /** Radians clockwise that level the picture. */
  turn: number
  /** The place of the player in the picture, and on the stage. */
  from: Place
  to: Place
}

/** How a picture lies on a stage so many pixels wide. */
export function lieOf(laid: Laid, stage: number, width: number, hand: Handedness): Lie {
  const perCm = stage / STAGE.wide
  return {
    scale: laid.cm_per_px * perCm,
    // a left-hander's marks are those of the picture in a mirror, and so is its slope
    turn: hand === 'left' ? -laid.level_rad : laid.level_rad,
    from: mirrored(laid.at as Place, width, hand),
    to: [HALF_WIDTH_CM * perCm, ABOVE_CM * perCm],
  }
}

/** The same for a style sheet. */
export function styleOf({ scale, turn, from, to }: Lie): string {
  const [x, y] = to
  return `translate(${String(x)}px, ${String(y)}px) rotate(${String(turn)}rad) scale(${String(scale)}) translate(${String(-from[0])}px, ${String(-from[1])}px)`
}

/** The same for a pen that draws on the stage. */
export function layOn(pen: CanvasRenderingContext2D, { scale, turn, from, to }: Lie): void {
  pen.translate(to[0], to[1])
  pen.rotate(turn)
  pen.scale(scale, scale)
  pen.translate(-from[0], -from[1])
}
