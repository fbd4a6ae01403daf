// What a change makes of the lesson, at once and before the server has it; after a reload again.
import type { Answer, Block, Lesson, LoggedShot, Shape, Student } from '@/api/client'
import type { Write } from '@/sync/writes'

/** Changes the lesson in place. */
export function applyWrite(lesson: Lesson, write: Write): void {
  const now = new Date().toISOString()
  switch (write.kind) {
    case 'shot':
      putShot(lesson, write.id, write.body, now)
      break
    case 'shot-gone':
      for (const block of lesson.blocks) block.shots = without(block.shots, write.id)
      break
    case 'answer':
      putAnswer(lesson, write.id, write.body, now)
      break
    case 'answer-gone':
      lesson.answers = without(lesson.answers, write.id)
      break
    case 'block': {
      const known = lesson.blocks.find((b) => b.id === write.id)
      const said = withoutWas(write.body)
      if (known) Object.assign(known, said)
      else lesson.blocks.push(newBlock(write.id, lesson.blocks.length, said))
      break
    }
    case 'repetition':
      if (!lesson.repetitions.some((r) => r.id === write.id)) {
        const repetition = { id: write.id, ...write.body, done_at: now }
        lesson.repetitions.push(repetition as Lesson['repetitions'][number])
      }
      break
    case 'decision':
      if (!lesson.decisions.some((d) => d.id === write.id)) {
        // what the ranking said then, the server keeps with it
        const kept = { ranking: {}, knowledge_version: '', prediction: null, decided_at: now }
        const { cause, reason = '' } = write.body
        lesson.decisions.push({ ...kept, id: write.id, cause, reason })
      }
      break
    case 'note': {
      const known = lesson.notes.find((n) => n.id === write.id)
      const { text } = write.body
      if (known) known.text = text
      else lesson.notes.push({ id: write.id, text, written_at: now })
      break
    }
    case 'note-gone':
      lesson.notes = without(lesson.notes, write.id)
      break
    case 'still-change': {
      const known = lesson.stills.find((s) => s.id === write.id)
      if (known) Object.assign(known, write.body)
      break
    }
    case 'still-gone':
      lesson.stills = without(lesson.stills, write.id)
      break
    case 'lesson':
      change(lesson, write.body)
      break
    case 'student':
      change(lesson.student, write.body)
      break
    default: // what only the server can work out shows when it has answered
  }
}

/** A lesson that was begun on this page and that the server does not know yet. */
export function begunHere(waiting: readonly Write[], id: string): Lesson | null {
  const begun = waiting.find((w) => w.kind === 'new-lesson' && w.lesson === id)
  if (begun?.kind !== 'new-lesson') return null
  return newLesson(id, begun.body, begun.student)
}

export function newStudent(id: string, body: Shape['NewStudent']): Student {
  const usual = { handicap: null, dominant_leg: null, age_group: 'adult', limits: [], about: '' }
  const more = { limit_details: {}, guardian_agreed: false, archived: false }
  return { ...usual, ...more, ...body, id, created_at: new Date().toISOString() } as Student
}

export function newLesson(id: string, body: Shape['NewLesson'], student: Student): Lesson {
  const listen = { feels: '', misses: [], goal: '', event: '', event_on: null, background: '' }
  const health = { health: '', health_asked: false, corrected: [], minutes: 45 }
  const before = { past: [], past_left_out: false }
  return {
    id,
    student,
    complaint: body.complaint ?? '',
    given_by: '',
    school: body.school,
    at_hand: ['look', 'feel'],
    finished: false,
    started_at: new Date().toISOString(),
    blocks: [newBlock(body.block_id ?? id, 0, { club: body.club ?? '7i' })],
    answers: [],
    traces: 0,
    stills: [],
    notes: [],
    decisions: [],
    listen: { ...listen, ...health, ...before },
    cue: { text: '', felt: {} },
    drill: null,
    aid: null,
    lacking: [],
    reopens: null,
    earlier: [],
    primary: null,
    next_at: null,
    sheet: {},
    repetitions: [],
    follow_up: null,
    revision: -1,
    undo: null,
    redo: null,
    undo_step: null,
    redo_step: null,
    unreadable: [],
  } as unknown as Lesson
}

function putShot(lesson: Lesson, id: string, body: Shape['ShotIn'], now: string): void {
  const block = lesson.blocks.find((b) => b.id === body.block_id)
  const known = block?.shots.find((s) => s.id === id)
  const { observed, touched } = body
  if (known) Object.assign(known, { observed, touched })
  else block?.shots.push({ id, observed, touched, hit_at: now } as LoggedShot)
}

function putAnswer(lesson: Lesson, id: string, body: Shape['AnswerIn'], now: string): void {
  const known = lesson.answers.find((a) => a.id === id)
  const said = withoutWas(body)
  if (known) Object.assign(known, said)
  else lesson.answers.push({ share: null, block_id: null, ...said, id, answered_at: now } as Answer)
}

function newBlock(id: string, position: number, body: Shape['BlockIn']): Block {
  const unnoted = { drill: null, expected_carry_m: null, effort_pct: null, stance: null }
  const usual = { kind: 'baseline', club: '7i', surface: null, teed: null, own_targets: false }
  return { ...unnoted, ...usual, ...body, id, position, shots: [] } as Block
}

const PARTS = ['school', 'listen', 'cue', 'sheet']

/** Fields of a part stay where only some of them are given. */
function change(row: object, body: object): void {
  const now = row as Record<string, object>
  for (const [name, value] of Object.entries(body)) {
    if (name === 'was') continue
    const part = PARTS.includes(name)
    now[name] = (part ? { ...now[name], ...(value as object) } : value) as object
  }
}

/** What it was before is no field of the row. */
function withoutWas<T extends { was?: unknown }>(body: T): Omit<T, 'was'> {
  const said = { ...body }
  delete said.was
  return said
}

function without<T extends { id: string }>(rows: T[], id: string): T[] {
  return rows.filter((row) => row.id !== id)
}
