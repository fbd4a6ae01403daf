// What follows from the lesson for the work after the decision, asked again after every change.
import { computed, watch, type Ref } from 'vue'
import { ask, client, type Diagnosis, type Shape } from '@/api/client'
import { useAsked } from '@/api/useAsked'
import type { SideWords } from '@/ui/settings'

type Params = { params: { path: { lesson_id: string } } }

function asked<T>(diagnosis: Ref<Diagnosis | null>, question: () => Promise<T>) {
  const found = useAsked<T>()
  watch(
    diagnosis,
    (now) => {
      if (now !== null) void found.put(question())
    },
    { immediate: true },
  )
  return found
}
const of = (lessonId: string): Params => ({ params: { path: { lesson_id: lessonId } } })

export function useCoaching(lessonId: string, diagnosis: () => Diagnosis | null) {
  return asked<Shape['CoachingOut']>(computed(diagnosis), () =>
    ask(client.GET('/api/lessons/{lesson_id}/coaching', of(lessonId))),
  )
}
export function useRetest(lessonId: string, diagnosis: () => Diagnosis | null) {
  return asked<Shape['RetestOut'] | null>(computed(diagnosis), () =>
    ask(client.GET('/api/lessons/{lesson_id}/retest', of(lessonId))),
  )
}
export function useSheet(
  lessonId: string,
  diagnosis: () => Diagnosis | null,
  sides: () => SideWords,
) {
  return asked<Shape['SheetOut']>(computed(diagnosis), () => {
    const params = { ...of(lessonId).params, query: { sides: sides() } }
    return ask(client.GET('/api/lessons/{lesson_id}/sheet', { params }))
  })
}
