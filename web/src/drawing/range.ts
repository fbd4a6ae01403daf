// The range as drawn: degrees and metres to points, and back.
//
//            · landing
//           /
//      bearing drawn wider than it is, so that a pattern shows
//         /
//        o ball at the bottom middle
/** How many times wider a bearing is drawn at least, and at most where there is room. */
const WIDER = { least: 3.4, most: 5.2 }
const BELOW_PX = 12
const ABOVE_PX = 44
/** The rings end at this bearing on either side, and beside them stand their distances. */
export const RING_DEG = 12
const BESIDE_PX = 64

/** The drawing's size in pixels and how many metres reach its upper edge. */
export interface Range {
  width: number
  height: number
  reachM: number
}

export interface Point {
  x: number
  y: number
}

/** Bearing in screen degrees (+ right) and carry in metres to a point. */
export function toPoint(bearingDeg: number, carryM: number, range: Range): Point {
  const angle = (bearingDeg * wider(range) * Math.PI) / 180
  const radius = (carryM / range.reachM) * reachPx(range)
  const ball = ballAt(range)
  return { x: ball.x + radius * Math.sin(angle), y: ball.y - radius * Math.cos(angle) }
}

/** A point to its bearing in screen degrees (+ right) and carry in metres. */
export function fromPoint(point: Point, range: Range): { bearingDeg: number; carryM: number } {
  const ball = ballAt(range)
  const dx = point.x - ball.x
  const dy = ball.y - point.y
  return {
    bearingDeg: (Math.atan2(dx, dy) * 180) / Math.PI / wider(range),
    carryM: (Math.hypot(dx, dy) / reachPx(range)) * range.reachM,
  }
}

/** The way of a ball: leaves along its start, lands start + curve away. */
export function flightPath(
  startDeg: number,
  curveDeg: number,
  carryM: number,
  range: Range,
): string {
  const from = toPoint(0, 0, range)
  const over = toPoint(startDeg, carryM * 0.62, range)
  const to = toPoint(startDeg + curveDeg, carryM, range)
  return `M${fix(from.x)} ${fix(from.y)}Q${fix(over.x)} ${fix(over.y)} ${fix(to.x)} ${fix(to.y)}`
}

/** A computed flight: places along the target line, up, and to the push side, metres. */
export interface Track {
  places: readonly (readonly [number, number, number])[]
  startDeg: number
  curveDeg: number
}

/**
 * The way of a ball through computed places, turned so that it leaves and lands where its mark is:
 * the finger knew better than the word it became.
 */
export function trackPath(
  track: Track,
  mark: { startDeg: number; curveDeg: number | null },
  sign: 1 | -1,
  range: Range,
): string {
  const last = track.places.at(-1) ?? [1, 0, 0]
  const whole = Math.hypot(last[0], last[2])
  const turn = mark.startDeg - track.startDeg
  const bend = (mark.curveDeg ?? track.curveDeg) - track.curveDeg
  const points = track.places.map(([along, , side]) => {
    const far = Math.hypot(along, side)
    const bearing = far === 0 ? 0 : (Math.atan2(side, along) * 180) / Math.PI
    const at = toPoint((bearing + turn + bend * (far / whole)) * sign, far, range)
    return `${fix(at.x)} ${fix(at.y)}`
  })
  return `M${points.join('L')}`
}

/** An arc across the fan at this distance. */
export function arcPath(carryM: number, halfDeg: number, range: Range): string {
  const a = toPoint(-halfDeg, carryM, range)
  const b = toPoint(halfDeg, carryM, range)
  const radius = fix((carryM / range.reachM) * reachPx(range))
  return `M${fix(a.x)} ${fix(a.y)}A${radius} ${radius} 0 0 1 ${fix(b.x)} ${fix(b.y)}`
}

/** Round distances, in the unit shown, that divide the range in two to four parts. */
export function ringsFor(reach: number): number[] {
  const step = reach > 220 ? 100 : reach > 90 ? 50 : 25
  const rings = []
  for (let d = step; d <= reach; d += step) rings.push(d)
  return rings
}

/** Where the ball lies before it is hit. */
export function ballAt(range: Range): Point {
  return { x: range.width / 2, y: range.height - BELOW_PX }
}

function reachPx(range: Range): number {
  return range.height - BELOW_PX - ABOVE_PX
}

/** How many times wider a bearing is drawn: as wide as the rings have room for. */
function wider(range: Range): number {
  const room = Math.min(1, (range.width / 2 - BESIDE_PX) / reachPx(range))
  const drawnDeg = (Math.asin(Math.max(0, room)) * 180) / Math.PI
  return Math.min(WIDER.most, Math.max(WIDER.least, drawnDeg / RING_DEG))
}

function fix(value: number): string {
  return value.toFixed(1)
}
