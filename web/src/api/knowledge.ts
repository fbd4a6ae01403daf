// The trade's knowledge, fetched once and shared by every page.
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { ApiError, ask, client, type Knowledge } from '@/api/client'

export const useKnowledge = defineStore('knowledge', () => {
  const knowledge = shallowRef<Knowledge | null>(null)
  const error = ref<ApiError | null>(null)
  const checks = computed(() => new Map(knowledge.value?.checks.map((c) => [c.id, c])))
  const causes = computed(() => new Map(knowledge.value?.causes.map((c) => [c.id, c])))
  const drills = computed(() => new Map(knowledge.value?.drills.map((d) => [d.id, d])))
  const clubs = computed(() => new Map(knowledge.value?.clubs.map((c) => [c.id, c])))

  async function load(): Promise<void> {
    if (knowledge.value !== null) return
    try {
      knowledge.value = await ask(client.GET('/api/knowledge'))
      error.value = null
    } catch (problem) {
      error.value = problem as ApiError
    }
  }
  return { knowledge, error, checks, causes, drills, clubs, load }
})
