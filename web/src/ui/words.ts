// What things are called on the screen.
import type { Diagnosis, Direction, Handedness, Knowledge, Shape } from '@/api/client'
import type { DistanceUnit, SideWords } from '@/ui/settings'
import { fromMetres, signed } from '@/ui/units'

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

export const VIEW_WORDS = {
  setup: 'Set-up',
  down_the_line: 'Down the line',
  face_on: 'Face on',
  pressure: 'Pressure',
  finish: 'Finish',
  feel: 'Feel',
} as const

/** Matters on which practitioners disagree. */
export const SCHOOL_QUESTIONS = [
  { key: 'pressure', title: 'Pressure school' },
  { key: 'heel_toe', title: 'Heel and toe' },
  { key: 'lead_foot', title: 'Lead foot' },
  { key: 'start', title: 'Start of the downswing' },
] as const

export const CONTACTS = ['clean', 'fat', 'thin', 'top', 'hosel', 'toe'] as const

export function sureWord(id: string): string {
  return id.replace(/_/g, ' ')
}

/** One link of a chain: a cause, a mechanism or an effect on club and ball. */
export function linkWord(id: string, knowledge: Knowledge): string {
  const cause = knowledge.causes.find((c) => c.id === id)
  const mechanism = knowledge.mechanisms.find((m) => m.id === id)
  return cause?.label ?? mechanism?.label ?? knowledge.ends[id] ?? sureWord(id)
}

/** A piece of evidence in a few words. */
export function evidenceWord(
  id: string,
  diagnosis: Diagnosis,
  knowledge: Knowledge,
  answers: Map<string, string>,
  hand: Handedness,
): string {
  const known = diagnosis.spreads
  const value = (name: string) => known[name]?.value ?? 0
  switch (id) {
    case 'pattern.path_deg':
      return `path ${degreesWord(value('path_deg'), hand)}`
    case 'pattern.start_deg':
      return `starts ${degreesWord(value('start_deg'), hand)}`
    case 'pattern.face_to_path_deg': {
      const deg = value('face_to_path_deg')
      if (Math.abs(deg) < 0.5) return 'face square to the path'
      return `face ${Math.abs(deg).toFixed(0)}° ${deg > 0 ? 'open' : 'shut'} to the path`
    }
    case 'pattern.low_point_cm':
      return `low point ${signed(value('low_point_cm'))} cm`
    case 'pattern.heel_toe_mm':
      return strikeWord(value('heel_toe_mm'))
    case 'pattern.dynamic_loft_deg':
      return `loft ${signed(value('dynamic_loft_deg'))}°`
    case 'pattern.club_speed_pct':
      return `club speed ${signed(value('club_speed_pct'))} %`
    case 'pattern.carry_lost_pct':
      return `${value('carry_lost_pct').toFixed(0)} % of carry lost`
    case 'pattern.scatter':
      return 'how far the balls scatter'
    case 'pattern.two_way':
      return diagnosis.ranking.pattern.two_way ? 'two-way miss' : 'no two-way miss'
  }
  if (id.startsWith('trace:')) return 'pressure on the mat'
  if (id.startsWith('trial:')) {
    const said = diagnosis.verdicts.find((v) => `trial:${String(v.block)}` === id)
    const drill = knowledge.drills.find((d) => d.id === said?.drill)
    return `${count(said?.balls ?? 0, 'ball')} with “${drill?.name.toLowerCase() ?? id}”`
  }
  const check = knowledge.checks.find((c) => c.id === id)
  return `${check?.label ?? id}: ${answers.get(id) ?? 'not answered'}`
}

export function strikeWord(mm: number): string {
  const size = Math.abs(mm).toFixed(0)
  if (Math.abs(mm) < 3) return 'centre strike'
  return `${size} mm to the ${mm < 0 ? 'heel' : 'toe'}`
}

/** Where the decision stands, in one sentence. */
export function standingWord(diagnosis: Diagnosis, knowledge: Knowledge): string {
  const { kind, leading, balls_missing: balls, answers_missing: answers } = diagnosis.standing
  switch (kind) {
    case 'settled':
      return `Settled: ${linkWord(leading[0] ?? '', knowledge)}.`
    case 'open':
      if (oneLookAway(diagnosis)) return `Nearly: ${linkWord(leading[0] ?? '', knowledge)}.`
      return `Open between ${leading.map((id) => linkWord(id, knowledge)).join(' and ')}.`
    case 'unclear':
      return unclearWord(diagnosis, knowledge)
    case 'too_little':
      return `Not enough yet: ${count(balls, 'more ball')} or ${count(answers, 'more answer')}.`
  }
}

const LIKELY = 0.65

/** One cause may be all but sure while what brings it about is not. */
function unclearWord({ ranking }: Diagnosis, knowledge: Knowledge): string {
  const first = ranking.causes[0]
  if (!first || first.probability < LIKELY) return 'No cause stands out yet.'
  return `${capital(linkWord(first.id, knowledge))}, but where it starts is open.`
}

const WELL_AHEAD = 0.2

/** The first is well ahead, and still one answer could put another there. */
function oneLookAway({ standing }: Diagnosis): boolean {
  return standing.kind === 'open' && standing.margin >= WELL_AHEAD && standing.turn?.answer != null
}

/** What would unsettle it, or what is missing, in one more sentence. */
export function standingDetail(diagnosis: Diagnosis, knowledge: Knowledge): string {
  const { kind, turn } = diagnosis.standing
  if (kind === 'too_little') return ''
  if (kind === 'open' && !oneLookAway(diagnosis)) {
    return 'The look below, or a few separating balls, would tell.'
  }
  if (turn?.answer == null) {
    return kind === 'settled'
      ? 'No single look left would turn it.'
      : 'No single look will do: take several, or log more balls.'
  }
  const look = knowledge.checks.find((c) => c.id === turn.check)?.label ?? turn.check
  const chance = Math.round(100 * turn.chance)
  const answer = `“${capital(look)}: ${turn.answer}” (${String(chance)}\u00a0% likely)`
  if (kind === 'settled') return `It would change with ${answer}.`
  return `${answer} would put ${linkWord(turn.then_first, knowledge)} first.`
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

/** A pattern as an onlooker would see it: "starts 2° left, curves 3° right". */
export function patternWords(seen: Seen, hand: Handedness): string {
  const parts: string[] = []
  if (seen.start_deg) parts.push(`starts ${degreesWord(seen.start_deg.value, hand)}`)
  if (seen.curve_deg) {
    const word = degreesWord(seen.curve_deg.value, hand)
    parts.push(word === 'straight' ? 'flies straight' : `curves ${word}`)
  }
  if (seen.heel_toe_mm) parts.push(strikeWord(seen.heel_toe_mm.value))
  if (seen.low_point_cm) parts.push(`low point ${signed(seen.low_point_cm.value)} cm`)
  if (seen.carry_pct) parts.push(`carries ${seen.carry_pct.value.toFixed(0)} % of what is expected`)
  return parts.join(', ')
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
