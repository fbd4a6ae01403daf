// The server says by itself when a lesson is changed, on one stream for each page that is seen.
import { onScopeDispose, ref, type Ref } from 'vue'

export interface Revisions {
  /** What it said last. */
  heard: Ref<number | null>
  /** Whether it can be relied on to say so; else one has to ask. */
  isTold: Ref<boolean>
  /** Listens again, where it was refused before. */
  listen: () => void
}

export function useRevisions(id: string): Revisions {
  const heard = ref<number | null>(null)
  const isTold = ref(false)
  let source: EventSource | null = null

  function listen(): void {
    // a browser opens six lines to one server: a page that is not seen needs none
    if (source || document.hidden || typeof EventSource === 'undefined') return
    const opened = new EventSource(`/api/lessons/${id}/revisions`)
    source = opened
    opened.onmessage = (event: MessageEvent<string>) => {
      isTold.value = true
      heard.value = (JSON.parse(event.data) as { revision: number }).revision
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

  listen()
  document.addEventListener('visibilitychange', again)
  addEventListener('online', again)
  onScopeDispose(() => {
    stop()
    document.removeEventListener('visibilitychange', again)
    removeEventListener('online', again)
  })
  return { heard, isTold, listen }
}
