// Name, place, school and words follow an instructor to all their devices: the server keeps them.
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { onScopeDispose, watch } from 'vue'
import { ask, client } from '@/api/client'
import { useSettings } from '@/ui/settings'

export const INSTRUCTORS = ['instructors']
/** Set while this browser knows something newer than the server does. */
const UNSENT = 'firm-footing-profile-unsent'
/** Nobody types their name in one stroke. */
const SETTLES_MS = 600

/** Everybody who gives lessons here, and whose device this is. */
export function useInstructors() {
  return useQuery({ queryKey: INSTRUCTORS, queryFn: () => ask(client.GET('/api/instructors')) })
}

/** Once for the whole page: what is changed here goes to the server, what changed there comes. */
export function useProfile(): void {
  const settings = useSettings()
  const queries = useQueryClient()
  const { data } = useInstructors()
  const here = () => {
    const { by: name, place, school, sides } = settings
    return { name, place, school, sides }
  }
  type Mine = ReturnType<typeof here>
  const asText = ({ name, place, school, sides }: Mine) =>
    JSON.stringify([name.trim(), place.trim(), school, sides])
  /** Whether both are kept alike: without the space that one is about to type behind. */
  const same = (one: Mine, other: Mine) => asText(one) === asText(other)

  async function send(): Promise<void> {
    const body = here()
    try {
      const mine = await ask(client.PUT('/api/instructors/mine', { body }))
      if (!same(body, here())) return // more was typed meanwhile, and is on its way
      localStorage.removeItem(UNSENT)
      const others = (data.value?.all ?? []).filter((i) => i.id !== mine.id)
      queries.setQueryData(INSTRUCTORS, { mine, all: [mine, ...others] })
    } catch {
      localStorage.setItem(UNSENT, 'yes') // the next connection, or the next start, takes it there
    }
  }

  let waits: ReturnType<typeof setTimeout> | undefined
  watch(here, (now) => {
    const mine = data.value?.mine
    if (mine && same(mine, now)) return
    localStorage.setItem(UNSENT, 'yes')
    clearTimeout(waits)
    waits = setTimeout(() => void send(), SETTLES_MS)
  })
  watch(data, (found) => {
    if (!found) return
    if (localStorage.getItem(UNSENT) !== null) void send()
    else if (found.mine) {
      const { name, place, school, sides } = found.mine
      if (!same(found.mine, here())) Object.assign(settings, { by: name, place, school, sides })
    } else if (settings.by.trim() !== '') void send()
  })
  const again = () => {
    if (localStorage.getItem(UNSENT) !== null) void send()
  }
  addEventListener('online', again)
  onScopeDispose(() => {
    clearTimeout(waits)
    removeEventListener('online', again)
  })
}
