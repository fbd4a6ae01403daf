// The picture that is shown, with its measures, as it is sent when it is kept.
import type { Drawn } from '@/lesson/look/film/marking'
import type { Pane } from '@/lesson/look/film/zoom'

const LONGEST_PX = 1280
const QUALITY = 0.85

/** JPEG in base64; `drawn`: in the picture's own pixels. Null: this browser reads none. */
export function stillOf(
  source: CanvasImageSource,
  { width, height }: Pane,
  drawn: readonly Drawn[],
): string | null {
  const scale = Math.min(1, LONGEST_PX / Math.max(width, height))
  const canvas = document.createElement('canvas')
  canvas.width = Math.round(width * scale)
  canvas.height = Math.round(height * scale)
  const pen = canvas.getContext('2d')
  if (pen === null) return null
  pen.scale(scale, scale)
  pen.drawImage(source, 0, 0, width, height)
  const size = height / 36
  pen.font = `600 ${String(size)}px sans-serif`
  pen.textBaseline = 'middle'
  for (const { places, text } of drawn) {
    const last = places.at(-1)
    if (last === undefined) continue
    // dark below, light above: it reads on any picture
    for (const [colour, wide] of [
      ['black', size / 5],
      ['white', size / 10],
    ] as const) {
      pen.strokeStyle = colour
      pen.lineWidth = wide
      pen.beginPath()
      for (const [x, y] of places) pen.lineTo(x, y)
      pen.stroke()
    }
    pen.lineWidth = size / 4
    pen.strokeStyle = 'black'
    pen.fillStyle = 'white'
    pen.strokeText(text, last[0] + size / 2, last[1])
    pen.fillText(text, last[0] + size / 2, last[1])
  }
  return canvas.toDataURL('image/jpeg', QUALITY).split(',')[1] ?? null
}
