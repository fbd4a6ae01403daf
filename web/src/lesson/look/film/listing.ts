// What a film's file says of its pictures: when each is shown, and how they are packed.
import type { Input, InputVideoTrack } from 'mediabunny'

export interface Listing {
  /** When each picture is shown, seconds, in order. */
  times: readonly number[]
  /** Pictures that are packed whole; the others are packed as what changed since. */
  keys: readonly number[]
}
/** Pictures before the beginning are decoded and never shown. */
const BEGINS = -1e-6

async function opened(file: File): Promise<Input> {
  // the reader of files is large, and wanted by those who film
  const { ALL_FORMATS, BlobSource, Input: Reader } = await import('mediabunny')
  return new Reader({ source: new BlobSource(file), formats: ALL_FORMATS })
}
/** The film's pictures in its file; null: there are none. */
export async function trackOf(file: File): Promise<InputVideoTrack | null> {
  return await (await opened(file)).getPrimaryVideoTrack()
}

/** Of every picture of the film; null: this file says nothing that can be read. */
export async function listingOf(file: File): Promise<Listing | null> {
  try {
    const track = await trackOf(file)
    if (!track) return null
    const { EncodedPacketSink } = await import('mediabunny')
    const found: { time: number; key: boolean }[] = []
    const packets = new EncodedPacketSink(track).packets(undefined, undefined, {
      metadataOnly: true,
    })
    for await (const { timestamp, type } of packets)
      if (timestamp >= BEGINS) found.push({ time: timestamp, key: type === 'key' })
    found.sort((a, b) => a.time - b.time)
    const keys = found.flatMap((picture, frame) => (picture.key ? [frame] : []))
    return found.length > 0 ? { times: found.map((p) => p.time), keys } : null
  } catch {
    return null
  }
}

const HOW = 'Record in the most compatible format (H.264), or save the film anew as that.'
/** Why a file does not play here, and how to record so that it does; null: nothing is known. */
export async function whyNotPlayed(file: File): Promise<string | null> {
  try {
    const track = await trackOf(file)
    if (!track) return null
    if (track.codec === 'hevc')
      return `This film is packed as HEVC, which does not play here. ${HOW}`
    const inside = String(track.internalCodecId ?? '')
    if (/^(apc|ap4|aprn|aprh)/.test(inside))
      return `This film is packed as ProRes, for cutting films and not for showing them. ${HOW}`
    return track.codec === null
      ? `This film is packed in a way that does not play here. ${HOW}`
      : null
  } catch {
    return null
  }
}
