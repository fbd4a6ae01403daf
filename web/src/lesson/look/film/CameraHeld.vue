<script setup lang="ts">
// Whether the camera stood still or was held in the hand: found by what stands still, or asked.
import { computed } from 'vue'
import { EVENTS } from '@/lesson/look/film/marking'
import type { useFilm } from '@/lesson/look/film/useFilm'
import OneOf from '@/ui/OneOf.vue'
import { count } from '@/ui/words'

const { ruler } = defineProps<{ ruler: ReturnType<typeof useFilm> }>()
const { marks } = ruler
const { held, most, lost, isTaken } = ruler.following
const HELD = [
  { id: 'stood', word: 'On a stand' },
  { id: 'held', word: 'In the hand' },
] as const
/** As the instructor had it. */
const said = computed(() => {
  const inHand = marks.value?.held
  return inHand == null ? null : inHand ? 'held' : 'stood'
})
const isTouched = computed(() => Object.keys(marks.value?.points ?? {}).length > 0)
const moved = computed(
  () =>
    `The camera was held in the hand and moved by up to ${count(Math.ceil(most.value), 'pixel')}`,
)
const lostWords = computed(() =>
  new Intl.ListFormat('en-GB').format(
    EVENTS.filter((e) => lost.value.includes(e.id)).map((e) => `“${e.word}”`),
  ),
)
</script>

<template>
  <section class="held" aria-label="How the camera was held">
    <p v-if="held === 'looking'" class="quiet" role="status">
      What stands still is followed, to see how the camera was held.
    </p>
    <p v-else-if="held === 'stood'" class="quiet">
      The camera stood still while the student swung.
    </p>
    <template v-else-if="held === 'moved'">
      <p data-testid="film-held">
        <template v-if="isTaken">{{ moved }}: that is taken out of every number.</template>
        <template v-else-if="isTouched"
          >{{ moved }}, and the numbers do not allow for it yet.</template
        >
        <template v-else>{{ moved }}: every number will allow for that.</template>
        <template v-if="lostWords">
          At {{ lostWords }} nothing that stands still was found again: numbers there are less sure.
        </template>
      </p>
      <v-btn v-if="isTouched && !isTaken" @click="ruler.wasHeld(true)">Allow for it</v-btn>
    </template>
    <template v-else-if="held === 'lost'">
      <p>
        Nothing that stands still could be followed.
        {{
          said === 'held'
            ? 'In the hand, numbers that compare two pictures are less sure.'
            : said === 'stood'
              ? 'On a stand, that does no harm.'
              : 'Was the camera held in the hand?'
        }}
      </p>
      <OneOf
        name="How the camera was held"
        small
        :words="HELD"
        :on="said"
        @chosen="(h) => ruler.wasHeld(h === 'held')"
      />
    </template>
  </section>
</template>

<style scoped>
.held {
  display: grid;
  gap: 8px;
  justify-items: start;
}
.held:empty {
  display: none;
}
</style>
