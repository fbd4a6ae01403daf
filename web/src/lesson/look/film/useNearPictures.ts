// The pictures around the one that is shown, for as long as it is shown.
import { onScopeDispose, watch } from 'vue'
import { decoderOf } from '@/lesson/look/film/decoding'
import type { OpenFilm } from '@/lesson/look/film/film'
import { NearPictures } from '@/lesson/look/film/nearPictures'

/** `film`: null where none are held. */
export function useNearPictures(film: () => OpenFilm | null) {
  let held: Promise<NearPictures | null> | null = null
  function close(): void {
    void held?.then((pictures) => pictures?.close())
    held = null
  }
  async function opened(sought: OpenFilm): Promise<NearPictures | null> {
    const decoder = await decoderOf(sought)
    return decoder && new NearPictures(decoder, sought.frames)
  }
  watch(
    () => film()?.url,
    () => {
      close()
      const now = film()
      if (now) held = opened(now)
    },
    { immediate: true },
  )
  onScopeDispose(close)

  /** Null: this browser cannot decode it. */
  async function pixelsOf(frame: number): Promise<ImageData | null> {
    const sought = film()
    const picture = await (await held)?.at(frame)
    try {
      const pixels = await picture?.pixels()
      return pixels?.width === sought?.width ? (pixels ?? null) : null
    } catch {
      return null
    }
  }
  return { pixelsOf }
}
