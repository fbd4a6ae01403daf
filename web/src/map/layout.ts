// Where a cause stands on the map: by when it acts from left to right, by where from top to bottom.
import type { Knowledge } from '@/api/client'

export type Cause = Knowledge['causes'][number]
export type Phase = Cause['acts']
export const PHASES: readonly { id: Phase; word: string }[] = [
  { id: 'setup', word: 'Set-up' },
  { id: 'going_back', word: 'Going back' },
  { id: 'starting_down', word: 'Starting down' },
  { id: 'at_the_ball', word: 'At the ball' },
]

/** From the hands down to the feet. */
const DOWN = [
  'aim',
  'grip',
  'hands',
  'club',
  'chest',
  'hips',
  'ball',
  'both_heels',
  'both_toes',
  'lead_toe',
  'lead_heel',
  'lead_foot',
  'trail_toe',
  'trail_heel',
  'trail_foot',
]
export const BOX = { width: 196, height: 40 }
const COLUMN_PX = 226
const ROW_PX = 50
const TOP_PX = 46
export const BALL = { x: 4 * COLUMN_PX + 6, width: 176 }
export const SIZE = { width: BALL.x + BALL.width + 6, height: TOP_PX + 10 * ROW_PX + 6 }

export interface Placed {
  id: string
  x: number
  y: number
}

export const columnX = (phase: number) => 6 + phase * COLUMN_PX

/** The upper left corner of every cause's box. */
export function placed(causes: readonly Cause[]): Map<string, Placed> {
  const found = new Map<string, Placed>()
  PHASES.forEach(({ id }, column) => {
    const here = causes
      .filter((c) => c.acts === id)
      .sort((a, b) => DOWN.indexOf(a.place) - DOWN.indexOf(b.place))
    const free = SIZE.height - TOP_PX - here.length * ROW_PX
    here.forEach((c, row) => {
      const y = TOP_PX + free / 2 + row * ROW_PX
      found.set(c.id, { id: c.id, x: columnX(column), y })
    })
  })
  return found
}

/** Every miss down the right side. */
export function missPlaces(ids: readonly string[]): Map<string, Placed> {
  const step = (SIZE.height - TOP_PX) / ids.length
  return new Map(
    ids.map((id, row) => [id, { id, x: BALL.x, y: TOP_PX + row * step + (step - BOX.height) / 2 }]),
  )
}

/** The gaps between the boxes of a column, and the room above and below them: heights that are free. */
function gapsOf(x: number, places: Iterable<Placed>): number[] {
  const tops = [...places].filter((p) => p.x === x).map((p) => p.y)
  if (tops.length === 0) return []
  const gap = (ROW_PX - BOX.height) / 2
  return [...tops.map((y) => y - gap), Math.max(...tops) + BOX.height + gap]
}

/**
 * A line from the right side of one box to the left side of another; in one column, round it. On its
 * way it passes the columns between through the gap that is nearest, so that no box is crossed.
 */
export function lineBetween(from: Placed, to: Placed, places: Iterable<Placed>): string {
  const [y1, y2] = [from.y + BOX.height / 2, to.y + BOX.height / 2]
  if (to.x > from.x) {
    let [x, y] = [from.x + BOX.width, y1]
    let path = `M${x} ${y}`
    const all = [...places]
    const onTo = (nextX: number, nextY: number): void => {
      const bend = Math.max(12, (nextX - x) / 2)
      path += `C${x + bend} ${y} ${nextX - bend} ${nextY} ${nextX} ${nextY}`
      ;[x, y] = [nextX, nextY]
    }
    for (let column = from.x + COLUMN_PX; column < to.x; column += COLUMN_PX) {
      const straight = y + ((y2 - y) * (column - x)) / (to.x - x)
      const away = (g: number) => Math.abs(g - straight)
      const [gap] = gapsOf(column, all).sort((a, b) => away(a) - away(b))
      if (gap === undefined) continue
      onTo(column, gap)
      path += `L${column + BOX.width} ${gap}`
      x = column + BOX.width
    }
    onTo(to.x, y2)
    return path
  }
  const x = to.x
  if (to.x === from.x) return `M${x} ${y1}C${x - 24} ${y1} ${x - 24} ${y2} ${x} ${y2}`
  return `M${from.x} ${y1}C${from.x - 40} ${y1} ${x + BOX.width + 40} ${y2} ${x + BOX.width} ${y2}`
}

/** Everything that this cause can come from or bring about, however far. */
export function chainAbout(id: string, causes: readonly Cause[]): Set<string> {
  const found = new Set([id])
  const walk = (from: string, next: (cause: string) => readonly string[]): void => {
    for (const other of next(from)) {
      if (found.has(other)) continue
      found.add(other)
      walk(other, next)
    }
  }
  walk(id, (c) => causes.find((k) => k.id === c)?.upstream_of ?? [])
  walk(id, (c) => causes.filter((k) => k.upstream_of?.includes(c)).map((k) => k.id))
  return found
}
