// The pictures of a film as the browser's own decoder gives them, one after the other.
import type { VideoSample } from 'mediabunny'
import type { OpenFilm } from '@/lesson/look/film/film'
import { trackOf } from '@/lesson/look/film/listing'
import { frameAt } from '@/lesson/look/film/playing'

/** A picture that lies in the decoder, which goes on when it is copied or let go of. */
export interface Decoded {
  frame: number
  draw: (pen: OffscreenCanvasRenderingContext2D, width: number, height: number) => void
  copied: () => Promise<Copied>
  letGo: () => void
}
/** A picture in memory of its own. */
export interface Copied {
  bytes: number
  /** Upright, in the film's own size. */
  pixels: () => Promise<ImageData>
}
export interface Decoder {
  /** Pictures from this one on, in order. */
  from: (frame: number) => AsyncGenerator<Decoded, void>
  /** The picture packed whole from which this one is decoded. */
  keyOf: (frame: number) => number
}

/** Null: this browser decodes no such film, or the file does not say when its pictures are shown. */
export async function decoderOf(film: OpenFilm): Promise<Decoder | null> {
  const { listing } = film
  // browsers keep their decoder from pages that came over an open network
  if (listing === null || !('VideoDecoder' in globalThis)) return null
  try {
    const track = await trackOf(film.file)
    if (!track || !(await track.canDecode())) return null
    const { VideoSampleSink } = await import('mediabunny')
    const sink = new VideoSampleSink(track)
    async function* from(frame: number): AsyncGenerator<Decoded, void> {
      for await (const sample of sink.samples(listing?.times[frame] ?? 0))
        yield decodedOf(sample, frameAt(sample.timestamp, film))
    }
    const keyOf = (frame: number) => listing.keys.findLast((key) => key <= frame) ?? 0
    return { from, keyOf }
  } catch {
    return null
  }
}

function decodedOf(sample: VideoSample, frame: number): Decoded {
  return {
    frame,
    draw: (pen, width, height) => {
      sample.draw(pen, 0, 0, width, height)
    },
    copied: async () => {
      const { format, visibleRect, timestamp, colorSpace, rotation, flip } = sample
      const isPlain = !flip && sample.pixelAspectRatio.num === sample.pixelAspectRatio.den
      if (format === null || !isPlain) throw new Error('These pictures cannot be copied.')
      const bytes = new Uint8Array(sample.allocationSize())
      const layout = await sample.copyTo(bytes)
      sample.close()
      const { width: codedWidth, height: codedHeight } = visibleRect
      const init = { format, codedWidth, codedHeight, layout, timestamp, colorSpace }
      const pixels = async () => {
        // drawn as it is, a browser without a graphics chip keeps every picture that it ever drew
        const packed = new VideoFrame(bytes, init as VideoFrameBufferInit)
        const flat = new Uint8ClampedArray(4 * codedWidth * codedHeight)
        await packed.copyTo(flat, { format: 'RGBA' })
        packed.close()
        const upright = turned({ data: flat, width: codedWidth, height: codedHeight }, rotation)
        return new ImageData(upright.data, upright.width, upright.height)
      }
      return { bytes: bytes.length, pixels }
    },
    letGo: () => {
      sample.close()
    },
  }
}

/** Four bytes a pixel, row by row. */
type Flat = Pick<ImageData, 'width' | 'height'> & { data: Uint8ClampedArray<ArrayBuffer> }

/** A picture turned clockwise by quarters: phones write how they were held. */
export function turned(picture: Flat, degrees: number): Flat {
  let now = picture
  for (let left = degrees; left > 0; left -= 90) {
    const { width, height } = now
    const from = new Uint32Array(now.data.buffer)
    const to = new Uint32Array(from.length)
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) to[x * height + height - 1 - y] = from[y * width + x] ?? 0
    now = { data: new Uint8ClampedArray(to.buffer), width: height, height: width }
  }
  return now
}
