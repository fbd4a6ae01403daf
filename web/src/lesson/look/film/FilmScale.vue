<script setup lang="ts">
// What gives the picture its scale, and what is level in it.
import { computed } from 'vue'
import { useKnowledge } from '@/api/knowledge'
import CmField from '@/lesson/look/film/CmField.vue'
import type { useFilm } from '@/lesson/look/film/useFilm'
import ChooseOne from '@/ui/ChooseOne.vue'

const { ruler } = defineProps<{ ruler: ReturnType<typeof useFilm> }>()
/** Two ends are to be touched: the picture is wanted. */
const emit = defineEmits<{ asked: [] }>()
const known = useKnowledge()
const { marks, ends, scaleBy, scaleCm, scaleIsGround, alike } = ruler

const scales = computed(() =>
  known.all.film.scales
    .filter((s) => marks.value && s.views.includes(marks.value.view))
    .map((s) => ({ id: s.id, word: s.name })),
)
const needsLength = computed(() => scaleBy.value === 'known' || scaleBy.value === 'club')
const limits = computed(() => known.all.film.limits)
function touchEnds(what: 'scale' | 'ground'): void {
  ends.value = { what, first: null, zoom: 1 }
  emit('asked')
}
</script>

<template>
  <section class="scale" aria-label="Scale and level">
    <p v-if="alike && !marks?.scale" class="alike">
      <v-btn @click="ruler.takeFromAlike">As in “{{ alike.name || 'the other film' }}”</v-btn>
      <span class="quiet"> where the camera has not been moved since.</span>
    </p>
    <ChooseOne
      name="What gives the scale"
      :options="scales"
      :on="scaleBy"
      class="which"
      @chosen="(s) => (scaleBy = s)"
    />
    <CmField
      v-if="needsLength"
      name="Its length, cm"
      :value="scaleCm"
      :limits="limits.scale_cm"
      @typed="(cm) => (scaleCm = cm)"
    />
    <v-checkbox
      v-if="scaleBy === 'known'"
      v-model="scaleIsGround"
      class="flat"
      label="It lies flat on the ground, across the picture"
      hide-details
    />
    <div class="row">
      <v-btn :disabled="needsLength && !scaleCm" @click="touchEnds('scale')">{{
        marks?.scale ? 'Scale again' : 'Touch the scale'
      }}</v-btn>
      <v-btn @click="touchEnds('ground')">{{
        marks?.ground ? 'Ground again' : 'Touch the ground'
      }}</v-btn>
    </div>
  </section>
</template>

<style scoped>
.scale,
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px;
}
.alike,
.flat,
.row {
  flex: 1 0 100%;
}
.which {
  min-width: 200px;
}
</style>
