// The outlines in a picture: where its brightness changes most. For laying two pictures together.

/** Grey levels a pixel, across which there is an edge. */
const EDGE = 60

/**
 * Opacity of each pixel, 0 to 255: of a picture in RGBA, `width` pixels wide. The gradient is
 * Sobel's.
 */
export function outlineOf(rgba: Uint8ClampedArray, width: number): Uint8ClampedArray {
  const height = rgba.length / 4 / width
  const grey = new Float32Array(width * height)
  for (let i = 0; i < grey.length; i++) {
    const at = 4 * i
    grey[i] = ((rgba[at] ?? 0) + (rgba[at + 1] ?? 0) + (rgba[at + 2] ?? 0)) / 3
  }
  const found = new Uint8ClampedArray(width * height)
  const at = (x: number, y: number) => grey[y * width + x] ?? 0
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1; x < width - 1; x++) {
      const across =
        at(x + 1, y - 1) + 2 * at(x + 1, y) + at(x + 1, y + 1) -
        at(x - 1, y - 1) - 2 * at(x - 1, y) - at(x - 1, y + 1) // prettier-ignore
      const down =
        at(x - 1, y + 1) + 2 * at(x, y + 1) + at(x + 1, y + 1) -
        at(x - 1, y - 1) - 2 * at(x, y - 1) - at(x + 1, y - 1) // prettier-ignore
      const steep = Math.hypot(across, down)
      if (steep > EDGE) found[y * width + x] = Math.min(255, steep)
    }
  }
  return found
}
