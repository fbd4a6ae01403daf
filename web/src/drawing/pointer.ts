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
