// What things are called on the screen.
import type { Direction, Handedness, Shape, Source } from '@/api/client'
import type { DistanceUnit, SideWords } from '@/ui/settings'
import { fromMetres } from '@/ui/units'

export interface Speaker {
  hand: Handedness
  sides: SideWords
}

/** Feet in the words the instructor chose; pull and push side are real sides for any student. */
export function say(text: string, { hand, sides }: Speaker): string {
  const lead = hand === 'right' ? 'left' : 'right'
  const trail = hand === 'right' ? 'right' : 'left'
  const real = text
    .replace(/\bpull side\b/g, `${lead} side`)
    .replace(/\bpush side\b/g, `${trail} side`)
  if (sides === 'lead_trail') return real
  return real
    .replace(/\blead\b/g, lead)
    .replace(/\bLead\b/g, capital(lead))
    .replace(/\btrail\b/g, trail)
    .replace(/\bTrail\b/g, capital(trail))
}

/** What the two feet are called. */
export function feet(speaker: Speaker): { lead: string; trail: string } {
  return { lead: say('Lead', speaker), trail: say('Trail', speaker) }
}

export function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1)
}

/** A sentence as it goes on after a colon. */
export function afterColon(text: string): string {
  return text.charAt(0).toLowerCase() + text.slice(1)
}

/** A direction as an onlooker says it. */
export function directionWord(direction: Direction, hand: Handedness): string {
  if (direction === 'straight') return 'straight'
  const pull = direction.endsWith('pull')
  const side = pull === (hand === 'right') ? 'left' : 'right'
  return direction.startsWith('far') ? `far ${side}` : side
}

/** Golfer-neutral degrees as an onlooker says them: "5° left". */
export function degreesWord(deg: number, hand: Handedness): string {
  const size = Math.abs(deg).toFixed(0)
  if (size === '0') return 'straight'
  const side = deg < 0 === (hand === 'right') ? 'left' : 'right'
  return `${size}° ${side}`
}

export const ANSWER_WORDS = {
  yes: 'Yes',
  partly: 'Partly',
  no: 'No',
  unknown: 'Could not tell',
} as const

export const HANDS = [
  { id: 'right', word: 'Right-handed' },
  { id: 'left', word: 'Left-handed' },
] as const

export const AGES = [
  { id: 'junior', word: 'Junior' },
  { id: 'adult', word: 'Adult' },
  { id: 'senior', word: 'Senior' },
] as const

export const VIEW_WORDS = {
  setup: 'Set-up',
  down_the_line: 'Down the line',
  face_on: 'Face on',
  pressure: 'Pressure',
  finish: 'Finish',
  feel: 'Feel',
  belief: 'What they try',
} as const

export const CONTACTS = ['clean', 'fat', 'thin', 'top', 'heel', 'hosel', 'toe'] as const

/** A probability in per cent; nothing is said to be certain. */
export function percentWord(probability: number): string {
  if (probability > 0.99) return 'over 99 %'
  return probability < 0.01 ? 'under 1 %' : `${(100 * probability).toFixed(0)} %`
}

/** How a look was seen: "by eye", "on the mat". */
export const MEANS_WORDS: Record<Source, string> = {
  look: 'by eye',
  film: 'on film',
  feel: 'by feel',
  mat: 'on the mat',
  plate: 'on the plate',
  monitor: 'by the monitor',
}

export function sureWord(id: string): string {
  return id.replace(/_/g, ' ')
}

export function strikeWord(mm: number): string {
  return Math.abs(mm) < 3 ? 'centre strike' : strikeMm(mm)
}

export function strikeMm(mm: number): string {
  return `${Math.abs(mm).toFixed(0)} mm to the ${mm < 0 ? 'heel' : 'toe'}`
}

/** How much likelier evidence is with a cause than without: bits of odds as a factor. */
export function timesWord(bits: number, forIt = 'with this cause', against = 'without it'): string {
  const times = 2 ** Math.abs(bits)
  const shown = times < 3 ? times.toFixed(1) : times.toFixed(0)
  return `${shown} times likelier ${bits > 0 ? forIt : against}`.trim()
}

type Seen = Shape['SeenOut']

/** A change as an onlooker would see it: "starts 5° more to the right". */
export function changeWords(change: Seen, hand: Handedness): string {
  const parts: string[] = []
  const side = (deg: number) => (deg < 0 === (hand === 'right') ? 'left' : 'right')
  const at = (name: keyof Seen, least: number) => {
    const value = change[name]?.value ?? 0
    return Math.abs(value) >= least ? value : 0
  }
  const start = at('start_deg', 1)
  if (start) parts.push(`starts ${Math.abs(start).toFixed(0)}° more to the ${side(start)}`)
  const curve = at('curve_deg', 1)
  if (curve) parts.push(`curves ${Math.abs(curve).toFixed(0)}° more to the ${side(curve)}`)
  const strike = at('heel_toe_mm', 3)
  if (strike)
    parts.push(`strike ${Math.abs(strike).toFixed(0)} mm nearer the ${strike < 0 ? 'heel' : 'toe'}`)
  const low = at('low_point_cm', 1.5)
  if (low)
    parts.push(`low point ${Math.abs(low).toFixed(0)} cm further ${low < 0 ? 'back' : 'forward'}`)
  return parts.length > 0 ? parts.join(', ') : 'much as before'
}

export function count(n: number, noun: string): string {
  return n === 1 ? `1 ${noun}` : `${String(n)} ${noun}s`
}

/** Golfer-neutral degrees with their doubt, as an onlooker says them: "4.1° left ± 1.0". */
export function sideDegrees(d: { value: number; se: number }, hand: Handedness): string {
  const side = d.value < 0 === (hand === 'right') ? 'left' : 'right'
  return `${Math.abs(d.value).toFixed(1)}° ${side} ± ${d.se.toFixed(1)}`
}

export const LOST_WORDS: Record<string, string> = {
  club_speed: 'club speed',
  strike: 'strike',
  loft_and_spin: 'loft and spin',
  glancing: 'glancing blow',
  ground: 'ground first',
  remainder: 'unexplained',
}

export const SOURCE_WORDS: Record<Shape['ReadBlock']['expected_source'], string> = {
  named: '(your figure)',
  club_speed: '(from club speed)',
  own_best: '(their own best)',
  handicap: '(usual at this handicap)',
}

/** What moved and how it is told; what turns with the hand is told by its real side. */
interface MoveWords {
  what: string
  less: string
  more: string
  turns?: true
}
const SIDEWAYS = { less: '° further left', more: '° further right', turns: true } as const
const BY_WORDS: Record<string, MoveWords> = {
  start_deg: { what: 'start', ...SIDEWAYS },
  curve_deg: { what: 'curve', ...SIDEWAYS },
  path_deg: { what: 'path', ...SIDEWAYS },
  face_to_path_deg: { what: 'face', less: '° more shut to it', more: '° more open to it' },
  heel_toe_mm: { what: 'strike', less: ' mm nearer the heel', more: ' mm nearer the toe' },
  low_point_cm: { what: 'low point', less: ' cm further back', more: ' cm further forward' },
  dynamic_loft_deg: { what: 'loft', less: '° less', more: '° more' },
  club_speed_pct: { what: 'club speed', less: ' % less', more: ' % more' },
  carry_lost_pct: { what: 'carry', less: ' % longer', more: ' % shorter' },
}

function byWord(what: string, by: number, hand: Handedness): string {
  return `${BY_WORDS[what]?.what ?? what} ${amountWord(what, by, hand)}`
}
function amountWord(what: string, by: number, hand: Handedness): string {
  const size = Math.abs(by).toFixed(0)
  const words = BY_WORDS[what]
  if (words === undefined) return size
  const more = by > 0 === (hand === 'right' || !words.turns)
  return `${size}${more ? words.more : words.less}`
}

/** What moved since an earlier baseline: "path 3° further right". */
export function movedWord(moved: Shape['MovedOut'], hand: Handedness): string {
  return byWord(moved.name, moved.difference.value, hand)
}

/** How far it moved, its name being told already: "3° further right". */
export function movedBy(moved: Shape['MovedOut'], hand: Handedness): string {
  return amountWord(moved.name, moved.difference.value, hand)
}

/** What changed while a block was hit. */
export function driftWord(drift: Shape['DriftOut'], hand: Handedness, unit: DistanceUnit): string {
  const steady = 'From the first ball to the last'
  if (drift.what === 'scatter') {
    return drift.change > 0 ? `${steady} they scatter wider: tiring?` : `${steady} they settle.`
  }
  if (drift.what === 'carry_m') {
    const by = Math.abs(fromMetres(drift.change, unit)).toFixed(0)
    return `${steady} carry ${drift.change < 0 ? 'falls' : 'grows'} by ${by} ${unit}${drift.change < 0 ? ': tiring?' : '.'}`
  }
  return `${steady}: ${byWord(drift.what, drift.change, hand)}.`
}
