// One open lesson: what is in it, what it amounts to, and every way to change it.
// A change shows at once, goes out through the outbox, and the server's version settles it.
import { computed, onScopeDispose, ref, shallowRef } from 'vue'
import { ApiError, ask, client } from '@/api/client'
import type { Answer, AnswerWord, Diagnosis, Lesson, Shape, Shot, Source } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import { useOutbox } from '@/sync/outbox'
import { standing, type Write } from '@/sync/writes'
import { newId } from '@/sync/page'
import { keepToRead } from '@/api/readLately'
import { applyWrite, begunHere } from '@/sync/applyWrite'
import { before, changedFields } from '@/sync/changedFields'
import { useArrivals } from '@/sync/useArrivals'

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
  const asking = computed<Look | null>(() => {
    const looks = diagnosis.value?.ranking.next_checks ?? []
    const waits = (look: Look) => waitsHere.value.has(look.id)
    const untold = (look: Look) => couldNotTell.value.has(look.id)
    // what was just answered stays until its ranking is there, so that a second touch means it too
    const best = isAway()
      ? looks.find((look) => !waits(look))
      : (looks.find((look) => waits(look) || !untold(look)) ?? looks[0])
    return roundAsks.value ?? best ?? null
  })
  const isAway = () => saving.value.state === 'unreachable'
  /** Looks whose answers wait here: without a connection the next one is asked. */
  const waitsHere = computed(
    () =>
      new Set(
        standing(outbox.waiting(id)).flatMap((w) => (w.kind === 'answer' ? [w.body.check_id] : [])),
      ),
  )
  /** Looks that could not be told: the others come before them. */
  const couldNotTell = computed(
    () =>
      new Set(
        lesson.value?.answers.filter((a) => a.answer === 'unknown').map((a) => a.check_id) ?? [],
      ),
  )
  /** The check answered last, anew each time. */
  const lastAnswer = shallowRef<{ check: string } | null>(null)
  const saving = ref<Saving>({ state: 'saved', waiting: 0 })

  /** The lesson as the server last had it: what waits is worked into a copy of it. */
  let asArrived: Lesson | null = null
  const copyOf = (whole: Lesson) => JSON.parse(JSON.stringify(whole)) as Lesson

  const outbox = useOutbox()
  const detach = outbox.subscribe(id, {
    arrived(answer) {
      asArrived = answer
    },
    weighed(found) {
      asked++
      diagnosis.value = found
    },
    settled({ diagnosis: found, balls: read, ...arrived }) {
      changes++
      if (outbox.count(id) === 0) {
        lesson.value = arrived
        keepToRead(arrived, found ?? null, read ?? null)
      }
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
    refused(error, stands) {
      if (!stands) refusal.value = error
      void load()
    },
  })
  onScopeDispose(detach)

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
      if (changes === before) lesson.value = withWaiting(arrived)
      failure.value = null
    } catch (error) {
      // a lesson once read stays on the screen; what is changed meanwhile waits in the outbox
      if (lesson.value !== null) return
      const begun = begunHere(outbox.waiting(), id)
      if (begun) lesson.value = withWaiting(begun)
      else failure.value = error as ApiError
    }
  }

  /** As it is here: what has not arrived yet is in it too. */
  function withWaiting(arrived: Lesson): Lesson {
    asArrived = arrived
    const here = copyOf(arrived)
    for (const write of standing(outbox.waiting(id))) applyWrite(here, write)
    return here
  }

  useArrivals(id, lesson, () => outbox.count(id) === 0, load)

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
    if (lesson.value) {
      if (outbox.count(id) === 0) asArrived = copyOf(lesson.value)
      applyWrite(lesson.value, write)
    }
    outbox.put(write)
    const turnsBack = write.kind === 'undo' || write.kind === 'redo'
    if (turnsBack && asArrived) lesson.value = withWaiting(asArrived)
  }

  const shots = computed(() => lesson.value?.blocks.flatMap((b) => b.shots) ?? [])

  function putShot(shotId: string, blockId: string, observed: Shot, touched: Touched): void {
    const block = lesson.value?.blocks.find((b) => b.id === blockId)
    if (block === undefined) return
    const known = block.shots.find((s) => s.id === shotId)
    const was = known && { observed: known.observed, touched: known.touched }
    const body = { block_id: blockId, observed: observed as Shape['Shot'], touched, was }
    put({ kind: 'shot', lesson: id, id: shotId, body })
  }

  function deleteShot(shotId: string): void {
    put({ kind: 'shot-gone', lesson: id, id: shotId })
  }

  /** By what means a look is taken, where that was said; a film is at hand while one is open. */
  const chosenMeans = ref(new Map<string, Source>())
  const filmOpen = ref(false)
  /** Points of it are being touched: whatever else is on the screen folds away. */
  const filmTouched = ref(false)
  /** The means a check is answered by: the one chosen for it, else its first that is at hand. */
  function sourceOf(checkId: string): Source {
    const means = known.check(checkId)?.sources ?? []
    const atHand = lesson.value?.at_hand
    const isHere = (s: Source) => !atHand || atHand.includes(s) || (s === 'film' && filmOpen.value)
    return chosenMeans.value.get(checkId) ?? means.find(isHere) ?? means.at(-1) ?? 'look'
  }
  function takeBy(checkId: string, means: Source): void {
    chosenMeans.value.set(checkId, means)
  }

  /** It was seen by other means than was said: the answer stays one answer. */
  function correctMeans(answer: Answer, means: Source): void {
    const { check_id, block_id, share, source } = answer
    const there = lesson.value?.answers.find(
      (a) =>
        a.id !== answer.id &&
        a.check_id === check_id &&
        a.block_id === block_id &&
        a.source === means,
    )
    if (there) deleteAnswer(there.id)
    const was = { answer: answer.answer, source, share, block_id }
    const body = { check_id, answer: answer.answer, source: means, share, block_id, was }
    put({ kind: 'answer', lesson: id, id: answer.id, body })
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
    const was = known && { answer: known.answer, share: known.share }
    const body = { check_id: checkId, answer, source, share, block_id: blockId, was }
    put({ kind: 'answer', lesson: id, id: known?.id ?? newId(), body })
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
    put({ kind: 'answer-gone', lesson: id, id: answerId })
  }

  function putBlock(blockId: string, sent: Shape['BlockIn']): void {
    const was = before(
      lesson.value?.blocks.find((b) => b.id === blockId),
      sent,
    )
    put({ kind: 'block', lesson: id, id: blockId, body: { ...sent, was } })
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
    put({ kind: 'repetition', lesson: id, id: newId(), body: { drill, result, real } })
  }
  function followUp(sent: Shape['FollowUpIn']): void {
    const body = { ...sent, was: before(lesson.value?.follow_up, sent) }
    put({ kind: 'follow-up', lesson: id, id, body })
  }

  /** Only the fields that changed go out, each with what it was: a stale page erases nothing. */
  function changeLesson(body: Shape['LessonChange']): void {
    if (!lesson.value) return
    const sent = changedFields(lesson.value, body)
    if (sent !== null) put({ kind: 'lesson', lesson: id, id, body: sent })
  }

  function changeStudent(body: Shape['StudentChange']): void {
    if (!lesson.value) return
    const sent = changedFields(lesson.value.student, body)
    if (sent !== null) put({ kind: 'student', lesson: id, id, body: sent })
  }

  function putNote(noteId: string, text: string): void {
    const was = before(
      lesson.value?.notes.find((n) => n.id === noteId),
      { text },
    )
    put({ kind: 'note', lesson: id, id: noteId, body: { text, was } })
  }
  function deleteNote(noteId: string): void {
    put({ kind: 'note-gone', lesson: id, id: noteId })
  }
  function decide(cause: string, reason: string): void {
    const decision = newId()
    put({ kind: 'decision', lesson: id, id: decision, body: { cause, reason, id: decision } })
  }
  /** The write that waits, by its id; with nothing under way, the step that the button names. */
  function undo(): void {
    const write = outbox.lastStanding(id)
    const step = outbox.count(id) === 0 ? (lesson.value?.undo_step ?? null) : null
    put({ kind: 'undo', lesson: id, id, body: write === null ? { step } : { write } })
  }
  function redo(): void {
    const write = outbox.lastTakenBack(id)
    const step = outbox.count(id) === 0 ? (lesson.value?.redo_step ?? null) : null
    put({ kind: 'redo', lesson: id, id, body: write === null ? { step } : { write } })
  }

  const acts = { putShot, deleteShot, putAnswer, deleteAnswer, putBlock, changeLesson }
  const later = { tapRepetition, judgedReal, followUp, changeStudent }
  function putFilm(filmId: string, body: Shape['FilmIn']): void {
    put({ kind: 'film', lesson: id, id: filmId, body })
  }
  function deleteFilm(filmId: string): void {
    put({ kind: 'film-gone', lesson: id, id: filmId })
  }
  function putStill(stillId: string, body: Shape['StillIn']): void {
    put({ kind: 'still', lesson: id, id: stillId, body })
  }
  function changeStill(stillId: string, body: Shape['OnSheetIn']): void {
    put({ kind: 'still-change', lesson: id, id: stillId, body })
  }
  function deleteStill(stillId: string): void {
    put({ kind: 'still-gone', lesson: id, id: stillId })
  }
  const onFilm = { putFilm, deleteFilm, putStill, changeStill, deleteStill }
  const onTheMat = { putTrace, changeTrace, deleteTrace }
  const means = { sourceOf, takeBy, correctMeans, filmOpen, filmTouched }
  const looks = { lastAnswer, asking, askLook, answerAsked, ...means }
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
    ...onFilm,
    ...looks,
    ...more,
  }
}

export interface Look {
  id: string
}
export type Touched = Record<string, number>
export type OpenLesson = ReturnType<typeof useLesson>
