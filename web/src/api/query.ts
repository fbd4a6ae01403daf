// What the server knows is asked and kept by TanStack Query; writes of a lesson go by the outbox.
import { QueryClient } from '@tanstack/vue-query'
import type { ApiError } from '@/api/client'

declare module '@tanstack/vue-query' {
  interface Register {
    defaultError: ApiError
  }
}

/** The server is on this machine or on the range's Wi-Fi: whether the internet is there says nothing. */
export function newQueries(): QueryClient {
  return new QueryClient({
    defaultOptions: {
      queries: { networkMode: 'always', retry: false, refetchOnWindowFocus: false },
      mutations: { networkMode: 'always' },
    },
  })
}
