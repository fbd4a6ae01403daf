<script setup lang="ts">
// One cause: its chain to the ball, what it comes from and brings about, looks, drills, schools.
import { useKnowledge } from '@/api/knowledge'
import ChainLine from '@/lesson/shots/ChainLine.vue'
import type { Cause } from '@/map/layout'

const props = defineProps<{
  cause: Cause
  words: (text: string) => string
}>()
const known = useKnowledge()

const UNITS = [
  ['path_deg', 'path', '°'],
  ['face_to_path_deg', 'face to path', '°'],
  ['low_point_cm', 'low point', ' cm'],
  ['heel_toe_mm', 'strike', ' mm'],
  ['dynamic_loft_deg', 'loft', '°'],
  ['club_speed_pct', 'speed', ' %'],
] as const
function effects(cause: Cause): string {
  const thrown = cause.effect as Record<string, number>
  const own = inNumbers(thrown)
  if (!Object.keys(cause.effect_stuck ?? {}).length) return own
  return `${own}; with the club stuck behind ${inNumbers({ ...thrown, ...cause.effect_stuck })}`
}
function inNumbers(effect: Record<string, number>): string {
  return UNITS.filter(([id]) => effect[id])
    .map(
      ([id, name, unit]) =>
        `${name} ${(effect[id] ?? 0) > 0 ? '+' : '−'}${String(Math.abs(effect[id] ?? 0))}${unit}`,
    )
    .join(', ')
}
const ORDER = { by_nature: 0, strong: 0, moderate: 1, weak: 2 }
const STRENGTH = {
  by_nature: 'by its nature',
  strong: 'strong',
  moderate: 'moderate',
  weak: 'weak',
}
/** Looks that point to a cause in any mode, the strongest first. */
const looks = (id: string) =>
  known.all.checks
    .flatMap((c) => {
      const strength = { ...c.points, ...c.points_thrown, ...c.points_stuck }[id]
      return strength ? [{ id: c.id, label: c.label, strength }] : []
    })
    .sort((a, b) => ORDER[a.strength] - ORDER[b.strength])
const upstream = (id: string) =>
  known.all.causes.filter((c) => c.upstream_of?.includes(id)).map((c) => c.id)
const drills = (id: string) => known.all.drills.filter((d) => d.targets.includes(id))
const names = (ids: readonly string[]) =>
  ids.map((id) => props.words(known.cause(id)?.name ?? id)).join(', ')
interface SchoolSays {
  id: string
  name: string
  sentence: string
  says: string
}
/** Schools that count the cause otherwise, or have drills of their own for it. */
function schools(id: string): SchoolSays[] {
  const serving = drills(id)
  return Object.values(known.all.schools).flatMap((q) =>
    q.options.flatMap((o) => {
      const weight = o.cause_weight?.[id]
      const own = serving.filter((d) => d.schools?.includes(o.id)).map((d) => d.name)
      const said = [
        weight === undefined || weight === 1 ? '' : `counts it ${String(weight)} times as often`,
        o.begins_with?.includes(id) ? 'begins with it once it is seen' : '',
        own.length ? `drills it with ${own.join(', ').toLowerCase()}` : '',
      ].filter(Boolean)
      if (!said.length) return []
      return [{ id: o.id, name: o.name, sentence: o.sentence, says: said.join('; ') }]
    }),
  )
}
</script>

<template>
  <div class="cause">
    <p>
      <strong>{{ words(cause.name) }}.</strong> {{ words(cause.sentence) }}
      <span class="quiet">{{ effects(cause) }}</span>
    </p>
    <p v-if="cause.disputed">{{ words(cause.disputed) }}</p>
    <ChainLine :chain="known.all.chains[cause.id] ?? []" :words="words" />
    <p v-if="cause.upstream_of?.length">Can bring about: {{ names(cause.upstream_of) }}.</p>
    <p v-if="upstream(cause.id).length">Can come from: {{ names(upstream(cause.id)) }}.</p>
    <p>
      Looks:
      <span v-for="(look, i) in looks(cause.id)" :key="look.id"
        >{{ i ? ', ' : '' }}{{ words(look.label) }}
        <span class="quiet">({{ STRENGTH[look.strength] }})</span></span
      >.
    </p>
    <p>
      Drills:
      {{
        drills(cause.id)
          .map((d) => d.name)
          .join(', ')
      }}.
    </p>
    <p v-for="s in schools(cause.id)" :key="s.id">
      <strong>{{ s.name }}</strong> {{ s.says }}.
      <span class="quiet">{{ s.sentence }}</span>
    </p>
    <p class="quiet">Source: {{ cause.source }}.</p>
  </div>
</template>

<style scoped>
p {
  padding: 2px 0;
}
</style>
