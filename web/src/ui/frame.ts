// Golfer-neutral to what is seen, and back. The server only knows pull and push, lead and trail.
import type { Direction, Handedness, Knowledge } from '@/api/client'

export const DIRECTIONS: readonly Direction[] = ['far_pull', 'pull', 'straight', 'push', 'far_push']

/** +1 when the push side is drawn on the right, −1 when it is drawn on the left. */
export function pushSign(hand: Handedness): 1 | -1 {
  return hand === 'right' ? 1 : -1
}

/** Directions from the left of the screen to the right. */
export function leftToRight(hand: Handedness): readonly Direction[] {
  return hand === 'right' ? DIRECTIONS : [...DIRECTIONS].reverse()
}

/** What a word or a touch stands for. */
export type Noting = Knowledge['noting']

/** The word for golfer-neutral degrees. */
export function toWord(deg: number, { word_inner_deg, word_outer_deg }: Noting): Direction {
  const size = Math.abs(deg)
  if (size <= word_inner_deg) return 'straight'
  const far = size > word_outer_deg
  if (deg < 0) return far ? 'far_pull' : 'pull'
  return far ? 'far_push' : 'push'
}

/** Where a word is drawn: its middle, in golfer-neutral degrees. */
export function middleOf(word: Direction, { word_near_deg, word_far_deg }: Noting): number {
  if (word === 'straight') return 0
  const size = word.startsWith('far') ? word_far_deg : word_near_deg
  return word.endsWith('pull') ? -size : size
}
