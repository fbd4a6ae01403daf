<script setup lang="ts">
// Does it hold elsewhere? A second club, then a target for every ball, then the course.
import { useKnowledge } from '@/api/knowledge'
import { useLessonContext } from '@/lesson/lessonContext'
import { computed, ref } from 'vue'
import ChooseOne from '@/ui/ChooseOne.vue'
import { count } from '@/ui/words'

const props = defineProps<{
  baselineClub: string
  near: boolean
}>()
const known = useKnowledge()
const { lesson } = useLessonContext()
defineEmits<{ begin: [club: string, ownTargets: boolean] }>()

const club = ref<string | null>(null)
const clubs = computed(() =>
  known.all.clubs
    .filter((c) => c.id !== props.baselineClub)
    .map((c) => ({ id: c.id, word: c.name })),
)
const done = computed(() =>
  lesson.value.blocks
    .filter((b) => b.kind === 'retest' && b.shots.length > 0)
    .filter((b) => b.own_targets || b.club !== props.baselineClub)
    .map((b) => {
      const name = known.club(b.club)?.name ?? b.club
      return `${name}${b.own_targets ? ', own targets' : ''}: ${count(b.shots.length, 'ball')}`
    }),
)
</script>

<template>
  <div class="transfer" data-testid="transfer">
    <h2>Then, transfer</h2>
    <p v-if="near">
      The event is near: only what is finished at set-up changes now. No second club today.
    </p>
    <template v-else>
      <p class="quiet">A second club first, then a target for every ball, then the course.</p>
      <div class="acts">
        <ChooseOne
          class="club"
          name="Second club"
          :options="clubs"
          :on="club"
          @chosen="(id) => (club = id)"
        />
        <v-btn :disabled="!club" @click="club && $emit('begin', club, false)">Hit balls</v-btn>
        <v-btn data-testid="own-targets" @click="$emit('begin', club || baselineClub, true)">
          A target for every ball
        </v-btn>
      </div>
      <p v-if="done.length">Hit so far: {{ done.join(' · ') }}.</p>
    </template>
  </div>
</template>

<style scoped>
.club {
  min-width: 170px;
}
.transfer {
  display: grid;
  gap: 6px;
  justify-items: start;
}
h2 {
  font-size: var(--text-lead);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}
</style>
