// Films and traces tied at one moment of the swing: plain arithmetic of their clocks.
import { EVENTS, type Marks, type SwingEvent } from '@/lesson/look/film/marking'

/** The moments that everything here has, best first: the ball says it most exactly. */
const TIES = ['impact', 'top'] as const satisfies readonly SwingEvent[]
type Tie = (typeof TIES)[number]

export function tiesOf(all: readonly (readonly string[])[]): { id: Tie; word: string }[] {
  return TIES.filter((tie) => all.every((events) => events.includes(tie))).map((id) => ({
    id,
    word: EVENTS.find((e) => e.id === id)?.word ?? id,
  }))
}

/** Events that are marked in all of these, in the order of the swing. */
export function sharedEvents(all: readonly Marks[]): { id: SwingEvent; word: string }[] {
  return EVENTS.filter((e) => all.every((m) => m.events?.[e.id] !== undefined))
}

/** Seconds of the swing from the tie to this picture; before it less than nothing. */
export function sinceTie(marks: Marks, tie: SwingEvent, frame: number): number {
  return (frame - (marks.events?.[tie] ?? 0)) / marks.fps
}

/** The picture of a film that is so long after its tie, within the film. */
export function frameSince(marks: Marks, tie: SwingEvent, seconds: number, frames: number): number {
  const frame = (marks.events?.[tie] ?? 0) + Math.round(seconds * marks.fps)
  return Math.min(frames - 1, Math.max(0, frame))
}
