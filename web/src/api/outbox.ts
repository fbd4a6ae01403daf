// Writes go out one after the other and are kept until they arrive: range Wi-Fi comes and goes.
// Every write carries an id made here, so sending one twice stores it once.
import { ApiError, ask, client, type ChangedLesson, type Shape } from '@/api/client'

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
  | { kind: 'repetition'; lesson: string; id: string; body: Shape['RepetitionIn'] }
  | { kind: 'follow-up'; lesson: string; id: string; body: Shape['FollowUpIn'] }
  | { kind: 'undo' | 'redo'; lesson: string; id: string }

/** Send one write; the answer is the lesson as it then is, with what follows from it when asked. */
export function send(write: Write, diagnosis: boolean): Promise<ChangedLesson> {
  const query = { diagnosis }
  const { lesson: lesson_id, id } = write
  const here = { params: { path: { lesson_id }, query } }
  switch (write.kind) {
    case 'shot': {
      const params = { path: { lesson_id, shot_id: id }, query }
      const { body } = write
      return ask(client.PUT('/api/lessons/{lesson_id}/shots/{shot_id}', { params, body }))
    }
    case 'shot-gone': {
      const params = { path: { lesson_id, shot_id: id }, query }
      return ask(client.DELETE('/api/lessons/{lesson_id}/shots/{shot_id}', { params }))
    }
    case 'answer': {
      const params = { path: { lesson_id, answer_id: id }, query }
      const { body } = write
      return ask(client.PUT('/api/lessons/{lesson_id}/answers/{answer_id}', { params, body }))
    }
    case 'answer-gone': {
      const params = { path: { lesson_id, answer_id: id }, query }
      return ask(client.DELETE('/api/lessons/{lesson_id}/answers/{answer_id}', { params }))
    }
    case 'block': {
      const params = { path: { lesson_id, block_id: id }, query }
      const { body } = write
      return ask(client.PUT('/api/lessons/{lesson_id}/blocks/{block_id}', { params, body }))
    }
    case 'note': {
      const params = { path: { lesson_id, note_id: id }, query }
      const { body } = write
      return ask(client.PUT('/api/lessons/{lesson_id}/notes/{note_id}', { params, body }))
    }
    case 'note-gone': {
      const params = { path: { lesson_id, note_id: id }, query }
      return ask(client.DELETE('/api/lessons/{lesson_id}/notes/{note_id}', { params }))
    }
    case 'trace': {
      const params = { path: { lesson_id, trace_id: id }, query }
      const { body } = write
      return ask(client.PUT('/api/lessons/{lesson_id}/traces/{trace_id}', { params, body }))
    }
    case 'trace-change': {
      const params = { path: { lesson_id, trace_id: id }, query }
      const { body } = write
      return ask(client.PATCH('/api/lessons/{lesson_id}/traces/{trace_id}', { params, body }))
    }
    case 'trace-gone': {
      const params = { path: { lesson_id, trace_id: id }, query }
      return ask(client.DELETE('/api/lessons/{lesson_id}/traces/{trace_id}', { params }))
    }
    case 'repetition': {
      const params = { path: { lesson_id, repetition_id: id }, query }
      const { body } = write
      return ask(
        client.PUT('/api/lessons/{lesson_id}/repetitions/{repetition_id}', { params, body }),
      )
    }
    case 'lesson':
      return ask(client.PATCH('/api/lessons/{lesson_id}', { ...here, body: write.body }))
    case 'student':
      return ask(client.PATCH('/api/lessons/{lesson_id}/student', { ...here, body: write.body }))
    case 'decision':
      return ask(client.POST('/api/lessons/{lesson_id}/decisions', { ...here, body: write.body }))
    case 'follow-up':
      return ask(client.PUT('/api/lessons/{lesson_id}/follow-up', { ...here, body: write.body }))
    case 'undo':
      return ask(client.POST('/api/lessons/{lesson_id}/undo', here))
    case 'redo':
      return ask(client.POST('/api/lessons/{lesson_id}/redo', here))
  }
}

export interface Listener {
  /** Everything has arrived; the lesson as the server has it, and what follows from it. */
  settled: (lesson: ChangedLesson) => void
  /** How many writes wait, and whether the server is out of reach. */
  waiting: (count: number, unreachable: boolean) => void
  /** A write was refused and dropped. */
  refused: (error: ApiError) => void
}

const KEPT = 'firm-footing-outbox'
const RETRY_MS = 2000

/** The queue of one lesson; what could not be sent is kept in the browser until it can. */
export class Outbox {
  private queue: Write[]
  private busy = false
  private closed = false

  constructor(
    private readonly lesson: string,
    private readonly listener: Listener,
    private readonly deliver: typeof send = send,
  ) {
    this.queue = kept().filter((write) => write.lesson === lesson)
    if (this.queue.length > 0) void this.flush()
  }

  get empty(): boolean {
    return this.queue.length === 0
  }

  /** Queue a write. A newer version of a row that has not left yet takes the older one's place. */
  put(write: Write): void {
    const last = this.queue.length - 1
    const older = this.queue[last]
    const same = older?.kind === write.kind && older.id === write.id
    if (last > 0 && same && !repeats(write)) this.queue[last] = inPlaceOf(older, write)
    else this.queue.push(write)
    this.keep()
    void this.flush()
  }

  close(): void {
    this.closed = true
  }

  private async flush(): Promise<void> {
    if (this.busy) return
    this.busy = true
    let lesson: ChangedLesson | null = null
    while (this.queue.length > 0 && !this.closed) {
      this.listener.waiting(this.queue.length, false)
      try {
        lesson = await this.deliver(this.queue[0] as Write, this.queue.length === 1)
        this.queue.shift()
      } catch (error) {
        const known = error instanceof ApiError ? error : null
        if (known !== null && known.status !== 0) {
          this.queue.shift()
          this.listener.refused(known)
        } else {
          this.listener.waiting(this.queue.length, true)
          await new Promise((resolve) => setTimeout(resolve, RETRY_MS))
        }
      }
      this.keep()
    }
    this.busy = false
    if (this.closed) return
    this.listener.waiting(this.queue.length, false)
    if (lesson !== null) this.listener.settled(lesson)
  }

  private keep(): void {
    const others = kept().filter((write) => write.lesson !== this.lesson)
    const all = [...others, ...this.queue]
    if (all.length > 0) localStorage.setItem(KEPT, JSON.stringify(all))
    else localStorage.removeItem(KEPT)
  }
}

/** These are sent in part: what only the older write says is kept. */
const IN_PART: ReadonlySet<Write['kind']> = new Set([
  'block',
  'trace-change',
  'follow-up',
  'lesson',
  'student',
])
function inPlaceOf(older: Write, newer: Write): Write {
  if (!IN_PART.has(newer.kind) || !('body' in older) || !('body' in newer)) return newer
  return { ...newer, body: { ...older.body, ...newer.body } } as Write
}

function repeats(write: Write): boolean {
  return write.kind === 'undo' || write.kind === 'redo' || write.kind === 'decision'
}

function kept(): Write[] {
  try {
    return JSON.parse(localStorage.getItem(KEPT) ?? '[]') as Write[]
  } catch {
    return []
  }
}
