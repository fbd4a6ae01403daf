// Golfer-neutral to what is seen, and back. The server only knows pull and push, lead and trail.
import type { Direction, Handedness } from '@/api/client'

export const DIRECTIONS: readonly Direction[] = ['far_pull', 'pull', 'straight', 'push', 'far_push']

/** +1 when the push side is drawn on the right, −1 when it is drawn on the left. */
export function pushSign(hand: Handedness): 1 | -1 {
  return hand === 'right' ? 1 : -1
}

/** Directions from the left of the screen to the right. */
export function leftToRight(hand: Handedness): readonly Direction[] {
  return hand === 'right' ? DIRECTIONS : [...DIRECTIONS].reverse()
}

const WORD_EDGES = { inner: 2, outer: 6 }
const WORD_MIDDLES: Record<Direction, number> = {
  far_pull: -8.5,
  pull: -3.7,
  straight: 0,
  push: 3.7,
  far_push: 8.5,
}

/** The word for golfer-neutral degrees: straight within 2, far beyond 6. */
export function toWord(deg: number): Direction {
  const size = Math.abs(deg)
  if (size <= WORD_EDGES.inner) return 'straight'
  const far = size > WORD_EDGES.outer
  if (deg < 0) return far ? 'far_pull' : 'pull'
  return far ? 'far_push' : 'push'
}

/** Where a word is drawn: its middle, in golfer-neutral degrees. */
export function middleOf(word: Direction): number {
  return WORD_MIDDLES[word]
}
