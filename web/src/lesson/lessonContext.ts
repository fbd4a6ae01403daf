// The lesson that is open, for everything drawn below its page.
import { computed, inject, provide, type ComputedRef, type InjectionKey, type Ref } from 'vue'
import type { Diagnosis, Handedness, Lesson } from '@/api/client'
import type { OpenLesson } from '@/lesson/useLesson'
import { useSpeaker } from '@/ui/useSpeaker'
import type { Speaker } from '@/ui/words'

export interface LessonInHand {
  /** Every way to change the lesson. */
  open: OpenLesson
  /** The lesson itself: what asks for it is drawn only once it has arrived. */
  lesson: ComputedRef<Lesson>
  diagnosis: Ref<Diagnosis | null>
  hand: ComputedRef<Handedness>
  speaker: ComputedRef<Speaker>
  /** A text with feet and sides as this student has them. */
  words: (text: string) => string
}

export const IN_HAND: InjectionKey<LessonInHand> = Symbol('the lesson in hand')

export function provideLessonContext(open: OpenLesson): void {
  const lesson = computed(() => {
    if (open.lesson.value === null) throw new Error('The lesson has not arrived yet.')
    return open.lesson.value
  })
  const hand = computed(() => lesson.value.student.handedness)
  const { diagnosis } = open
  provide(IN_HAND, { open, lesson, diagnosis, hand, ...useSpeaker(() => hand.value) })
}

/** Only below a page that provides a lesson. */
export function useLessonContext(): LessonInHand {
  const inHand = inject(IN_HAND)
  if (inHand === undefined) throw new Error('There is no open lesson above this component.')
  return inHand
}
