<script setup lang="ts">
// Every cause with its chain, what points to it, its drills, its source, and what schools say.
import { computed, ref } from 'vue'
import { useKnowledge } from '@/api/knowledge'
import StateMessage from '@/ui/StateMessage.vue'
import { linkWord } from '@/ui/words'

const known = useKnowledge()
const GROUPS = [
  { id: 'setup', name: 'Set-up' },
  { id: 'backswing', name: 'Backswing' },
  { id: 'downswing', name: 'Transition and downswing' },
  { id: 'elsewhere', name: 'Elsewhere' },
] as const
const wanted = ref('')
const groups = computed(() =>
  GROUPS.map((g) => ({
    ...g,
    causes: (known.knowledge?.causes ?? []).filter(
      (c) =>
        c.group === g.id &&
        `${c.name} ${c.sentence}`.toLowerCase().includes(wanted.value.toLowerCase()),
    ),
  })).filter((g) => g.causes.length > 0),
)
const UNITS = [
  ['path_deg', 'path', '°'],
  ['face_to_path_deg', 'face to path', '°'],
  ['low_point_cm', 'low point', ' cm'],
  ['heel_toe_mm', 'strike', ' mm'],
  ['dynamic_loft_deg', 'loft', '°'],
  ['club_speed_pct', 'speed', ' %'],
] as const
type Cause = NonNullable<typeof known.knowledge>['causes'][number]
function effects(cause: Cause): string {
  const effect = cause.effect as Record<string, number>
  return UNITS.filter(([id]) => effect[id])
    .map(
      ([id, name, unit]) =>
        `${name} ${(effect[id] ?? 0) > 0 ? '+' : '−'}${String(Math.abs(effect[id] ?? 0))}${unit}`,
    )
    .join(', ')
}
const ORDER = { strong: 0, moderate: 1, weak: 2 }
/** Looks that point to a cause in any mode, the strongest first. */
const looks = (id: string) =>
  (known.knowledge?.checks ?? [])
    .flatMap((c) => {
      const strength = { ...c.points, ...c.points_thrown, ...c.points_stuck }[id]
      return strength ? [{ id: c.id, label: c.label, strength }] : []
    })
    .sort((a, b) => ORDER[a.strength] - ORDER[b.strength])
const upstream = (id: string) =>
  (known.knowledge?.causes ?? []).filter((c) => c.upstream_of?.includes(id)).map((c) => c.id)
const wordOf = (link: string) => (known.knowledge ? linkWord(link, known.knowledge) : link)
const drills = (id: string) => (known.knowledge?.drills ?? []).filter((d) => d.targets.includes(id))
const names = (ids: readonly string[]) =>
  ids.map((id) => known.causes.get(id)?.name ?? id).join(', ')
interface SchoolSays {
  id: string
  name: string
  sentence: string
  says: string
}
/** Schools that count the cause otherwise, or have drills of their own for it. */
function schools(id: string): SchoolSays[] {
  const questions = known.knowledge?.schools
  if (!questions) return []
  const serving = drills(id)
  return Object.values(questions).flatMap((q) =>
    q.options.flatMap((o) => {
      const weight = o.cause_weight?.[id]
      const own = serving.filter((d) => o.prefers_drills?.includes(d.id)).map((d) => d.name)
      const said = [
        weight === undefined ? '' : `counts it ${String(weight)} times as often`,
        own.length ? `drills it with ${own.join(', ').toLowerCase()}` : '',
      ].filter(Boolean)
      if (!said.length) return []
      return [{ id: o.id, name: o.name, sentence: o.sentence, says: said.join('; ') }]
    }),
  )
}
</script>

<template>
  <main class="page">
    <p><router-link to="/">The day</router-link></p>
    <h1>The map of causes</h1>
    <StateMessage v-if="!known.knowledge" inside kind="loading" title="Opening the map" />
    <template v-else>
      <label class="find"
        >Find <input v-model="wanted" class="native" type="search" aria-label="Find a cause"
      /></label>
      <p class="quiet">
        What each does to the delivery: + toward the push side, ahead of the ball, toward the toe; −
        the other way.
      </p>
      <p v-if="groups.length === 0" class="quiet">No cause is called that.</p>
      <section v-for="g in groups" :key="g.id" :aria-labelledby="g.id">
        <h2 :id="g.id">{{ g.name }}</h2>
        <details v-for="c in g.causes" :key="c.id" :data-testid="`cause-${c.id}`">
          <summary>
            <strong>{{ c.name }}</strong>
            <span class="quiet"> {{ effects(c) }}</span>
          </summary>
          <p>{{ c.sentence }}</p>
          <ol class="chain" :aria-label="`From ${c.name} to the ball`">
            <li v-for="(link, i) in known.knowledge?.chains[c.id] ?? []" :key="link">
              <span class="number">{{ i + 1 }}</span> {{ wordOf(link) }}
            </li>
          </ol>
          <p v-if="c.upstream_of?.length">Can bring about: {{ names(c.upstream_of) }}.</p>
          <p v-if="upstream(c.id).length">Can come from: {{ names(upstream(c.id)) }}.</p>
          <p>
            Looks:
            <span v-for="(look, i) in looks(c.id)" :key="look.id"
              >{{ i ? ', ' : '' }}{{ look.label }}
              <span class="quiet">({{ look.strength }})</span></span
            >.
          </p>
          <p>
            Drills:
            {{
              drills(c.id)
                .map((d) => d.name)
                .join(', ')
            }}.
          </p>
          <p v-for="s in schools(c.id)" :key="s.id">
            <strong>{{ s.name }}</strong> {{ s.says }}.
            <span class="quiet">{{ s.sentence }}</span>
          </p>
          <p class="quiet">Source: {{ c.source }}.</p>
        </details>
      </section>
    </template>
  </main>
</template>

<style scoped>
.chain {
  margin-left: 16px;
  display: flex;
  flex-wrap: wrap;
  gap: 0 14px;
  padding: 0;
  list-style: none;
}
.chain .number {
  color: rgb(var(--v-theme-clay));
}
h1 {
  font-size: 28px;
}
h2 {
  font-size: 20px;
  margin: 18px 0 4px;
}
.find + p {
  margin-top: 8px;
}
.find {
  display: flex;
  align-items: center;
  gap: 10px;
  margin-top: 10px;
}
details {
  border-bottom: 1px solid rgb(var(--v-theme-line));
  padding: 4px 0;
}
summary {
  min-height: 44px;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 14px;
  cursor: pointer;
}
details p {
  padding: 2px 0 2px 16px;
}
a {
  color: inherit;
}
</style>
