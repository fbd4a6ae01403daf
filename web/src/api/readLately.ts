// What can be read without a connection: the service worker keeps what was asked for, and what a change
// brought with its answer is put beside it here, so that the lesson is never older than its last ball.
import type { Diagnosis, Lesson, Shape } from '@/api/client'

/** The same name as in `vite.config.ts`. */
const CACHE = 'read-lately'

export function keepToRead(
  lesson: Lesson,
  diagnosis: Diagnosis | null,
  balls: Shape['ReadBlock'][] | null,
): void {
  if (!('caches' in globalThis)) return
  const here = `/api/lessons/${lesson.id}`
  const parts: [string, unknown][] = [[here, lesson]]
  if (diagnosis) parts.push([`${here}/diagnosis`, diagnosis])
  if (balls) parts.push([`${here}/balls`, balls])
  // once the page has drawn it; where nothing can be kept, what is on the screen stays there
  setTimeout(() => {
    void caches
      .open(CACHE)
      .then((cache) => Promise.all(parts.map(([url, body]) => cache.put(url, Response.json(body)))))
      .catch(() => undefined)
  }, 200)
}

/** Nothing is kept of the deleted. */
export async function forgetReadLately(): Promise<void> {
  if ('caches' in globalThis) await caches.delete(CACHE)
}
