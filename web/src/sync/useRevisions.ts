// The server says by itself when a lesson is changed, on one stream for each page that is seen.
import { onScopeDispose, ref, type Ref } from 'vue'

/**
 * A browser opens six lines to one server, and some keep the stream of a page that was left until
 * the server ends it, after twelve seconds: pages left sooner than this open none, so that lines
 * remain. Until then one asks.
 */
const LISTEN_AFTER_MS = 3000

export interface Revision {
  revision: number
  /** Another one once lessons that are over were studied: the ranking may be another. */
  taught: number
}

export interface Revisions {
  /** What it said last. */
  heard: Ref<Revision | null>
  /** Whether it can be relied on to say so; else one has to ask. */
  isTold: Ref<boolean>
  /** Listens, where it does not yet and the page has been open for a while. */
  listen: () => void
}

export function useRevisions(id: string): Revisions {
  const heard = ref<Revision | null>(null)
  const isTold = ref(false)
  const from = Date.now() + LISTEN_AFTER_MS
  let source: EventSource | null = null

  function listen(): void {
    // a page that is not seen needs none
    if (source || Date.now() < from || document.hidden || typeof EventSource === 'undefined') return
    const opened = new EventSource(`/api/lessons/${id}/revisions`)
    source = opened
    opened.onmessage = (event: MessageEvent<string>) => {
      isTold.value = true
      heard.value = JSON.parse(event.data) as Revision
    }
    opened.onerror = () => {
      isTold.value = false // the browser tries again, unless it was refused
      if (opened.readyState === EventSource.CLOSED) stop()
    }
  }

  function stop(): void {
    source?.close()
    source = null
    isTold.value = false
  }

  function again(): void {
    stop()
    listen()
  }

  document.addEventListener('visibilitychange', again)
  addEventListener('online', again)
  onScopeDispose(() => {
    stop()
    document.removeEventListener('visibilitychange', again)
    removeEventListener('online', again)
  })
  return { heard, isTold, listen }
}
