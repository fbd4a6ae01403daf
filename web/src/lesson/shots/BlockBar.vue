<script setup lang="ts">
// Which block of balls: its club, what carry is expected, and the way to another block.
import { computed } from 'vue'
import type { Block } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import { useLessonContext } from '@/lesson/lessonContext'
import NewBlock from '@/lesson/shots/NewBlock.vue'
import ChooseOne from '@/ui/ChooseOne.vue'
import { useSettings } from '@/ui/settings'
import { vTyped } from '@/ui/typed'
import { fromMetres, keepOld, toMetres, typedNumber } from '@/ui/units'
import { capital } from '@/ui/words'

const chosen = defineModel<string | null>({ required: true })
const props = defineProps<{
  block: Block
}>()
const known = useKnowledge()
const { open, lesson } = useLessonContext()
const settings = useSettings()

const blocks = computed(() =>
  lesson.value.blocks.map((b) => ({
    id: b.id,
    word: titleOf(b),
  })),
)
const clubs = computed(() => known.all.clubs.map((c) => ({ id: c.id, word: c.name })))
const expected = computed(() =>
  props.block.expected_carry_m === null
    ? ''
    : fromMetres(props.block.expected_carry_m, settings.distance).toFixed(0),
)
const TEE = 'tee'
const surfaces = [
  { id: '', word: 'not noted' },
  { id: 'turf', word: 'Turf' },
  { id: 'mat', word: 'Mat' },
  { id: TEE, word: 'Tee' },
]
const from = computed(() => (props.block.teed === true ? TEE : (props.block.surface ?? '')))

/** What tells a block from its neighbours. */
function titleOf(b: Block): string {
  const drill = known.drill(b.drill)?.name.toLowerCase()
  const kind = b.own_targets ? 'Own targets' : capital(b.kind)
  return `${kind} · ${b.kind === 'trial' && drill ? drill : clubName(b.club)}`
}
function clubName(id: string): string {
  return known.club(id)?.name ?? id
}
const FARTHEST_M = 400
function setExpected(event: Event): void {
  const input = event.target as HTMLInputElement
  const value = typedNumber(input.value)
  const metres = typeof value === 'number' ? toMetres(value, settings.distance) : null
  if (value === undefined || (metres !== null && (metres <= 0 || metres > FARTHEST_M))) {
    const most = Math.floor(fromMetres(FARTHEST_M, settings.distance))
    keepOld(input, expected.value, `a carry from 1 to ${String(most)} ${settings.distance}`)
    return
  }
  open.putBlock(props.block.id, { expected_carry_m: metres })
}
/** A tee keeps the ground away from the ball; nothing noted: as usual with the club. */
function hitFrom(value: string): void {
  const surface = value === 'turf' || value === 'mat' ? value : null
  open.putBlock(props.block.id, { surface, teed: value === '' ? null : value === TEE })
}
</script>

<template>
  <div class="bar">
    <ChooseOne
      v-if="blocks.length > 1"
      class="which"
      name="Block"
      :options="blocks"
      :on="chosen"
      @chosen="(id) => (chosen = id)"
    />
    <ChooseOne
      name="Club"
      :options="clubs"
      :on="block.club"
      @chosen="(club) => open.putBlock(block.id, { club })"
    />
    <label>
      <span class="quiet">Carry, {{ settings.distance }}</span>
      <input
        v-typed="expected"
        class="native"
        inputmode="numeric"
        aria-label="Expected carry"
        title="The carry you expect with this club; lost distance is counted from it"
        placeholder="usual"
        @change="setExpected"
      />
    </label>
    <ChooseOne name="Hit from" :options="surfaces" :on="from" @chosen="hitFrom" />
    <NewBlock :block="block" @begun="(id) => (chosen = id)" />
  </div>
</template>

<style scoped>
.bar {
  display: grid;
  justify-items: start;
  gap: 6px;
  font-size: var(--text-small);
}
label {
  display: grid;
  grid-template-columns: 66px auto;
  align-items: center;
}
input {
  width: 112px;
  font-weight: var(--strong);
}
/* two beside each other where the range is wide and low, no wider than what lies left of its fan */
@media (min-width: 1001px), (max-height: 560px) {
  .bar {
    grid-template-columns: 120px 126px;
    align-items: center;
    justify-items: stretch;
    column-gap: 8px;
  }
  .which {
    grid-column: 1 / -1;
  }
  .bar label {
    grid-template-columns: 1fr 66px;
    white-space: nowrap;
  }
  input {
    width: 66px;
  }
}
</style>
