// How a camera held in the hand moved between two pictures, from what stands still in both. Plain
// arithmetic.
import type { Place } from '@/lesson/look/film/marking'

/** A place of one picture, and where it lies in another. */
export interface Pair {
  from: Place
  to: Place
}
/** What stands still lies farther right and down, pixels, and turned about the middle, clockwise. */
export interface CameraMove {
  right: number
  down: number
  turned_deg: number
  sd_px: number
}

/** Pairs that move together agree to so many pixels; the player's do not. */
const AGREE = 1.5
const TRIES = 400
const LEAST = 15
const LEAST_PART = 0.3
/** Pixels: what no number of pairs makes surer, for the light changes, and leaves move. */
const FLOOR = 0.3

/** The same move of most of them; null: too few agree. `middle` of the picture, in its pixels. */
export function moveOf(pairs: readonly Pair[], middle: Place): CameraMove | null {
  let best: Pair[] = []
  const next = numbersFrom(1)
  for (let i = 0; i < TRIES; i++) {
    const two = [next(pairs.length), next(pairs.length)].flatMap((at) => pairs[at] ?? [])
    const agree = agreeing(pairs, fitted(two, middle), middle)
    if (agree.length > best.length) best = agree
  }
  if (best.length < Math.max(LEAST, LEAST_PART * pairs.length)) return null
  best = agreeing(pairs, fitted(best, middle), middle)
  const move = fitted(best, middle)
  const squares = best.reduce((sum, pair) => sum + off(pair, move, middle) ** 2, 0)
  const each = Math.sqrt(squares / (2 * best.length - 3))
  return {
    right: move.right,
    down: move.down,
    turned_deg: (move.turned * 180) / Math.PI,
    sd_px: Math.hypot(FLOOR, each / Math.sqrt(best.length)),
  }
}

/** How far it is from the one picture to the other, pixels, near the edge of one so large. */
export function farthest({ right, down, turned_deg }: CameraMove, height: number): number {
  return Math.hypot(right, down) + (Math.abs(turned_deg) * Math.PI * height) / 360
}

/** The same move in a mirror. */
export function mirroredMove(move: CameraMove): CameraMove {
  return { ...move, right: -move.right, turned_deg: -move.turned_deg }
}

interface Rigid {
  right: number
  down: number
  turned: number
}

/** The turn and shift that lead from the one to the other, least squares. */
function fitted(pairs: readonly Pair[], [mx, my]: Place): Rigid {
  const mean = (of: (pair: Pair) => number) =>
    pairs.reduce((sum, pair) => sum + of(pair), 0) / pairs.length
  const [fx, fy] = [mean((p) => p.from[0]), mean((p) => p.from[1])]
  const [tx, ty] = [mean((p) => p.to[0]), mean((p) => p.to[1])]
  let [cross, dot] = [0, 0]
  for (const { from, to } of pairs) {
    const [ax, ay, bx, by] = [from[0] - fx, from[1] - fy, to[0] - tx, to[1] - ty]
    cross += ax * by - ay * bx
    dot += ax * bx + ay * by
  }
  const turned = Math.atan2(cross, dot)
  const [x, y] = turnedBy([fx - mx, fy - my], turned)
  return { right: tx - mx - x, down: ty - my - y, turned }
}

function turnedBy([x, y]: Place, rad: number): Place {
  const [cos, sin] = [Math.cos(rad), Math.sin(rad)]
  return [x * cos - y * sin, x * sin + y * cos]
}

function off({ from, to }: Pair, { right, down, turned }: Rigid, [mx, my]: Place): number {
  const [x, y] = turnedBy([from[0] - mx, from[1] - my], turned)
  return Math.hypot(mx + x + right - to[0], my + y + down - to[1])
}

const agreeing = (pairs: readonly Pair[], move: Rigid, middle: Place) =>
  pairs.filter((pair) => off(pair, move, middle) < AGREE)

/** Numbers below a bound that look drawn, the same ones each time. */
function numbersFrom(seed: number): (below: number) => number {
  let state = seed
  return (below) => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    return Math.floor((state / 2 ** 32) * below)
  }
}
