<script setup lang="ts">
// Which pictures are which events: found by what moves, or marked by hand.
import { computed } from 'vue'
import { EVENTS } from '@/lesson/look/film/marking'
import type { useFilm } from '@/lesson/look/film/useFilm'
import ChooseOne from '@/ui/ChooseOne.vue'

const { ruler } = defineProps<{ ruler: ReturnType<typeof useFilm> }>()
const { marks, frame, finding, film, sure } = ruler

const event = computed(() => EVENTS.find((e) => marks.value?.events?.[e.id] === frame.value))
const hasEvents = computed(() => Object.keys(marks.value?.events ?? {}).length > 0)
/** Whether the file plays slower than life: the swing's own timing says. */
const rates = computed(() => ruler.read.value?.rates ?? [])
const slow = computed(() => {
  const [rate] = rates.value
  return rate !== undefined && !rates.value.includes(marks.value?.fps ?? 0) ? rate : null
})
const impossible = computed(() => ruler.read.value !== null && rates.value.length === 0)
</script>

<template>
  <section class="events" aria-label="Events">
    <div class="names" role="group" aria-label="Events of the swing">
      <v-btn
        v-for="(e, i) in EVENTS"
        :key="e.id"
        :aria-keyshortcuts="String(i + 1)"
        size="small"
        :variant="marks?.events?.[e.id] === frame ? 'flat' : 'outlined'"
        :color="marks?.events?.[e.id] === frame ? 'primary' : undefined"
        @click="marks?.events?.[e.id] === undefined ? ruler.mark(e.id) : ruler.goTo(e.id)"
      >
        {{ e.word }}
        <span v-if="marks?.events?.[e.id] !== undefined" class="number">{{
          marks.events[e.id]
        }}</span>
      </v-btn>
    </div>
    <div class="row">
      <v-btn :loading="finding !== null" @click="ruler.find()">Find the events</v-btn>
      <v-btn :disabled="finding !== null" @click="ruler.find(frame)"
        >Find them around this picture</v-btn
      >
      <ChooseOne
        name="This picture is"
        :options="EVENTS"
        :on="event?.id ?? null"
        class="which"
        @chosen="(e) => ruler.mark(e)"
      />
    </div>
    <p v-if="finding !== null" class="quiet" role="status">
      Looking through the film, {{ Math.round(finding * 100) }} %
    </p>
    <p v-else-if="sure" class="quiet" role="status">{{ sure }}</p>
    <p v-if="film?.uneven" role="note">
      The pictures of this film come at uneven times: a step may show the same picture twice, and an
      event is good to a picture.
    </p>
    <p v-if="slow" role="note">
      From top to impact takes longer than a downswing can: was it filmed at {{ slow }} pictures a
      second? <v-btn size="small" @click="ruler.filmedAt(slow)">Yes, at {{ slow }}</v-btn>
    </p>
    <p v-else-if="impossible && hasEvents" role="note" class="problem">
      Top and impact are not a downswing apart at any speed: mark them again.
    </p>
  </section>
</template>

<style scoped>
.events {
  display: grid;
  gap: 8px;
}
.names,
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 6px;
}
.names .number {
  margin-left: 6px;
}
.which {
  min-width: 200px;
}
@media (max-width: 800px) {
  /* in sight beside the picture: one row that goes sideways */
  .names {
    flex-wrap: nowrap;
    overflow-x: auto;
    padding-bottom: 4px;
  }
  .names > * {
    flex: none;
  }
}
</style>
