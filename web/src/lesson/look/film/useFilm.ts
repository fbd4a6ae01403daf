// One film under the ruler: which picture is shown, what is marked, and what is asked for next.
import { computed, onScopeDispose, ref, shallowRef, watch, type Ref } from 'vue'
import { ask, client } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import { useLast } from '@/lesson/useLast'
import { newId } from '@/sync/page'
import { sentenceOf, type OpenFilm } from '@/lesson/look/film/film'
import { expectedAt } from '@/lesson/look/film/expected'
import {
  nextPoint,
  touched,
  turnedRound,
  wantedBy,
  withEvent,
  type Marks,
  type Place,
  type SwingEvent,
  type Wanted,
} from '@/lesson/look/film/marking'
import { openFilm } from '@/lesson/look/film/openFilm'
import { holdUnsaved, letGo, unsavedFilm } from '@/lesson/look/film/unsavedFilm'
import { useFollowing } from '@/lesson/look/film/useFollowing'
import { useFinder } from '@/lesson/look/film/useFinder'
import { usePlaying } from '@/lesson/look/film/usePlaying'
import { useScale } from '@/lesson/look/film/useScale'
import { useLessonQuery } from '@/lesson/useLessonQuery'
import type { OpenLesson } from '@/lesson/useLesson'

type View = Marks['view']

export function useFilm(open: OpenLesson, blockId: Ref<string | null>) {
  const last = useLast(open)
  const known = useKnowledge()
  const film = shallowRef<OpenFilm | null>(null)
  const marks = shallowRef<Marks | null>(null)
  const id = ref(newId())
  const frame = ref(0)
  const problem = ref('')
  /** Of films brought at once, the one that waits, and what to do with it. */
  const waits = ref('')
  /** The film was recorded here and is in no file yet. */
  const onlyHere = ref(false)
  /** A measure that is asked for; null: whatever tells most. */
  const chosen = ref<string | null>(null)

  const films = useLessonQuery(open, 'films', (params) =>
    ask(client.GET('/api/lessons/{lesson_id}/films', { params })),
  )
  const others = computed(() =>
    (films.found.value ?? [])
      .filter((f) => f.id !== id.value)
      .map((f) => ({ name: f.name, marks: f.marks as Marks })),
  )
  const scale = useScale(marks, others)
  const { ends } = scale
  const read = computed(() => films.found.value?.find((f) => f.id === id.value) ?? null)
  // what was undone, or marked on another device, is as the server has it
  watch(read, (now) => {
    if (now && film.value && open.saving.value.state === 'saved') marks.value = now.marks as Marks
  })
  const measures = computed(() =>
    known.all.film.measures.filter((m) => m.view === marks.value?.view),
  )
  /** Measures whose pictures are all marked, and that tell something; what tells most is first. */
  const telling = computed(() => {
    const events = marks.value?.events ?? {}
    const ready = measures.value.filter((m) => wantedBy(m).every((w) => w.event in events))
    const order = read.value?.wanted
    if (!order) return ready
    return order.flatMap((w) => (w.tells ? (ready.find((m) => m.id === w.measure) ?? []) : []))
  })
  const wanted = computed(() => {
    if (!marks.value || ends.value) return null
    const asked = chosen.value ? measures.value.filter((m) => m.id === chosen.value) : telling.value
    for (const measure of asked) {
      const next = nextPoint(marks.value, [measure])
      if (next) return next
    }
    return null
  })
  // what tells most may be another point once the answers are there: who waits there goes along
  watch(wanted, (now, before) => {
    if (now && before && frame.value === marks.value?.events?.[before.event]) follow()
  })
  /** Where that probably is in the picture, so that it can be shown near. */
  const expected = computed(() =>
    marks.value && wanted.value && isThere.value
      ? expectedAt(marks.value, wanted.value, known.all.film)
      : null,
  )
  /** Whether the picture shown is the one that the next point is touched on. */
  const isThere = computed(
    () => wanted.value !== null && marks.value?.events?.[wanted.value.event] === frame.value,
  )
  const nextAsk = computed(() => (marks.value?.scale ? askOf(wanted.value) : null))
  /** The next point, where it is on another picture: touched here, it would be measured wrongly. */
  const elsewhere = computed(() => (ends.value || isThere.value ? null : nextAsk.value))
  const asking = computed(() => {
    if (ends.value) return scale.asking.value
    return isThere.value ? nextAsk.value : null
  })
  function askOf(next: Wanted | null): string | null {
    return known.all.film.points.find((p) => p.id === next?.point)?.ask ?? null
  }

  const following = useFollowing(
    film,
    marks,
    () => open.lesson.value?.student.handedness ?? 'right',
  )
  function keep(changed: Marks): void {
    const next = following.withMoves(changed)
    const was = read.value ? { marks: marks.value } : null
    marks.value = next
    const name = film.value?.name ?? ''
    open.putFilm(id.value, { marks: next, block_id: blockId.value, name, was })
  }
  const finder = useFinder(film, marks, problem, keep)
  /** The marks as they are, so that a film which is kept on this device is listed. */
  function list(): void {
    if (marks.value && read.value === null) keep(marks.value)
  }
  /** It was saved or is kept. */
  function isSafe(): void {
    onlyHere.value = false
    letGo(open.id)
  }
  /** As the server has them now: a film opens sooner than the list of them follows a change. */
  async function markedAlready() {
    try {
      const params = { path: { lesson_id: open.id } }
      return await ask(client.GET('/api/lessons/{lesson_id}/films', { params }))
    } catch {
      return films.found.value ?? []
    }
  }
  /** `recorded`: here, so that it is nowhere else; `own`: under which it was open before. */
  async function take(
    file: File,
    view: View,
    recorded = false,
    own: string | null = null,
  ): Promise<void> {
    problem.value = ''
    waits.value = ''
    try {
      const [opened, listed] = await Promise.all([openFilm(file), markedAlready()])
      close()
      film.value = opened
      onlyHere.value = recorded
      frame.value = 0
      ends.value = null
      chosen.value = null
      finder.forget()
      const { name, width, height, plays } = opened
      // the same file goes on with its marks, and with the side it was marked from
      const again = listed.find(
        (f) => f.name === name && f.marks.width === width && f.marks.height === height,
      )
      id.value = own ?? again?.id ?? newId()
      if (recorded) holdUnsaved(open.id, { file, view, id: id.value })
      const stood = last.value?.cameras.find((c) => c.view === view)
      const camera = {
        distance_cm: stood?.distance_cm ?? null,
        off_line_cm: stood?.off_line_cm ?? null,
      }
      const bare = {
        view,
        width,
        height,
        fps: plays,
        events: {},
        held: null,
        other_hand: false,
        ...camera,
      }
      marks.value = again ? (again.marks as Marks) : bare
    } catch (error) {
      problem.value = sentenceOf(error, 'This film cannot be opened.')
    }
  }
  /** Films are marked one at a time; of two that are brought at once the other is named. */
  async function takeFirst(files: readonly File[], view: View): Promise<void> {
    const [first, other] = files
    if (!first) return
    await take(first, view)
    if (!other) return
    if (problem.value)
      problem.value = `“${first.name}”: ${problem.value} Open “${other.name}” by itself.`
    else
      waits.value = `“${first.name}” is open. Mark it, put it away, then open “${other.name}”: marked, both run side by side under “With film and pressure”.`
  }
  function close(): void {
    waits.value = ''
    if (film.value) URL.revokeObjectURL(film.value.url)
    playing.stop()
    film.value = null
    finder.forget()
  }
  /** Closed on purpose, unsaved or not. */
  function putAway(): void {
    isSafe()
    close()
  }
  onScopeDispose(close)

  const left = unsavedFilm(open.id)
  if (left) void take(left.file, left.view, true, left.id)

  const playing = usePlaying(film, () => marks.value?.fps ?? 1, frame)
  /** This picture, standing. */
  function show(at: number): void {
    playing.stop()
    frame.value = at
  }
  function mark(event: SwingEvent, at = frame.value): void {
    if (marks.value) keep(withEvent(marks.value, event, at))
  }
  function goTo(event: SwingEvent): void {
    const at = marks.value?.events?.[event]
    if (at !== undefined) show(at)
  }
  /** What the student believes a measure to be; null: they are asked again. */
  function feel(measure: string, value: number | null): void {
    if (!marks.value) return
    const others = Object.entries(marks.value.felt ?? {}).filter(([name]) => name !== measure)
    const felt = Object.fromEntries(value === null ? others : [...others, [measure, value]])
    keep({ ...marks.value, felt })
  }
  /** `zoom`: pixels of the page for one of the film, as it was touched. */
  function touch(place: Place, zoom: number): void {
    if (!marks.value) return
    if (scale.ends.value) {
      const next = scale.touchEnd(place, zoom)
      if (next) keep(next)
      follow()
    } else if (wanted.value && isThere.value) {
      keep(touched(marks.value, wanted.value, place, zoom))
      if (wanted.value === null) chosen.value = null
      follow()
    }
  }
  function takeFromAlike(): void {
    const next = scale.asInAlike()
    if (next) keep(next)
    follow()
  }
  /** A point that was touched, elsewhere. */
  function move(at: Wanted, place: Place, zoom: number): void {
    if (marks.value) keep(touched(marks.value, at, place, zoom))
  }
  /** The picture shows the other hand: a mirrored film. */
  function turnRound(): void {
    if (marks.value) keep(turnedRound(marks.value))
  }
  function remove(filmId: string): void {
    open.deleteFilm(filmId)
  }
  /** To the picture of the next point. */
  function follow(): void {
    if (wanted.value && !ends.value) goTo(wanted.value.event)
  }
  /** One measure's points, wherever they are. */
  function askFor(measure: string): void {
    chosen.value = measure
    follow()
  }
  /** Where the camera stood, cm; null: as usual. */
  function camera(what: 'distance_cm' | 'off_line_cm', cm: number | null): void {
    if (marks.value) keep({ ...marks.value, [what]: cm })
  }
  /** How the camera was held, and with it where it looked. */
  function wasHeld(held: boolean): void {
    if (marks.value) keep({ ...marks.value, held })
  }
  function filmedAt(fps: number): void {
    if (marks.value) keep({ ...marks.value, fps })
  }

  return {
    id,
    film,
    marks,
    frame,
    problem,
    waits,
    finding: finder.finding,
    sure: finder.sure,
    find: finder.find,
    onlyHere,
    isSafe,
    list,
    ends,
    scaleBy: scale.scaleBy,
    scaleCm: scale.scaleCm,
    scaleIsGround: scale.scaleIsGround,
    read,
    films,
    measures,
    wanted,
    expected,
    asking,
    elsewhere,
    follow,
    take,
    takeFirst,
    putAway,
    playing: playing.playing,
    speed: playing.speed,
    rate: playing.rate,
    step: playing.step,
    show,
    feel,
    mark,
    goTo,
    touch,
    move,
    turnRound,
    alike: scale.alike,
    takeFromAlike,
    remove,
    askFor,
    filmedAt,
    wasHeld,
    following,
    camera,
  }
}
