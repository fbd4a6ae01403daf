<script setup lang="ts">
// Everything this instructor has chosen: how to see things, and the school a new lesson starts with.
import { useKnowledge } from '@/api/knowledge'
import { computed } from 'vue'
import LearnedChoices from '@/casebook/LearnedChoices.vue'
import BackupLine from '@/settings/BackupLine.vue'
import InstructorList from '@/settings/InstructorList.vue'
import OtherDevices from '@/settings/OtherDevices.vue'
import { usePairing } from '@/settings/usePairing'
import SchoolFields from '@/ui/SchoolFields.vue'
import SettingsFields from '@/ui/SettingsFields.vue'
import { useSettings } from '@/ui/settings'
import StateMessage from '@/ui/StateMessage.vue'

const known = useKnowledge()
const settings = useSettings()
const { data: standing } = usePairing()
const chosen = computed(() => {
  const schools = known.knowledge?.schools
  if (!schools) return []
  return Object.entries(schools).flatMap(([key, { title, options }]) => {
    const chosen = settings.school[key as keyof typeof settings.school]
    const option = options.find((o) => o.id === chosen)
    return option
      ? [
          {
            key,
            title,
            name: option.name,
            sentence: option.sentence,
            changes: known.all.school_changes[key]?.[option.id] ?? [],
          },
        ]
      : []
  })
})
</script>

<template>
  <main class="page">
    <p><router-link to="/">The day</router-link></p>
    <h1>Settings</h1>
    <p class="quiet">
      Name, place, school and words follow you to your other devices; the rest is this browser’s
      own. A lesson keeps the school it was started with.
    </p>
    <div class="two">
      <section aria-labelledby="seen">
        <h2 id="seen">How things are shown</h2>
        <SettingsFields />
      </section>
      <section aria-labelledby="school">
        <h2 id="school">School of new lessons</h2>
        <StateMessage
          v-if="known.error"
          inside
          kind="error"
          :title="known.error.message"
          :hint="known.error.hint"
          @retry="known.load"
        />
        <StateMessage v-else-if="!known.knowledge" inside kind="loading" title="Opening" />
        <div v-else class="school">
          <SchoolFields
            :school="settings.school"
            @change="(school) => (settings.school = school)"
          />
          <p v-for="c in chosen" :key="c.key" class="quiet small">
            <strong>{{ c.title }}, {{ c.name.toLowerCase() }}:</strong> {{ c.sentence }}
            {{ c.changes.join(' ') }}
          </p>
        </div>
      </section>
    </div>
    <div class="two">
      <OtherDevices />
      <div>
        <InstructorList v-if="standing?.here" />
        <BackupLine />
      </div>
    </div>
    <section aria-labelledby="taught">
      <h2 id="taught">What your lessons taught</h2>
      <p class="quiet">
        How common each cause is among your students moves with what becomes of your decisions. The
        <router-link :to="{ name: 'casebook', params: { part: 'learned' } }">casebook</router-link>
        says what moved.
      </p>
      <LearnedChoices />
    </section>
    <section aria-labelledby="kept">
      <h2 id="kept">What is kept, and where</h2>
      <p>
        Lessons are kept on the machine this program runs on; nothing leaves it but to the devices
        paired with it. A browser keeps for a fortnight what it read lately, so that the page opens
        without a connection. Film is not stored. Health notes stay out of sheets, and out of case
        files unless asked for. A student can be deleted, with everything, on their page.
      </p>
    </section>
  </main>
</template>

<style scoped>
h1 {
  font-size: var(--text-head);
}
.page :deep(h2) {
  font-size: var(--text-title);
  margin: 20px 0 10px;
}
.page :deep(.stack > h2) {
  margin-bottom: 0; /* a stack has its own gaps */
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 40px;
}
.school {
  display: grid;
  gap: 12px;
}
.small {
  font-size: var(--text-small);
}
a {
  color: inherit;
}
@media (max-width: 800px) {
  .two {
    grid-template-columns: 1fr;
    gap: 0;
  }
}
</style>
