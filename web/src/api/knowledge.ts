// The trade's knowledge, fetched once and shared by every page, with its look-ups.
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { ApiError, ask, client, type Knowledge } from '@/api/client'

type Id = string | null | undefined
type Entry<K extends 'causes' | 'mechanisms' | 'checks' | 'drills' | 'clubs' | 'signs'> =
  Knowledge[K][number]

export const useKnowledge = defineStore('knowledge', () => {
  const knowledge = shallowRef<Knowledge | null>(null)
  const error = ref<ApiError | null>(null)
  /** What is drawn only once the knowledge has arrived asks for it here. */
  const all = computed<Knowledge>(() => {
    if (knowledge.value === null) throw new Error('The knowledge has not arrived yet.')
    return knowledge.value
  })
  function byId<T extends { id: string }>(entries: (k: Knowledge) => readonly T[]) {
    const found = computed(() => {
      const listed = knowledge.value ? entries(knowledge.value) : undefined
      return new Map(listed?.map((entry) => [entry.id, entry]))
    })
    return (id: Id): T | undefined => (id ? found.value.get(id) : undefined)
  }
  const cause = byId<Entry<'causes'>>((k) => k.causes)
  const mechanism = byId<Entry<'mechanisms'>>((k) => k.mechanisms)
  const check = byId<Entry<'checks'>>((k) => k.checks)
  const drill = byId<Entry<'drills'>>((k) => k.drills)
  const club = byId<Entry<'clubs'>>((k) => k.clubs)
  const sign = byId<Entry<'signs'>>((k) => k.signs)

  /** One link of a chain: a cause, a mechanism or an effect on club and ball. */
  function link(id: string): string {
    const named = cause(id)?.label ?? mechanism(id)?.label ?? knowledge.value?.ends[id]
    return named ?? id.replace(/_/g, ' ')
  }

  /** How sure of a cause, as it is said. */
  const causeWord = (word: string): string => knowledge.value?.cause_words[word] ?? word

  async function load(): Promise<void> {
    if (knowledge.value !== null) return
    try {
      knowledge.value = await ask(client.GET('/api/knowledge'))
      error.value = null
    } catch (problem) {
      error.value = problem as ApiError
    }
  }
  return {
    knowledge,
    all,
    error,
    cause,
    check,
    drill,
    club,
    sign,
    mechanism,
    link,
    causeWord,
    load,
  }
})
