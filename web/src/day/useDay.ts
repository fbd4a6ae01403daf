// Everyone, the newest lessons, and how a lesson is begun or opened from a file.
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, ref, type Ref } from 'vue'
import { ApiError, ask, client, type Lesson, type Shape, type Student } from '@/api/client'
import { jsonObject } from '@/api/jsonFile'
import { useAttempt } from '@/api/useAttempt'
import { useOutbox, type Write } from '@/sync/outbox'
import { newId } from '@/sync/page'
import { newLesson, newStudent } from '@/sync/applyWrite'
import { useSettings } from '@/ui/settings'

/** `wanted`: the beginning of a name that is looked for. */
export function useDay(wanted: Ref<string | null> = ref('')) {
  const settings = useSettings()
  const outbox = useOutbox()
  const { busy, problem, attempt } = useAttempt()
  // both before anything is drawn: what comes later would push the list away under a finger
  const { data, error, refetch } = useQuery({
    queryKey: ['day'],
    queryFn: async () => {
      const [everyone, due] = await Promise.all([
        ask(client.GET('/api/day')),
        ask(client.GET('/api/due')).catch(() => []),
      ])
      return { ...everyone, due }
    },
  })
  const day = computed(() => (data.value ? withBegunHere(data.value, outbox.waiting()) : null))
  const load = () => refetch()
  const name = computed(() => (wanted.value ?? '').trim())
  /** Only those seen lately are listed; the others are asked for by name. */
  const isMore = computed(() => day.value !== null && day.value.of > day.value.students.length)
  const { data: named } = useQuery({
    queryKey: ['students', name],
    queryFn: () => ask(client.GET('/api/students', { params: { query: { find: name.value } } })),
    enabled: () => isMore.value && name.value !== '',
    placeholderData: keepPreviousData,
  })

  /** Without a connection it begins here, and the server hears of it later. */
  function begin(student: Student): Promise<Lesson | null> {
    const body = { ...beginning(settings.school), id: newId(), block_id: newId() }
    const params = { path: { student_id: student.id } }
    return attempt(async () => {
      try {
        return await ask(client.POST('/api/students/{student_id}/lessons', { params, body }))
      } catch (error) {
        if (!(error instanceof ApiError) || error.status !== 0) throw error
        outbox.put({ kind: 'new-lesson', lesson: body.id, id: student.id, student, body })
        return newLesson(body.id, body, student)
      }
    })
  }

  /** The lesson that was agreed: it takes up the one in which it was. */
  function takeUp(lessonId: string): Promise<Lesson | null> {
    const params = { path: { lesson_id: lessonId } }
    const zone = Intl.DateTimeFormat().resolvedOptions().timeZone
    return attempt(() =>
      ask(client.POST('/api/lessons/{lesson_id}/reopen', { params, body: { id: newId(), zone } })),
    )
  }

  function openFile(file: File): Promise<Lesson | null> {
    return attempt(async () => {
      const body = parse(await file.text())
      const name = file.name.replace(/(\.case)?\.json$/i, '').slice(0, 80) || 'From a case file'
      return ask(client.POST('/api/cases', { params: { query: { name } }, body }))
    })
  }

  return { day, named, isMore, failure: error, problem, busy, load, begin, takeUp, openFile }
}

/** Students and lessons of this device that the server has not heard of yet are there too. */
function withBegunHere<T extends Shape['TodayOut']>(day: T, waiting: readonly Write[]): T {
  const students = waiting.flatMap((w) =>
    w.kind === 'new-student' ? [newStudent(w.id, w.body)] : [],
  )
  const lessons = waiting.flatMap((w) => (w.kind === 'new-lesson' ? [brief(w, waiting)] : []))
  const there = new Set([...day.students, ...day.lessons].map((row) => row.id))
  const isNew = ({ id }: { id: string }) => !there.has(id)
  return {
    ...day,
    students: [...day.students, ...students.filter(isNew)],
    lessons: [...lessons.filter(isNew), ...day.lessons],
  }
}

function brief(begun: Write & { kind: 'new-lesson' }, waiting: readonly Write[]) {
  const count = (kind: Write['kind']) =>
    waiting.filter((w) => w.lesson === begun.lesson && w.kind === kind).length
  return {
    id: begun.lesson,
    student_id: begun.student.id,
    student_name: begun.student.name,
    handedness: begun.student.handedness,
    started_at: new Date().toISOString(),
    complaint: '',
    given_by: '',
    finished: false,
    stage: null,
    balls: count('shot'),
    answers: count('answer'),
    decided: null,
    next: { stage: 'shots' as const, words: 'Waits for a connection', done: false },
  }
}

/** What a new lesson brings along: the school, and where on earth its days are counted. */
function beginning(school: Shape['School']): Shape['NewLesson'] {
  const zone = Intl.DateTimeFormat().resolvedOptions().timeZone
  return { complaint: '', zone, school }
}

/** JSON at least; whether it is a case, and where not, the server says. */
function parse(text: string): Shape['CaseFile'] {
  return jsonObject(
    text,
    'firm-footing-case',
    'This file is not a case file.',
    'Nothing was changed. Choose a file that ends in .case.json.',
  )
}
