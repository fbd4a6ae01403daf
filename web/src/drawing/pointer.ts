// From a pointer event to the drawing's own coordinates.
import type { Point } from '@/drawing/range'

export function inDrawing(event: PointerEvent, svg: SVGSVGElement): Point {
  const matrix = svg.getScreenCTM()
  if (matrix === null) return { x: 0, y: 0 }
  const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse())
  return { x: point.x, y: point.y }
}
