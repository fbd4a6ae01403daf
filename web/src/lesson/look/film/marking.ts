// What is asked for next, and what is drawn of it: plain functions of a film's marks.
import type { Handedness, Knowledge, Shape } from '@/api/client'
import { mirroredMove } from '@/lesson/look/film/shake'

export type Marks = Shape['Film']
export type FilmMeasure = Knowledge['film']['measures'][number]
export type SwingEvent = FilmMeasure['event']
export type Place = [number, number]

export const EVENTS: readonly { id: SwingEvent; word: string }[] = [
  { id: 'address', word: 'Address' },
  { id: 'shaft_level_back', word: 'Shaft level back' },
  { id: 'lead_arm_level_back', word: 'Arm level back' },
  { id: 'top', word: 'Top' },
  { id: 'lead_arm_level_down', word: 'Arm level down' },
  { id: 'shaft_level_down', word: 'Shaft level down' },
  { id: 'impact', word: 'Impact' },
  { id: 'arms_level_through', word: 'Arms level after' },
  { id: 'finish', word: 'Finish' },
]

/** A place of the picture in the golfer-neutral one, and back: left-handers are mirrored. */
export function mirrored([x, y]: Place, width: number, hand: Handedness): Place {
  return hand === 'left' ? [width - x, y] : [x, y]
}

/** A measure as it is drawn: the places that it lies between, and the number. */
export interface Drawn {
  id: string
  places: readonly Place[]
  text: string
}

/** The same, golfer-neutral, in the picture's own pixels. */
export function inPicture(drawn: readonly Drawn[], width: number, hand: Handedness): Drawn[] {
  return drawn.map((d) => ({ ...d, places: d.places.map((p) => mirrored(p, width, hand)) }))
}

export interface Wanted {
  point: string
  event: SwingEvent
}

/** The points that a measure wants, the earlier event first. */
export function wantedBy({ points, event, since, at }: FilmMeasure): Wanted[] {
  const events = since == null ? [event] : [since, event]
  return events.flatMap((on) => points.map((point) => ({ point, event: at?.[point] ?? on })))
}

export function isTouched(marks: Marks, { point, event }: Wanted): boolean {
  return marks.points?.[point]?.[event] !== undefined
}

/** The next point to touch for these measures, in the order of the swing. */
export function nextPoint(marks: Marks, measures: readonly FilmMeasure[]): Wanted | null {
  const order = (w: Wanted) => EVENTS.findIndex((e) => e.id === w.event)
  const missing = measures.flatMap(wantedBy).filter((w) => !isTouched(marks, w))
  return missing.sort((a, b) => order(a) - order(b))[0] ?? null
}

/** A point where it was touched, and how large the picture was: page pixels for one of the film. */
export function touched(marks: Marks, { point, event }: Wanted, place: Place, zoom: number): Marks {
  const points = { ...marks.points, [point]: { ...marks.points?.[point], [event]: place } }
  const shown = { ...marks.zoom, [point]: { ...marks.zoom?.[point], [event]: zoom } }
  return { ...marks, points, zoom: shown }
}

/** The same marks where the picture shows the other hand: everything touched stays where it is. */
export function turnedRound(marks: Marks): Marks {
  const turn = ([x, y]: readonly number[]): Place => [marks.width - (x ?? 0), y ?? 0]
  const points = Object.fromEntries(
    Object.entries(marks.points ?? {}).map(([point, at]) => [
      point,
      Object.fromEntries(Object.entries(at).map(([event, place]) => [event, turn(place as Place)])),
    ]),
  )
  const { scale, ground, off_line_cm: off } = marks
  const moves = Object.entries(marks.moves ?? {}).map(([e, move]) => [e, mirroredMove(move)])
  return {
    ...marks,
    points,
    moves: Object.fromEntries(moves) as Marks['moves'],
    scale: scale && { ...scale, start: turn(scale.start), end: turn(scale.end) },
    ground: ground && [turn(ground[0]), turn(ground[1])],
    off_line_cm: off == null ? null : -off,
    other_hand: !marks.other_hand,
  }
}

/** Which way the picture is turned before it is golfer-neutral. */
export function handIn(marks: Marks, hand: Handedness): Handedness {
  if (!marks.other_hand) return hand
  return hand === 'left' ? 'right' : 'left'
}

/** What was touched on the pictures of the events that stay, and where the camera looked there. */
function touchedOn(marks: Marks, stays: (event: string) => boolean): Partial<Marks> {
  const of = <T extends object>(all: T | undefined) =>
    Object.fromEntries(
      Object.entries(all ?? {}).map(([point, at]) => [
        point,
        Object.fromEntries(Object.entries(at as object).filter(([event]) => stays(event))),
      ]),
    )
  const moves = stays('address')
    ? Object.fromEntries(Object.entries(marks.moves ?? {}).filter(([event]) => stays(event)))
    : {}
  return { points: of(marks.points), zoom: of(marks.zoom), moves: moves as Marks['moves'] }
}

/** An event's picture; one that would leave the order takes those it overtook away. */
export function withEvent(marks: Marks, event: SwingEvent, frame: number): Marks {
  const at = EVENTS.findIndex((e) => e.id === event)
  const kept = Object.entries(marks.events ?? {}).filter(([name, other]) => {
    const place = EVENTS.findIndex((e) => e.id === name)
    return place < at ? other < frame : place > at && other > frame
  })
  const events = { ...Object.fromEntries(kept), [event]: frame }
  const moved = marks.events?.[event] !== frame
  const stays = (name: string) => name in events && !(moved && name === event)
  return {
    ...marks,
    events,
    ...touchedOn(marks, stays),
  }
}

/** What the finder proposes, as far as it fits between the events that were marked by hand. */
export function withProposed(
  marks: Marks,
  proposed: Readonly<Partial<Record<SwingEvent, { frame: number }>>>,
): Marks {
  const byHand = marks.events ?? {}
  const events: Record<string, number> = {}
  EVENTS.forEach(({ id }, place) => {
    const frame = byHand[id] ?? proposed[id]?.frame
    if (frame === undefined) return
    const before = EVENTS.slice(0, place).map((e) => events[e.id] ?? -1)
    const after = EVENTS.slice(place + 1).map((e) => byHand[e.id] ?? Infinity)
    const fits = frame > Math.max(-1, ...before) && frame < Math.min(Infinity, ...after)
    if (id in byHand || fits) events[id] = frame
  })
  return { ...marks, events }
}

/** What the finder has around a picture, instead of what was marked; points stay on their pictures. */
export function withFoundAround(
  marks: Marks,
  proposed: Readonly<Partial<Record<SwingEvent, { frame: number }>>>,
): Marks {
  const before = marks.events ?? {}
  const bare: Marks = { ...marks, events: {} }
  const found = withProposed(bare, proposed)
  const stays = (event: string) => before[event] === found.events?.[event]
  return { ...found, ...touchedOn(marks, stays) }
}

/** The point nearest to a place, where one would take hold of it. */
export function nearest<P extends { place: Place }>(
  points: readonly P[],
  [x, y]: Place,
  within: number,
): P | null {
  const off = (p: P) => Math.hypot(p.place[0] - x, p.place[1] - y)
  const near = points.filter((p) => off(p) <= within)
  return near.sort((a, b) => off(a) - off(b))[0] ?? null
}

/** How sure the finder is, in a sentence: nineteen times in twenty. */
export function sureOf(
  proposed: Readonly<Partial<Record<SwingEvent, { sd_frames: number }>>>,
): string {
  const events = new Map<number, string[]>()
  for (const { id, word } of EVENTS) {
    const sd = proposed[id]?.sd_frames
    if (sd === undefined) continue
    const pictures = Math.ceil(1.96 * sd)
    events.set(pictures, [...(events.get(pictures) ?? []), word.toLowerCase()])
  }
  if (events.size === 0) return ''
  const and = new Intl.ListFormat('en-GB')
  const within = [...events]
    .sort(([a], [b]) => a - b)
    .map(
      ([n, words]) =>
        `within ${String(n)} ${n === 1 ? 'picture' : 'pictures'} of ${and.format(words)}`,
    )
  return `The finder is ${within.join(', ')}. Look at each.`
}
