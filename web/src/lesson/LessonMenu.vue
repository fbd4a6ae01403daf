<script setup lang="ts">
// What belongs to the lesson as a whole: complaint, school, what is at hand, the case file.
import { useLessonContext } from '@/lesson/lessonContext'
import { mdiNotebookOutline } from '@mdi/js'
import { computed, ref } from 'vue'
import type { Source } from '@/api/client'
import SchoolFields from '@/ui/SchoolFields.vue'
const { open, lesson } = useLessonContext()

const emit = defineEmits<{ import: []; keys: [] }>()

const SOURCES: { value: Source; title: string }[] = [
  { value: 'look', title: 'eyes' },
  { value: 'feel', title: 'feel' },
  { value: 'film', title: 'film' },
  { value: 'mat', title: 'pressure mat' },
  { value: 'plate', title: 'force plate' },
  { value: 'monitor', title: 'launch monitor' },
]

const shown = ref(false)
const atHand = computed(() => lesson.value.at_hand ?? SOURCES.map((s) => s.value))
const tableUrl = computed(() => `/api/lessons/${lesson.value.id}/balls.csv`)
const caseUrl = computed(() => `/api/lessons/${lesson.value.id}/case`)

function showKeys(): void {
  shown.value = false
  emit('keys')
}
function bringIn(): void {
  shown.value = false
  emit('import')
}
</script>

<template>
  <v-menu v-model="shown" :close-on-content-click="false" location="bottom end">
    <template #activator="{ props: activator }">
      <v-btn
        v-bind="activator"
        variant="text"
        :icon="mdiNotebookOutline"
        aria-label="This lesson"
        title="This lesson"
      />
    </template>
    <v-card tag="aside" aria-label="This lesson" class="pa-5 sheet" width="420">
      <p v-if="lesson.unreadable?.length" role="note">
        Kept, but not known here: {{ lesson.unreadable.join('; ') }}.
      </p>
      <v-textarea
        label="Complaint, in the student's words"
        rows="2"
        auto-grow
        maxlength="2000"
        :model-value="lesson.complaint"
        @change="
          (e: Event) => open.changeLesson({ complaint: (e.target as HTMLTextAreaElement).value })
        "
      />
      <v-text-field
        label="Given by"
        maxlength="80"
        hide-details
        :model-value="lesson.given_by"
        @change="
          (e: Event) => open.changeLesson({ given_by: (e.target as HTMLInputElement).value })
        "
      />
      <SchoolFields :school="lesson.school" @change="(school) => open.changeLesson({ school })" />
      <v-select
        label="At hand for looks"
        multiple
        :items="SOURCES"
        :model-value="atHand"
        @update:model-value="(v: Source[]) => open.changeLesson({ at_hand: v })"
      />
      <div class="row">
        <v-btn :href="caseUrl" download>Save as case file</v-btn>
        <v-btn v-if="lesson.stills.length" :href="`${caseUrl}?stills=true`" download
          >Save with its stills</v-btn
        >
        <v-btn :href="tableUrl" download>Save balls as a table</v-btn>
        <v-btn @click="bringIn">Bring in balls from a table</v-btn>
        <v-btn @click="showKeys">Show the keys<span class="key" aria-hidden="true">?</span></v-btn>
        <v-btn @click="open.changeLesson({ finished: !lesson.finished })">
          {{ lesson.finished ? 'Reopen lesson' : 'Finish lesson' }}
        </v-btn>
      </div>
    </v-card>
  </v-menu>
</template>

<style scoped>
.sheet {
  display: grid;
  gap: 14px;
  max-height: 82vh;
  overflow-y: auto;
}
.row {
  display: flex;
  gap: 12px;
  flex-wrap: wrap;
}
</style>
