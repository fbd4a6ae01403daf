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
  const query = { diagnosis }
  const headers = { 'Idempotency-Key': name, 'page-id': page }
  const how = diagnosis ? { headers, fetch: hearingFirst(heard) } : { headers }
  const { lesson: lesson_id, id } = write
  const here = { params: { path: { lesson_id }, query } }
  switch (write.kind) {
    case 'shot': {
      const params = { path: { lesson_id, shot_id: id }, query }
      const { body } = write
      return ask(client.PUT('/api/lessons/{lesson_id}/shots/{shot_id}', { params, body, ...how }))
    }
    case 'shot-gone': {
      const params = { path: { lesson_id, shot_id: id }, query }
      return ask(client.DELETE('/api/lessons/{lesson_id}/shots/{shot_id}', { params, ...how }))
    }
    case 'answer': {
      const params = { path: { lesson_id, answer_id: id }, query }
      const { body } = write
      return ask(
        client.PUT('/api/lessons/{lesson_id}/answers/{answer_id}', { params, body, ...how }),
      )
    }
    case 'answer-gone': {
      const params = { path: { lesson_id, answer_id: id }, query }
      return ask(client.DELETE('/api/lessons/{lesson_id}/answers/{answer_id}', { params, ...how }))
    }
    case 'block': {
      const params = { path: { lesson_id, block_id: id }, query }
      const { body } = write
      return ask(client.PUT('/api/lessons/{lesson_id}/blocks/{block_id}', { params, body, ...how }))
    }
    case 'note': {
      const params = { path: { lesson_id, note_id: id }, query }
      const { body } = write
      return ask(client.PUT('/api/lessons/{lesson_id}/notes/{note_id}', { params, body, ...how }))
    }
    case 'note-gone': {
      const params = { path: { lesson_id, note_id: id }, query }
      return ask(client.DELETE('/api/lessons/{lesson_id}/notes/{note_id}', { params, ...how }))
    }
    case 'trace': {
      const params = { path: { lesson_id, trace_id: id }, query }
      const { body } = write
      return ask(client.PUT('/api/lessons/{lesson_id}/traces/{trace_id}', { params, body, ...how }))
    }
    case 'trace-change': {
      const params = { path: { lesson_id, trace_id: id }, query }
      const { body } = write
      return ask(
        client.PATCH('/api/lessons/{lesson_id}/traces/{trace_id}', { params, body, ...how }),
      )
    }
    case 'trace-gone': {
      const params = { path: { lesson_id, trace_id: id }, query }
      return ask(client.DELETE('/api/lessons/{lesson_id}/traces/{trace_id}', { params, ...how }))
    }
    case 'film': {
      const params = { path: { lesson_id, film_id: id }, query }
      const { body } = write
      return ask(client.PUT('/api/lessons/{lesson_id}/films/{film_id}', { params, body, ...how }))
    }
    case 'film-gone': {
      const params = { path: { lesson_id, film_id: id }, query }
      return ask(client.DELETE('/api/lessons/{lesson_id}/films/{film_id}', { params, ...how }))
    }
    case 'still': {
      const params = { path: { lesson_id, still_id: id }, query }
      const { body } = write
      return ask(client.PUT('/api/lessons/{lesson_id}/stills/{still_id}', { params, body, ...how }))
    }
    case 'still-change': {
      const params = { path: { lesson_id, still_id: id }, query }
      const { body } = write
      return ask(
        client.PATCH('/api/lessons/{lesson_id}/stills/{still_id}', { params, body, ...how }),
      )
    }
    case 'still-gone': {
      const params = { path: { lesson_id, still_id: id }, query }
      return ask(client.DELETE('/api/lessons/{lesson_id}/stills/{still_id}', { params, ...how }))
    }
    case 'repetition': {
      const params = { path: { lesson_id, repetition_id: id }, query }
      const { body } = write
      return ask(
        client.PUT('/api/lessons/{lesson_id}/repetitions/{repetition_id}', {
          params,
          body,
          ...how,
        }),
      )
    }
    case 'lesson':
      return ask(client.PATCH('/api/lessons/{lesson_id}', { ...here, ...how, body: write.body }))
    case 'student':
      return ask(
        client.PATCH('/api/lessons/{lesson_id}/student', { ...here, ...how, body: write.body }),
      )
    case 'decision':
      return ask(
        client.POST('/api/lessons/{lesson_id}/decisions', { ...here, ...how, body: write.body }),
      )
    case 'follow-up':
      return ask(
        client.PUT('/api/lessons/{lesson_id}/follow-up', { ...here, ...how, body: write.body }),
      )
    case 'undo':
      return ask(
        client.POST('/api/lessons/{lesson_id}/undo', { ...here, ...how, body: write.body }),
      )
    case 'redo':
      return ask(
        client.POST('/api/lessons/{lesson_id}/redo', { ...here, ...how, body: write.body }),
      )
    case 'new-student':
      return ask(client.POST('/api/students', { body: write.body })).then(() => null)
    case 'new-lesson': {
      const params = { path: { student_id: id } }
      const { body } = write
      return ask(client.POST('/api/students/{student_id}/lessons', { params, body }))
    }
  }
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
