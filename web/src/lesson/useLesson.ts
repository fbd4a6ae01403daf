// One open lesson: what is in it, what it amounts to, and every way to change it.
// A change shows at once, goes out through the outbox, and the server's version settles it.
import { computed, onScopeDispose, ref, shallowRef } from 'vue'
import { ApiError, ask, client } from '@/api/client'
import type {
  Answer,
  AnswerWord,
  Block,
  Diagnosis,
  Lesson,
  Shape,
  Shot,
  Source,
} from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import { Outbox, type Write } from '@/api/outbox'
import { useArrivals } from '@/lesson/useArrivals'

/** A new block until the server has it: a ball may be logged into it at once. */
function newBlock(id: string, position: number, body: Shape['BlockIn']): Block {
  const unnoted = { drill: null, expected_carry_m: null, effort_pct: null, stance: null }
  const usual = { kind: 'baseline', club: '7i', surface: null, teed: null, own_targets: false }
  return { ...unnoted, ...usual, ...body, id, position, shots: [] } as Block
}

export type Saving = { state: 'saved' | 'saving' | 'unreachable'; waiting: number }

export function useLesson(id: string) {
  const known = useKnowledge()
  const lesson = ref<Lesson | null>(null)
  const diagnosis = shallowRef<Diagnosis | null>(null)
  /** What the balls show, block by block. */
  const balls = shallowRef<Shape['ReadBlock'][] | null>(null)
  const failure = shallowRef<ApiError | null>(null)
  const refusal = shallowRef<ApiError | null>(null)
  /** The look that a round asks now; without one, the best look is asked. */
  const roundAsks = ref<Look | null>(null)
  const asking = computed<Look | null>(
    () => roundAsks.value ?? diagnosis.value?.ranking.next_checks[0] ?? null,
  )
  /** The check answered last, anew each time. */
  const lastAnswer = shallowRef<{ check: string } | null>(null)
  const saving = ref<Saving>({ state: 'saved', waiting: 0 })

  const outbox = new Outbox(id, {
    settled({ diagnosis: found, balls: read, ...arrived }) {
      changes++
      if (outbox.empty) lesson.value = arrived
      if (found == null) void weigh()
      else {
        asked++
        diagnosis.value = found
        balls.value = read ?? null
      }
    },
    waiting(waiting, unreachable) {
      const state = waiting === 0 ? 'saved' : unreachable ? 'unreachable' : 'saving'
      saving.value = { state, waiting }
    },
    refused(error) {
      refusal.value = error
      void load()
    },
  })
  onScopeDispose(() => {
    outbox.close()
  })

  /** Changes begun and settled; what was read before one of them is not the lesson as it is. */
  let changes = 0
  async function load(): Promise<void> {
    const path = { lesson_id: id }
    const before = changes
    try {
      const [arrived] = await Promise.all([
        ask(client.GET('/api/lessons/{lesson_id}', { params: { path } })),
        weigh(),
      ])
      if (changes === before) lesson.value = arrived
      failure.value = null
    } catch (error) {
      // a lesson once read stays on the screen; what is changed meanwhile waits in the outbox
      if (lesson.value === null) failure.value = error as ApiError
    }
  }

  useArrivals(id, lesson, () => outbox.empty, load)

  let asked = 0
  async function weigh(): Promise<void> {
    const mine = ++asked
    const params = { path: { lesson_id: id } }
    try {
      const [found, read] = await Promise.all([
        ask(client.GET('/api/lessons/{lesson_id}/diagnosis', { params })),
        ask(client.GET('/api/lessons/{lesson_id}/balls', { params })),
      ])
      if (mine !== asked) return
      diagnosis.value = found
      balls.value = read
    } catch (error) {
      if (mine === asked) refusal.value = error as ApiError
    }
  }

  function put(write: Write): void {
    refusal.value = null
    changes++
    outbox.put(write)
  }

  const shots = computed(() => lesson.value?.blocks.flatMap((b) => b.shots) ?? [])

  function putShot(shotId: string, blockId: string, observed: Shot, touched: Touched): void {
    const block = lesson.value?.blocks.find((b) => b.id === blockId)
    if (block === undefined) return
    const known = block.shots.find((s) => s.id === shotId)
    if (known) Object.assign(known, { observed, touched })
    else {
      const hit_at = new Date().toISOString()
      const shot = { id: shotId, block_id: blockId, observed, touched, hit_at }
      block.shots.push(shot as (typeof block.shots)[number])
    }
    const body = { block_id: blockId, observed: observed as Shape['Shot'], touched }
    put({ kind: 'shot', lesson: id, id: shotId, body })
  }

  function deleteShot(shotId: string): void {
    for (const block of lesson.value?.blocks ?? []) {
      block.shots = block.shots.filter((s) => s.id !== shotId)
    }
    put({ kind: 'shot-gone', lesson: id, id: shotId })
  }

  /** The first means of a check that is at hand. */
  function sourceOf(checkId: string): Source {
    const means = known.check(checkId)?.sources ?? []
    const atHand = lesson.value?.at_hand
    return means.find((s) => !atHand || atHand.includes(s)) ?? means[0] ?? 'look'
  }

  /**
   * Answer a look; an earlier answer from the same source, seen with the same block, is replaced.
   * `share`: how clearly the fact shows, where it was told finer than by the word.
   * `blockId`: the trial or retest it was seen with; null: before anything was changed.
   */
  function putAnswer(
    checkId: string,
    answer: AnswerWord,
    source: Source,
    blockId: string | null = null,
    share: number | null = null,
  ): void {
    const answers = lesson.value?.answers
    if (!answers) return
    const same = (a: Answer) =>
      a.check_id === checkId && a.source === source && a.block_id === blockId
    const known = answers.find(same)
    const answerId = known?.id ?? crypto.randomUUID()
    if (known) Object.assign(known, { answer, share })
    else {
      const answered_at = new Date().toISOString()
      answers.push({
        id: answerId,
        check_id: checkId,
        answer,
        source,
        share,
        block_id: blockId,
        answered_at,
      })
    }
    const body = { check_id: checkId, answer, source, share, block_id: blockId }
    put({ kind: 'answer', lesson: id, id: answerId, body })
    lastAnswer.value = { check: checkId }
  }

  /** A round asks this look now; null: it is over. */
  function askLook(look: Look | null): void {
    roundAsks.value = look
  }

  /** Answer the look that is asked, with the means it is asked for. */
  function answerAsked(answer: AnswerWord): void {
    const look = asking.value
    if (look) putAnswer(look.id, answer, sourceOf(look.id))
  }

  function deleteAnswer(answerId: string): void {
    if (!lesson.value) return
    lesson.value.answers = lesson.value.answers.filter((a) => a.id !== answerId)
    put({ kind: 'answer-gone', lesson: id, id: answerId })
  }

  function putBlock(blockId: string, body: Shape['BlockIn']): void {
    const blocks = lesson.value?.blocks ?? []
    const known = blocks.find((b) => b.id === blockId)
    if (known) Object.assign(known, body)
    else blocks.push(newBlock(blockId, blocks.length, body))
    put({ kind: 'block', lesson: id, id: blockId, body })
  }

  function putTrace(traceId: string, body: Shape['TraceIn']): void {
    put({ kind: 'trace', lesson: id, id: traceId, body })
  }
  function changeTrace(traceId: string, body: Shape['TraceChange']): void {
    put({ kind: 'trace-change', lesson: id, id: traceId, body })
  }
  function deleteTrace(traceId: string): void {
    put({ kind: 'trace-gone', lesson: id, id: traceId })
  }

  /** Whether repetitions are judged in the real swing, not in a rehearsal that may be larger. */
  const judgedReal = ref(false)
  function tapRepetition(drill: string, result: Shape['RepetitionIn']['result']): void {
    const real = judgedReal.value
    const repetition = { id: crypto.randomUUID(), drill, result, real }
    lesson.value?.repetitions.push({ ...repetition, done_at: new Date().toISOString() })
    put({ kind: 'repetition', lesson: id, id: repetition.id, body: { drill, result, real } })
  }
  function followUp(body: Shape['FollowUpIn']): void {
    put({ kind: 'follow-up', lesson: id, id, body })
  }

  function changeLesson(body: Shape['LessonChange']): void {
    if (lesson.value) Object.assign(lesson.value, body)
    put({ kind: 'lesson', lesson: id, id, body })
  }

  function changeStudent(body: Shape['StudentChange']): void {
    if (lesson.value) Object.assign(lesson.value.student, body)
    put({ kind: 'student', lesson: id, id, body })
  }

  function putNote(noteId: string, text: string): void {
    put({ kind: 'note', lesson: id, id: noteId, body: { text } })
  }
  function deleteNote(noteId: string): void {
    put({ kind: 'note-gone', lesson: id, id: noteId })
  }
  function decide(cause: string, reason: string): void {
    put({ kind: 'decision', lesson: id, id: crypto.randomUUID(), body: { cause, reason } })
  }
  function undo(): void {
    put({ kind: 'undo', lesson: id, id })
  }
  function redo(): void {
    put({ kind: 'redo', lesson: id, id })
  }

  const acts = { putShot, deleteShot, putAnswer, deleteAnswer, putBlock, changeLesson }
  const later = { tapRepetition, judgedReal, followUp, changeStudent }
  const onTheMat = { putTrace, changeTrace, deleteTrace }
  const looks = { lastAnswer, asking, askLook, answerAsked, sourceOf }
  const more = { putNote, deleteNote, decide, undo, redo, load }
  return {
    id,
    lesson,
    diagnosis,
    balls,
    failure,
    refusal,
    saving,
    shots,
    ...acts,
    ...later,
    ...onTheMat,
    ...looks,
    ...more,
  }
}

export interface Look {
  id: string
}
export type Touched = Record<string, number>
export type OpenLesson = ReturnType<typeof useLesson>
