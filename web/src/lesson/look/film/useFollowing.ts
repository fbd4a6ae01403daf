// Whether the camera was held in the hand, and where it looked at each event: what stands still behind
// the student is followed from address on. What is found goes along with what is marked next, so that
// nothing is saved, or has to be undone, that nobody did.
import { computed, onScopeDispose, ref, shallowRef, watch, type ShallowRef } from 'vue'
import type { Handedness } from '@/api/client'
import { decoderOf, type Decoder } from '@/lesson/look/film/decoding'
import type { OpenFilm } from '@/lesson/look/film/film'
import type { Grey } from '@/lesson/look/film/following'
import { handIn, type Marks, type SwingEvent } from '@/lesson/look/film/marking'
import { farthest, mirroredMove, moveOf, type CameraMove } from '@/lesson/look/film/shake'

/** Pictures are followed at this size: longest side, pixels. */
const LONGEST = 960
/** Pixels of the film: what is less is no hand. */
const STANDS = 1.5
const PAUSE_MS = 600

/** As it was followed from one picture of address to one of an event. */
interface Followed {
  address: number
  frame: number
  /** Null: too little of what stands still was found again. */
  move: CameraMove | null
}
/** What is known of how the camera was held. */
export type Held = 'unknown' | 'looking' | 'stood' | 'moved' | 'lost'

export function useFollowing(
  film: ShallowRef<OpenFilm | null>,
  marks: ShallowRef<Marks | null>,
  hand: () => Handedness,
) {
  const followed = shallowRef<ReadonlyMap<SwingEvent, Followed>>(new Map())
  const looking = ref(false)
  /** A film that is closed, or marked otherwise meanwhile, is followed no further. */
  let turn = 0

  /** What still holds: neither address nor the event is another picture now. */
  const current = computed(() => {
    const events = marks.value?.events ?? {}
    return new Map(
      [...followed.value].filter(
        ([event, { address, frame }]) => events.address === address && events[event] === frame,
      ),
    )
  })
  const found = computed(() => [...current.value].filter(([, { move }]) => move !== null))
  /** How far the camera went at most, pixels of the film. */
  const most = computed(() =>
    Math.max(0, ...[...current.value.values()].map((f) => reach(f.move, film.value))),
  )
  const held = computed((): Held => {
    if (looking.value) return 'looking'
    if (current.value.size === 0) return 'unknown'
    if (most.value > STANDS) return 'moved'
    return found.value.length > 0 ? 'stood' : 'lost'
  })
  /** Events at which nothing that stands still was found again. */
  const lost = computed(() => [...current.value].flatMap(([e, f]) => (f.move ? [] : [e])))

  /** The numbers allow for it. */
  const isTaken = computed(() => found.value.every(([e]) => marks.value?.moves?.[e] !== undefined))
  /** The marks with where the camera looked. */
  function withMoves(next: Marks): Marks {
    if (held.value !== 'moved') return next
    const isMirrored = handIn(next, hand()) === 'left'
    const moves = found.value.map(([event, { move }]) => [
      event,
      move && isMirrored ? mirroredMove(move) : move,
    ])
    return { ...next, held: true, moves: Object.fromEntries(moves) as Marks['moves'] }
  }

  async function follow(): Promise<void> {
    const mine = ++turn
    const [now, events] = [film.value, marks.value?.events ?? {}]
    const { address } = events
    if (!now || address === undefined) return
    const wanted = Object.entries(events).filter(
      ([event]) => event !== 'address' && !current.value.has(event as SwingEvent),
    )
    if (wanted.length === 0) return
    looking.value = true
    try {
      const moveAt = await followerOf(now, address)
      for (const [event, frame] of wanted) {
        const move = await moveAt(frame)
        if (mine !== turn) return
        followed.value = new Map(current.value).set(event as SwingEvent, { address, frame, move })
      }
    } finally {
      if (mine === turn) looking.value = false
    }
  }
  onScopeDispose(() => turn++)
  let waits: ReturnType<typeof setTimeout> | undefined
  watch(
    () => [film.value, JSON.stringify(marks.value?.events ?? {})] as const,
    ([now], [before]) => {
      if (now !== before) followed.value = new Map()
      turn++
      looking.value = false
      clearTimeout(waits)
      waits = setTimeout(() => void follow(), PAUSE_MS)
    },
  )
  return { held, most, lost, isTaken, withMoves }
}

function reach(move: CameraMove | null, film: OpenFilm | null): number {
  return move && film ? farthest(move, film.height) : 0
}

/** Says of each picture where the camera looked, against the one of address. */
async function followerOf(
  film: OpenFilm,
  address: number,
): Promise<(frame: number) => Promise<CameraMove | null>> {
  const decoder = await decoderOf(film)
  const first = decoder && (await greyOf(decoder, address, film))
  if (!first) return () => Promise.resolve(null)
  const { Following } = await import('@/lesson/look/film/following')
  const following = new Following(first)
  const scale = film.width / first.width
  return async (frame) => {
    const other = await greyOf(decoder, frame, film)
    const move = other && moveOf(following.pairsIn(other), [other.width / 2, other.height / 2])
    if (!move) return null
    return {
      ...move,
      right: scale * move.right,
      down: scale * move.down,
      sd_px: scale * move.sd_px,
    }
  }
}

/** A picture without colours, not larger than it is followed; null: it cannot be read. */
async function greyOf(decoder: Decoder, frame: number, film: OpenFilm): Promise<Grey | null> {
  const scale = Math.min(1, LONGEST / Math.max(film.width, film.height))
  const [width, height] = [Math.round(film.width * scale), Math.round(film.height * scale)]
  const pen = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })
  if (pen === null) return null
  try {
    for await (const picture of decoder.from(frame)) {
      picture.draw(pen, width, height)
      picture.letGo()
      break
    }
  } catch {
    return null
  }
  const { data: pixels } = pen.getImageData(0, 0, width, height)
  const data = new Uint8Array(width * height)
  for (let i = 0; i < data.length; i++) {
    const [red, green, blue] = [pixels[4 * i], pixels[4 * i + 1], pixels[4 * i + 2]]
    data[i] = ((red ?? 0) + 2 * (green ?? 0) + (blue ?? 0)) / 4
  }
  return { width, height, data }
}
