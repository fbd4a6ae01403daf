// From a pointer event to the drawing's own coordinates.
// Where one drags, the drawing also stops `touchmove`: `touch-action: none` keeps the page still, yet
// a finger lifted in flight flings all the same, and the tap that follows only ends the fling.
import type { Point } from '@/drawing/range'

export function inDrawing(event: MouseEvent, svg: SVGSVGElement): Point {
  const matrix = svg.getScreenCTM()
  if (matrix === null) return { x: 0, y: 0 }
  const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse())
  return { x: point.x, y: point.y }
}

/** A drag stays with the drawing; a page that scrolls already cannot be stopped any more. */
export function keepDrag(event: TouchEvent): void {
  if (event.cancelable) event.preventDefault()
}

let scrolledAt = -Infinity
const STILL_MS = 200
globalThis.addEventListener?.(
  'scroll',
  () => {
    scrolledAt = performance.now()
  },
  { passive: true },
)

/** A finger that stops a moving page means the page, whatever lies under it by then. */
export function pageMoves(): boolean {
  return performance.now() - scrolledAt < STILL_MS
}

const SWIPE_PX = 14
const QUICK_MS = 180
const STEEP = 2

/**
 * A press that turns out to be a swipe: quick, and straight up or down. The page then follows it.
 * One that rests or moves sideways never becomes a swipe.
 */
export class Swipe {
  private readonly start: { x: number; y: number; at: number }
  private y: number
  private is: boolean | null = null

  constructor(event: PointerEvent) {
    this.start = { x: event.clientX, y: event.clientY, at: event.timeStamp }
    this.y = event.clientY
  }
  /** Whether it is a swipe by now; if so, the page moves with the finger. */
  moves(event: PointerEvent): boolean {
    if (this.is === null) {
      const [dx, dy] = [event.clientX - this.start.x, event.clientY - this.start.y]
      if (Math.hypot(dx, dy) > SWIPE_PX || event.timeStamp - this.start.at > QUICK_MS) {
        const quick = event.timeStamp - this.start.at <= QUICK_MS
        this.is = quick && Math.abs(dy) >= STEEP * Math.abs(dx)
      }
    }
    if (!this.is) return false
    window.scrollBy(0, this.y - event.clientY)
    this.y = event.clientY
    return true
  }
}
