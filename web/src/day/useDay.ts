// Everyone, the newest lessons, and how a lesson is begun or opened from a file.
import { useQuery } from '@tanstack/vue-query'
import { computed, ref, shallowRef } from 'vue'
import { ApiError, ask, client, type Lesson, type Shape, type Student } from '@/api/client'
import { useSettings } from '@/ui/settings'

export function useDay() {
  const settings = useSettings()
  const problem = shallowRef<ApiError | null>(null)
  const busy = ref(false)
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
  const day = computed(() => data.value ?? null)
  const load = () => refetch()

  async function guarded<T>(work: () => Promise<T>): Promise<T | null> {
    busy.value = true
    problem.value = null
    try {
      return await work()
    } catch (error) {
      problem.value = error as ApiError
      return null
    } finally {
      busy.value = false
    }
  }

  function begin(student: Student): Promise<Lesson | null> {
    const path = { student_id: student.id }
    return guarded(() =>
      ask(
        client.POST('/api/students/{student_id}/lessons', {
          params: { path },
          body: { school: settings.school } as Shape['NewLesson'],
        }),
      ),
    )
  }

  function openFile(file: File): Promise<Lesson | null> {
    return guarded(async () => {
      const body = parse(await file.text())
      const name = file.name.replace(/(\.case)?\.json$/i, '').slice(0, 80) || 'From a case file'
      return ask(client.POST('/api/cases', { params: { query: { name } }, body }))
    })
  }

  return { day, failure: error, problem, busy, load, begin, openFile }
}

/** JSON at least; whether it is a case, and where not, the server says. */
function parse(text: string): Shape['CaseFile'] {
  try {
    const raw: unknown = JSON.parse(text)
    if (typeof raw === 'object' && raw !== null && !Array.isArray(raw)) {
      return raw as Shape['CaseFile']
    }
  } catch {
    // said below
  }
  const shape = {
    code: 'bad_case',
    message: 'This file is not a case file.',
    hint: 'Nothing was changed. Choose a file that ends in .case.json.',
    where: 'file',
  }
  throw new ApiError(shape, 422)
}
