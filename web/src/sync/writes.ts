// Every kind of change, and how each is sent. An id made here goes with it, so that sending it twice
// makes it once.
import {
  ask,
  client,
  hearingFirst,
  type ChangedLesson,
  type Diagnosis,
  type Shape,
  type Student,
} from '@/api/client'
import type { paths } from '@/api/schema'

export type Write =
  | { kind: 'shot'; lesson: string; id: string; body: Shape['ShotIn'] }
  | { kind: 'shot-gone'; lesson: string; id: string }
  | { kind: 'answer'; lesson: string; id: string; body: Shape['AnswerIn'] }
  | { kind: 'answer-gone'; lesson: string; id: string }
  | { kind: 'block'; lesson: string; id: string; body: Shape['BlockIn'] }
  | { kind: 'note'; lesson: string; id: string; body: Shape['NoteIn'] }
  | { kind: 'note-gone'; lesson: string; id: string }
  | { kind: 'lesson'; lesson: string; id: string; body: Shape['LessonChange'] }
  | { kind: 'student'; lesson: string; id: string; body: Shape['StudentChange'] }
  | { kind: 'decision'; lesson: string; id: string; body: Shape['DecisionIn'] }
  | { kind: 'trace'; lesson: string; id: string; body: Shape['TraceIn'] }
  | { kind: 'trace-change'; lesson: string; id: string; body: Shape['TraceChange'] }
  | { kind: 'trace-gone'; lesson: string; id: string }
  | { kind: 'film'; lesson: string; id: string; body: Shape['FilmIn'] }
  | { kind: 'film-gone'; lesson: string; id: string }
  | { kind: 'still'; lesson: string; id: string; body: Shape['StillIn'] }
  | { kind: 'still-change'; lesson: string; id: string; body: Shape['OnSheetIn'] }
  | { kind: 'still-gone'; lesson: string; id: string }
  | { kind: 'repetition'; lesson: string; id: string; body: Shape['RepetitionIn'] }
  | { kind: 'follow-up'; lesson: string; id: string; body: Shape['FollowUpIn'] }
  | { kind: 'undo' | 'redo'; lesson: string; id: string; body: Shape['StepIn'] }
  | { kind: 'new-student'; lesson: ''; id: string; body: Shape['NewStudent'] }
  | { kind: 'new-lesson'; lesson: string; id: string; student: Student; body: Shape['NewLesson'] }

/**
 * Send one write; the answer is the lesson as it then is, with what follows from it when asked.
 * `name`: the write's own id, the same whenever it is sent again. `page`: the one it was made on.
 * `heard`: gets what follows as soon as it is there, before the rest of the answer.
 */
export function send(
  write: Write,
  diagnosis: boolean,
  name: string,
  page: string,
  heard: (found: Diagnosis) => void = () => {},
): Promise<ChangedLesson | null> {
  if (write.kind === 'new-student')
    return ask(client.POST('/api/students', { body: write.body })).then(() => null)
  const headers = { 'Idempotency-Key': name, 'page-id': page }
  if (write.kind === 'new-lesson') {
    const params = { path: { student_id: write.id } }
    return ask(client.POST('/api/students/{student_id}/lessons', { params, body: write.body }))
  }
  const params = { path: { lesson_id: write.lesson }, query: { diagnosis } }
  const how = diagnosis ? { headers, fetch: hearingFirst(heard) } : { headers }
  return ask(
    client.POST('/api/lessons/{lesson_id}/changes', { params, body: changeOf(write), ...how }),
  )
}

type Change =
  paths['/api/lessons/{lesson_id}/changes']['post']['requestBody']['content']['application/json']
/** Of these the lesson has only one, or the row is named within. */
const NO_ROW: ReadonlySet<Write['kind']> = new Set([
  'lesson',
  'student',
  'decision',
  'follow-up',
  'undo',
  'redo',
])

/** As the server takes it: kind, row and body. */
function changeOf(write: Write): Change {
  const { kind, id } = write
  const body = 'body' in write ? { body: write.body } : {}
  return (NO_ROW.has(kind) ? { kind, ...body } : { kind, id, ...body }) as Change
}

/** What it is called where it waits. */
const WORDS: Record<Write['kind'], [one: string, many: string]> = {
  shot: ['ball', 'balls'],
  'shot-gone': ['ball taken out', 'balls taken out'],
  answer: ['answer', 'answers'],
  'answer-gone': ['answer taken back', 'answers taken back'],
  block: ['block', 'blocks'],
  note: ['note', 'notes'],
  'note-gone': ['note taken out', 'notes taken out'],
  lesson: ['change of the lesson', 'changes of the lesson'],
  student: ['change of the student', 'changes of the student'],
  decision: ['decision', 'decisions'],
  trace: ['trace', 'traces'],
  'trace-change': ['change of a trace', 'changes of traces'],
  'trace-gone': ['trace taken out', 'traces taken out'],
  film: ['marks of a film', 'marks of films'],
  'film-gone': ['film taken out', 'films taken out'],
  still: ['still', 'stills'],
  'still-change': ['choice for the sheet', 'choices for the sheet'],
  'still-gone': ['still deleted', 'stills deleted'],
  repetition: ['repetition', 'repetitions'],
  'follow-up': ['follow-up', 'follow-ups'],
  undo: ['undo', 'undos'],
  redo: ['redo', 'redos'],
  'new-student': ['new student', 'new students'],
  'new-lesson': ['new lesson', 'new lessons'],
}

export function writeWord(kind: Write['kind']): string {
  return WORDS[kind][0]
}

/** "2 balls, a note" */
export function writesWord(writes: readonly Write[]): string {
  const counts = new Map<Write['kind'], number>()
  for (const { kind } of writes) counts.set(kind, (counts.get(kind) ?? 0) + 1)
  return [...counts].map(([kind, n]) => `${n} ${WORDS[kind][n === 1 ? 0 : 1]}`).join(', ')
}

/** These are sent in part: what only the older write says is kept. */
export const IN_PART: ReadonlySet<Write['kind']> = new Set([
  'block',
  'trace-change',
  'follow-up',
  'lesson',
  'student',
])
const PARTS = ['listen', 'cue', 'sheet', 'school'] as const

/** One write that says what both say; null: both must go. */
export function together(older: Write, newer: Write): Write | null {
  const same = older.kind === newer.kind && older.id === newer.id && older.lesson === newer.lesson
  if (!same || isInOrder(newer) || !('body' in older) || !('body' in newer)) {
    return same && !isInOrder(newer) ? newer : null
  }
  const before = older.body as Record<string, object>
  const after = newer.body as Record<string, object>
  const body: Record<string, unknown> = IN_PART.has(newer.kind) ? { ...before } : {}
  Object.assign(body, after)
  for (const part of PARTS) {
    if (before[part] && after[part]) body[part] = { ...before[part], ...after[part] }
  }
  // what it was before both; of what the older one makes, it was nothing
  if (before.was) body.was = { ...after.was, ...before.was }
  else delete body.was
  return { ...newer, body } as Write
}

/** No step of the lesson: an undo passes over them. */
const NO_STEP: ReadonlySet<Write['kind']> = new Set([
  'still',
  'still-change',
  'still-gone',
  'new-student',
  'new-lesson',
])

/** Of writes that wait, those that stand once every undo and redo among them is carried out. */
export function standing(waiting: readonly Write[]): Write[] {
  return carriedOut(waiting).stand
}

/** Of writes that wait, those that are taken back, the last one last. */
export function takenBack(waiting: readonly Write[]): Write[] {
  return carriedOut(waiting).undone
}

function carriedOut(waiting: readonly Write[]): { stand: Write[]; undone: Write[] } {
  const stand: Write[] = []
  let undone: Write[] = []
  for (const write of waiting) {
    if (write.kind === 'undo') {
      // one that names a step of the server's takes back nothing of what waits
      const at = write.body.step == null ? stand.findLastIndex((w) => !NO_STEP.has(w.kind)) : -1
      if (at >= 0) undone.push(...stand.splice(at, 1))
    } else if (write.kind === 'redo') {
      const again = write.body.step == null ? undone.pop() : undefined
      if (again) stand.push(again)
    } else {
      stand.push(write)
      if (!NO_STEP.has(write.kind)) undone = []
    }
  }
  return { stand, undone }
}

/** Whether an undo takes it back. */
export function isStep({ kind }: Write): boolean {
  return !NO_STEP.has(kind)
}

/** What rests on all that was done before it. */
export function isInOrder({ kind }: Write): boolean {
  return kind === 'undo' || kind === 'redo' || kind === 'decision'
}

/** Whether a write may go although an earlier one still waits. */
export function mayPass(write: Write, waiting: Write): boolean {
  if (waiting.kind === 'new-student') return write.kind !== 'new-lesson' || write.id !== waiting.id
  if (write.lesson !== waiting.lesson) return true
  const made = waiting.kind === 'block' || waiting.kind === 'new-lesson'
  return write.id !== waiting.id && !isInOrder(write) && !made
}
