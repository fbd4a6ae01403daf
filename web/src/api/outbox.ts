// Writes go out one after the other and are kept until they arrive: range Wi-Fi comes and goes.
// Every write carries an id made here, so sending one twice stores it once.
import { ApiError, ask, client, type Lesson, type Shape } from '@/api/client'

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

/** Send one write; the answer is the lesson as it then is. */
export function send(write: Write): Promise<Lesson> {
  const lesson_id = write.lesson
  switch (write.kind) {
    case 'shot': {
      const path = { lesson_id, shot_id: write.id }
      return ask(
        client.PUT('/api/lessons/{lesson_id}/shots/{shot_id}', {
          params: { path },
          body: write.body,
        }),
      )
    }
    case 'shot-gone': {
      const path = { lesson_id, shot_id: write.id }
      return ask(client.DELETE('/api/lessons/{lesson_id}/shots/{shot_id}', { params: { path } }))
    }
    case 'answer': {
      const path = { lesson_id, answer_id: write.id }
      return ask(
        client.PUT('/api/lessons/{lesson_id}/answers/{answer_id}', {
          params: { path },
          body: write.body,
        }),
      )
    }
    case 'answer-gone': {
      const path = { lesson_id, answer_id: write.id }
      return ask(
        client.DELETE('/api/lessons/{lesson_id}/answers/{answer_id}', { params: { path } }),
      )
    }
    case 'block': {
      const path = { lesson_id, block_id: write.id }
      return ask(
        client.PUT('/api/lessons/{lesson_id}/blocks/{block_id}', {
          params: { path },
          body: write.body,
        }),
      )
    }
    case 'note': {
      const path = { lesson_id, note_id: write.id }
      return ask(
        client.PUT('/api/lessons/{lesson_id}/notes/{note_id}', {
          params: { path },
          body: write.body,
        }),
      )
    }
    case 'note-gone': {
      const path = { lesson_id, note_id: write.id }
      return ask(client.DELETE('/api/lessons/{lesson_id}/notes/{note_id}', { params: { path } }))
    }
    case 'lesson':
      return ask(
        client.PATCH('/api/lessons/{lesson_id}', {
          params: { path: { lesson_id } },
          body: write.body,
        }),
      )
    case 'student':
      return ask(
        client.PATCH('/api/lessons/{lesson_id}/student', {
          params: { path: { lesson_id } },
          body: write.body,
        }),
      )
    case 'decision':
      return ask(
        client.POST('/api/lessons/{lesson_id}/decisions', {
          params: { path: { lesson_id } },
          body: write.body,
        }),
      )
    case 'trace': {
      const path = { lesson_id, trace_id: write.id }
      const { body } = write
      return ask(
        client.PUT('/api/lessons/{lesson_id}/traces/{trace_id}', { params: { path }, body }),
      )
    }
    case 'trace-change': {
      const path = { lesson_id, trace_id: write.id }
      const { body } = write
      return ask(
        client.PATCH('/api/lessons/{lesson_id}/traces/{trace_id}', { params: { path }, body }),
      )
    }
    case 'trace-gone': {
      const path = { lesson_id, trace_id: write.id }
      return ask(client.DELETE('/api/lessons/{lesson_id}/traces/{trace_id}', { params: { path } }))
    }
    case 'repetition': {
      const path = { lesson_id, repetition_id: write.id }
      const { body } = write
      return ask(
        client.PUT('/api/lessons/{lesson_id}/repetitions/{repetition_id}', {
          params: { path },
          body,
        }),
      )
    }
    case 'follow-up': {
      const { body } = write
      return ask(
        client.PUT('/api/lessons/{lesson_id}/follow-up', { params: { path: { lesson_id } }, body }),
      )
    }
    case 'undo':
      return ask(client.POST('/api/lessons/{lesson_id}/undo', { params: { path: { lesson_id } } }))
    case 'redo':
      return ask(client.POST('/api/lessons/{lesson_id}/redo', { params: { path: { lesson_id } } }))
  }
}

export interface Listener {
  /** Everything has arrived; the lesson as the server has it. */
  settled: (lesson: Lesson) => void
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
    private readonly deliver: (write: Write) => Promise<Lesson> = send,
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
    let lesson: Lesson | null = null
    while (this.queue.length > 0 && !this.closed) {
      this.listener.waiting(this.queue.length, false)
      try {
        lesson = await this.deliver(this.queue[0] as Write)
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
