// How the network stands, and whether this page is on the machine itself.
import { useQuery } from '@tanstack/vue-query'
import { ask, client } from '@/api/client'

export function usePairing() {
  return useQuery({ queryKey: ['pairing'], queryFn: () => ask(client.GET('/api/pairing')) })
}
