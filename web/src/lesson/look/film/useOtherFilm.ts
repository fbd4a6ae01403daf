// A second film beside the one under the ruler: one of this student's that was marked, from this
// lesson or another. It is opened from this device, where it is kept or where its file lies.
import { computed, onMounted, onScopeDispose, ref, shallowRef, watch, type Ref } from 'vue'
import { ask, client, type Shape } from '@/api/client'
import { sentenceOf, type OpenFilm } from '@/lesson/look/film/film'
import { keptFilms, openKept } from '@/lesson/look/film/keptFilms'
import type { Marks } from '@/lesson/look/film/marking'
import { openFilm } from '@/lesson/look/film/openFilm'
import { useLessonQuery } from '@/lesson/useLessonQuery'
import type { OpenLesson } from '@/lesson/useLesson'

export type StudentFilm = Shape['StudentFilm']

/** `mine`: id of the film under the ruler. */
export function useOtherFilm(open: OpenLesson, mine: Ref<string>) {
  const listed = useLessonQuery(
    open,
    'student-films',
    (_params, student_id) =>
      ask(client.GET('/api/students/{student_id}/films', { params: { path: { student_id } } })),
    () => open.lesson.value?.student.id ?? null,
  )
  const all = computed(() => listed.found.value ?? [])
  const others = computed(() => all.value.filter((f) => f.id !== mine.value))
  const kept = ref(new Set<string>())
  const chosenId = ref<string | null>(null)
  const chosen = computed(() => others.value.find((f) => f.id === chosenId.value) ?? null)
  const film = shallowRef<OpenFilm | null>(null)
  const opening = ref(false)
  const problem = ref('')

  onMounted(async () => {
    kept.value = new Set((await keptFilms()).map((f) => f.id))
  })
  function close(): void {
    if (film.value) URL.revokeObjectURL(film.value.url)
    film.value = null
  }
  onScopeDispose(close)
  watch(chosen, (now, before) => {
    if (now?.id !== before?.id) close()
  })

  async function choose(id: string): Promise<void> {
    close()
    problem.value = ''
    chosenId.value = id
    const file = await openKept(id)
    if (file) await take(file)
  }
  async function take(file: File): Promise<void> {
    if (chosen.value === null) return
    problem.value = ''
    opening.value = true
    try {
      const opened = await openFilm(file)
      const { width, height } = chosen.value.marks
      if (opened.width !== width || opened.height !== height) {
        URL.revokeObjectURL(opened.url)
        problem.value = `The pictures of this file are ${size(opened)}, those that were marked ${size(chosen.value.marks)}: it is another film.`
        return
      }
      close()
      film.value = opened
    } catch (error) {
      problem.value = sentenceOf(error, 'This film cannot be opened.')
    } finally {
      opening.value = false
    }
  }
  const marks = computed(() => chosen.value?.marks as Marks | undefined)
  return { all, others, kept, chosen, film, marks, opening, problem, choose, take, close }
}

const size = ({ width, height }: { width: number; height: number }) =>
  `${String(width)} by ${String(height)}`
