// The lesson's clock: seconds are counted for the stage that is open while the page is seen.
import { onScopeDispose, shallowRef, watch, type Ref } from 'vue'
import { ask, client, type Lesson, type Shape } from '@/api/client'
import type { Stage } from '@/lesson/stages'

const EVERY_MS = 15_000
const LEAST_S = 0.1

export function useClock(lessonId: string, stage: Ref<Stage>, lesson: Ref<Lesson | null>) {
  const clock = shallowRef<Shape['ClockOut'] | null>(null)
  const params = { path: { lesson_id: lessonId } }
  let since = Date.now()

  /** Send what has gone by; time that cannot be sent is tried again with the next. */
  async function tell(of: Stage): Promise<void> {
    const now = Date.now()
    const seconds = Math.min((now - since) / 1000, 600)
    since = now
    const moved = of !== stage.value
    if (document.hidden || (seconds < 1 && !moved)) return
    try {
      clock.value = await ask(
        client.POST('/api/lessons/{lesson_id}/clock', {
          params,
          body: { stage: of, seconds: Math.max(seconds, LEAST_S), now_in: stage.value },
        }),
      )
    } catch {
      since -= seconds * 1000
    }
  }
  async function begin(): Promise<void> {
    try {
      clock.value = await ask(client.GET('/api/lessons/{lesson_id}/clock', { params }))
    } catch {
      // the lesson itself says that nobody answers
    }
  }
  // asked once the lesson is there, and again when the server has another length of it
  watch(
    () => lesson.value?.revision,
    () => {
      if (lesson.value?.listen.minutes !== clock.value?.minutes) void begin()
    },
    { immediate: true },
  )
  const timer = setInterval(() => void tell(stage.value), EVERY_MS)
  watch(stage, (_, last) => void tell(last))
  onScopeDispose(() => {
    clearInterval(timer)
  })
  return clock
}
