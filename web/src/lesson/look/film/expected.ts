// Where the next point probably is, so that the picture can come near it by itself.
import type { Knowledge } from '@/api/client'
import { downTheLine, faceOn } from '@/drawing/pose'
import type { Marks, Place, SwingEvent, Wanted } from '@/lesson/look/film/marking'

type Film = Knowledge['film']

/** The posed figure nearest to each event. */
const BASE: Record<SwingEvent, string> = {
  address: 'address',
  shaft_level_back: 'back',
  lead_arm_level_back: 'back',
  top: 'top',
  lead_arm_level_down: 'down',
  shaft_level_down: 'down',
  impact: 'impact',
  arms_level_through: 'impact',
  finish: 'finish',
}

/** Where the figure has it, in its own units; null: it has none, or no such moment. */
function onFigure({ point, event }: Wanted, view: Marks['view'], film: Film): Place | null {
  const pose = film.bases[view]?.[BASE[event]]
  if (!pose) return null
  const at = (view === 'down_the_line' ? downTheLine : faceOn)(pose).joints[point]
  return at ? [at.x, at.y] : null
}

/**
 * Where a point probably is, pixels, golfer-neutral: as the figure has it from what was touched
 * already; where the figure has none of it, as at another event. Null: nothing is known yet.
 */
export function expectedAt(marks: Marks, wanted: Wanted, film: Film): Place | null {
  const { scale, points = {}, view } = marks
  const own = Object.values(points[wanted.point] ?? {})[0] as Place | undefined
  const target = onFigure(wanted, view, film)
  if (!scale || !target) return own ?? null
  const cm = scale.cm ?? film.scales.find((s) => s.id === scale.by)?.cm ?? null
  const long = Math.hypot(scale.end[0] - scale.start[0], scale.end[1] - scale.start[1])
  if (cm === null || long === 0) return own ?? null
  const perUnit = (film.cm_per_unit * long) / cm
  const origins = Object.entries(points).flatMap(([point, at]) =>
    Object.entries(at).flatMap(([event, place]): Place[] => {
      const joint = onFigure({ point, event: event as SwingEvent }, view, film)
      const [x, y] = place as Place
      return joint ? [[x - perUnit * joint[0], y - perUnit * joint[1]]] : []
    }),
  )
  if (origins.length === 0) return own ?? null
  const mean = (i: 0 | 1) => origins.reduce((sum, o) => sum + o[i], 0) / origins.length
  return [mean(0) + perUnit * target[0], mean(1) + perUnit * target[1]]
}

/** How much of the player is shown around a point, cm. */
const AROUND_CM = 80

/** How wide a stretch of the picture that is, pixels; without a scale, a quarter of its height. */
export function stretchPx(marks: Marks, film: Film): number {
  const { scale } = marks
  const cm = scale?.cm ?? film.scales.find((s) => s.id === scale?.by)?.cm ?? null
  if (!scale || cm === null) return marks.height / 4
  const long = Math.hypot(scale.end[0] - scale.start[0], scale.end[1] - scale.start[1])
  return Math.max(16, (AROUND_CM * long) / cm)
}
