// The one figure: from a few numbers (knowledge/poses.yaml) to the lines that draw it.
export type Pose = Record<string, number>
export interface Limb {
  d: string
  kind: 'body' | 'arm' | 'club' | 'foot' | 'far'
}
interface Point {
  x: number
  y: number
}
export interface Figure {
  limbs: Limb[]
  head: { x: number; y: number }
  ball: { x: number; y: number } | null
  /** Where points of a film are on the figure, by their ids (knowledge/film.yaml). */
  joints: Record<string, Point>
}

const FLOOR = 112
const TRUNK = 34
const NECK = 10
const SHAFT = 40
const HIP_Y = 64

const of = (pose: Pose, name: string): number => pose[name] ?? 0
const line = (...points: Point[]): string =>
  `M${points.map((p) => `${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join('L')}`
/** So far from a place, by an angle from hanging down, + to the right. */
function away(from: Point, deg: number, far: number): Point {
  const angle = (deg * Math.PI) / 180
  return { x: from.x + far * Math.sin(angle), y: from.y + far * Math.cos(angle) }
}
/** A leg bends at the knee, so far to the side. */
function kneeOf(hip: Point, foot: Point, knee: number): Point {
  return { x: (hip.x + foot.x) / 2 + knee, y: (hip.y + foot.y) / 2 }
}
function leg(hip: Point, foot: Point, knee: number): string {
  return line(hip, kneeOf(hip, foot, knee), foot)
}

function club(hands: Point, pose: Pose): Limb {
  return { kind: 'club', d: line(hands, away(hands, of(pose, 'shaft'), SHAFT)) }
}

/** Seen from behind the hands: toes and ball to the right. */
export function downTheLine(pose: Pose): Figure {
  const heel = { x: 38, y: FLOOR }
  const trailHeel = { x: heel.x - of(pose, 'slid'), y: FLOOR - of(pose, 'heel') }
  const toe = (from: Point, up: number) => ({ x: from.x + 19, y: FLOOR - up })
  const ankle = { x: heel.x + 4, y: FLOOR - 4 }
  const trailAnkle = { x: trailHeel.x + 4, y: trailHeel.y - 4 }
  const hip = { x: heel.x + 4 + of(pose, 'seat'), y: HIP_Y + of(pose, 'low') }
  const spine = 180 - of(pose, 'spine')
  const shoulder = away(hip, spine, TRUNK)
  const head = away(shoulder, spine, NECK)
  const hands = away(shoulder, of(pose, 'reach'), of(pose, 'arm'))
  return {
    limbs: [
      { kind: 'far', d: leg(hip, ankle, of(pose, 'knee') + 3) },
      { kind: 'far', d: line(heel, toe(heel, of(pose, 'lead_toes'))) },
      { kind: 'body', d: leg(hip, trailAnkle, 3 + of(pose, 'trail_knee')) },
      { kind: 'foot', d: line(trailHeel, toe(trailHeel, of(pose, 'toes'))) },
      { kind: 'body', d: line(hip, shoulder) },
      { kind: 'arm', d: line(shoulder, hands) },
      club(hands, pose),
    ],
    head: { x: head.x + of(pose, 'head'), y: head.y },
    ball: { x: 94, y: FLOOR - 3 - of(pose, 'ball_up') },
    joints: {
      trail_heel: trailHeel,
      trail_toe: toe(trailHeel, 0),
      lead_heel: heel,
      lead_toe: toe(heel, of(pose, 'lead_toes')),
      seat: hip,
      trail_knee: kneeOf(hip, trailAnkle, 3 + of(pose, 'trail_knee')),
      lead_knee: kneeOf(hip, ankle, 3 + of(pose, 'knee')),
      thigh: kneeOf(hip, ankle, 2),
      club_head: away(hands, of(pose, 'shaft'), SHAFT),
      head: { x: head.x + of(pose, 'head'), y: head.y },
      hands,
    },
  }
}

/** Facing the student: the target to the right. */
export function faceOn(pose: Pose): Figure {
  const trail = { x: 34 + of(pose, 'trail_foot'), y: FLOOR - of(pose, 'heel') }
  const lead = { x: 66 + of(pose, 'lead_foot'), y: FLOOR - of(pose, 'lead_heel') }
  const hip = { x: 50 + of(pose, 'hips'), y: HIP_Y }
  const spine = 180 + of(pose, 'spine')
  const chest = away(hip, spine, TRUNK)
  const head = away(chest, spine, NECK)
  const leadShoulder = { x: chest.x + 9, y: chest.y + 3 }
  const trailShoulder = { x: chest.x - 9, y: chest.y + 3 }
  const hands = { x: 50 + of(pose, 'hands'), y: 72 - of(pose, 'high') }
  const elbow = {
    x: (leadShoulder.x + hands.x) / 2 + of(pose, 'fold'),
    y: (leadShoulder.y + hands.y) / 2,
  }
  const flare = of(pose, 'lead_flare')
  const leadToe = { x: lead.x + 4 + 12 * flare, y: FLOOR - of(pose, 'lead_toe') }
  const rolled = of(pose, 'roll') * 5
  return {
    limbs: [
      { kind: 'body', d: leg({ x: hip.x - 5, y: hip.y }, trail, rolled + of(pose, 'knees')) },
      { kind: 'body', d: leg({ x: hip.x + 5, y: hip.y }, lead, 2) },
      {
        kind: 'foot',
        d: line({ x: trail.x - 5 + rolled, y: trail.y }, { x: trail.x + 4, y: FLOOR }),
      },
      { kind: 'foot', d: line({ x: lead.x - 4, y: lead.y }, leadToe) },
      { kind: 'body', d: line({ x: hip.x - 5, y: hip.y }, { x: hip.x + 5, y: hip.y }) },
      { kind: 'body', d: line(hip, chest) },
      { kind: 'body', d: line(trailShoulder, leadShoulder) },
      { kind: 'far', d: line(trailShoulder, hands) },
      { kind: 'arm', d: line(leadShoulder, elbow, hands) },
      ...(pose.club === 0 ? [] : [club(hands, pose)]),
    ],
    head: { x: head.x + of(pose, 'head'), y: head.y },
    ball: of(pose, 'ball') > 30 ? null : { x: 50 + of(pose, 'ball'), y: FLOOR - 2 },
    joints: {
      hips: hip,
      lead_hip: { x: hip.x + 5, y: hip.y },
      trail_hip: { x: hip.x - 5, y: hip.y },
      lead_heel: lead,
      trail_heel: trail,
      lead_toe: { x: lead.x + 4, y: lead.y },
      lead_shoulder: leadShoulder,
      trail_shoulder: trailShoulder,
      lead_elbow: elbow,
      club_head: away(hands, of(pose, 'shaft'), SHAFT),
      head: { x: head.x + of(pose, 'head'), y: head.y },
      ball: { x: 50 + of(pose, 'ball'), y: FLOOR - 2 },
      hands,
    },
  }
}

export interface Shoe {
  foot: 'lead' | 'trail'
  x: number
  y: number
  turn: number
  load: { x: number; r: number }
}
const LEAD_Y = 34
const TRAIL_Y = 86
const TURN_OUT = -1

/** Both shoes from above, toes and ball to the right, the target upward. */
export function shoes(pose: Pose): Shoe[] {
  const lead = of(pose, 'lead')
  const load = (share: number, toe: number) => ({
    x: -22 + 0.44 * toe,
    r: 2 + 10 * Math.sqrt(share / 100),
  })
  return [
    {
      foot: 'lead',
      x: 50 - of(pose, 'lead_back'),
      y: LEAD_Y,
      turn: TURN_OUT * of(pose, 'lead_turn'),
      load: load(lead, of(pose, 'lead_toe')),
    },
    {
      foot: 'trail',
      x: 50 - of(pose, 'trail_back'),
      y: TRAIL_Y - of(pose, 'trail_in'),
      turn: -TURN_OUT * of(pose, 'trail_turn'),
      load: load(100 - lead, of(pose, 'trail_toe')),
    },
  ]
}
