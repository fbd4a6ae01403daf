// What follows from the lesson for the work after the decision.
import { ask, client, type Lesson } from '@/api/client'
import { useLessonQuery } from '@/lesson/useLessonQuery'
import type { OpenLesson } from '@/lesson/useLesson'
import { useSettings } from '@/ui/settings'

export function useCoaching(open: OpenLesson) {
  return useLessonQuery(open, 'coaching', (params) =>
    ask(client.GET('/api/lessons/{lesson_id}/coaching', { params })),
  )
}
export function useRetest(open: OpenLesson) {
  return useLessonQuery(open, 'retest', (params) =>
    ask(client.GET('/api/lessons/{lesson_id}/retest', { params })),
  )
}
/** Whether the server knows of a decision: one that was only made here has no knowledge yet. */
export const isDecided = ({ decisions }: Lesson) =>
  decisions.some((d) => d.knowledge_version !== '')

export function useSheet(open: OpenLesson) {
  const settings = useSettings()
  return useLessonQuery(
    open,
    'sheet',
    ({ path }, sides) => {
      const params = { path, query: { sides } }
      return ask(client.GET('/api/lessons/{lesson_id}/sheet', { params }))
    },
    // there is no sheet before a decision
    () => (open.lesson.value && isDecided(open.lesson.value) ? settings.sides : null),
  )
}
