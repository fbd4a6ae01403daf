<script setup lang="ts">
// What brings about what, drawn; what is chosen told below it; all of it as a list besides.
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { ask, client } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import CauseAbout from '@/map/CauseAbout.vue'
import CauseMap from '@/map/CauseMap.vue'
import { PHASES, type Cause } from '@/map/layout'
import { useSettings } from '@/ui/settings'
import StateMessage from '@/ui/StateMessage.vue'
import { say } from '@/ui/words'

const known = useKnowledge()
const settings = useSettings()
/** No student stands here: feet are lead and trail, or those of a right-hander. */
const words = (text: string) => say(text, { hand: 'right', sides: settings.sides })
const wanted = ref<string | null>('')
const cause = ref<string | null>(null)
const miss = ref<string | null>(null)
const { data: made, error: problem } = useQuery({
  queryKey: ['map'],
  queryFn: () => ask(client.GET('/api/map')),
  staleTime: Infinity,
})

/** Causes whose name or sentence holds what is typed; null while nothing is. */
const found = computed(() => {
  const text = (wanted.value ?? '').trim().toLowerCase()
  if (text === '') return null
  const fits = (c: Cause) => `${c.name} ${c.label} ${c.sentence}`.toLowerCase().includes(text)
  return new Set((known.knowledge?.causes ?? []).filter(fits).map((c) => c.id))
})
const groups = computed(() =>
  PHASES.map((p) => ({
    ...p,
    causes: (known.knowledge?.causes ?? []).filter(
      (c) => c.acts === p.id && (found.value === null || found.value.has(c.id)),
    ),
  })).filter((g) => g.causes.length > 0),
)
function choose(id: string): void {
  cause.value = cause.value === id ? null : id
  miss.value = null
}
function chooseMiss(id: string): void {
  miss.value = miss.value === id ? null : id
  cause.value = null
}
const chosen = computed(() => (cause.value ? (known.cause(cause.value) ?? null) : null))
/** What makes the chosen miss, most first. */
const makers = computed(() => {
  const causes = made.value?.find((m) => m.miss === miss.value)?.causes ?? {}
  return Object.entries(causes)
    .sort(([, a], [, b]) => b - a)
    .map(([id, share]) => ({ id, share, name: known.cause(id)?.name ?? id }))
})
const missName = computed(() => known.knowledge?.misses.find((m) => m.id === miss.value)?.name)
</script>

<template>
  <main class="page">
    <p><router-link to="/">The day</router-link></p>
    <h1>The map of causes</h1>
    <StateMessage v-if="!known.knowledge" inside kind="loading" title="Opening the map" />
    <template v-else>
      <v-text-field
        v-model="wanted"
        class="find"
        label="Find a cause"
        type="search"
        density="comfortable"
        hide-details
        clearable
      />
      <p v-if="problem" role="alert">{{ problem.message }} {{ problem.hint }}</p>
      <div class="wall">
        <CauseMap
          :made="made ?? []"
          :cause="cause"
          :miss="miss"
          :found="found"
          :words="words"
          @cause="choose"
          @miss="chooseMiss"
        />
      </div>
      <section class="about" aria-live="polite">
        <CauseAbout v-if="chosen" :cause="chosen" :words="words" />
        <template v-else-if="miss">
          <h2>{{ missName }}: what makes it, most first</h2>
          <ol class="makers">
            <li v-for="m in makers" :key="m.id">
              <v-btn variant="text" @click="choose(m.id)">{{ words(m.name) }}</v-btn>
              <span class="share" aria-hidden="true"
                ><span :style="{ width: `${100 * m.share}%` }"
              /></span>
            </li>
          </ol>
        </template>
        <p v-else class="quiet">
          Touch a miss to see what makes it, or a cause to see what it brings about. Lines run from
          what comes first to what follows.
        </p>
      </section>
      <p v-if="groups.length === 0" class="quiet">No cause is called that.</p>
      <details class="list" :open="found !== null">
        <summary>All causes as a list</summary>
        <section v-for="g in groups" :key="g.id" :aria-labelledby="g.id">
          <h2 :id="g.id">{{ g.word }}</h2>
          <details v-for="c in g.causes" :key="c.id" :data-testid="`cause-${c.id}`">
            <summary>
              <strong>{{ words(c.name) }}</strong>
            </summary>
            <CauseAbout :cause="c" :words="words" />
          </details>
        </section>
      </details>
    </template>
  </main>
</template>

<style scoped>
.page {
  max-width: 1240px;
}
h1 {
  font-size: var(--text-head);
}
h2 {
  font-size: var(--text-title);
  margin: 14px 0 4px;
}
.find {
  max-width: 420px;
  margin: 10px 0;
}
.wall {
  overflow-x: auto;
}
.about {
  min-height: 96px;
  padding: 8px 0 16px;
}
.makers {
  padding: 0;
  list-style: none;
}
.makers li {
  display: grid;
  grid-template-columns: minmax(0, 340px) minmax(80px, 300px);
  align-items: center;
  gap: 14px;
}
.makers .v-btn {
  justify-content: start;
}
.share span {
  display: block;
  height: 10px;
  border-radius: var(--corner-small);
  background: var(--clay);
}
.list summary {
  min-height: 44px;
  cursor: pointer;
}
a {
  color: inherit;
}
</style>
