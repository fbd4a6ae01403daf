<script setup lang="ts">
// The scribbled note: one touch from every stage, kept with its time, and never on the sheet.
import { mdiPencilOutline } from '@mdi/js'
import { ref } from 'vue'
import { newId } from '@/sync/page'
import { useLessonContext } from '@/lesson/lessonContext'
import { timeWord } from '@/ui/dates'

const { open, lesson } = useLessonContext()
const shown = ref(false)
const note = ref('')
function keep(): void {
  if (note.value.trim() === '') return
  open.putNote(newId(), note.value)
  note.value = ''
}
</script>

<template>
  <v-menu v-model="shown" :close-on-content-click="false" location="bottom end">
    <template #activator="{ props: activator }">
      <v-btn
        v-bind="activator"
        variant="text"
        :icon="mdiPencilOutline"
        aria-label="Note"
        title="Note"
        data-testid="note"
      />
    </template>
    <v-card tag="aside" aria-label="Notes" class="pa-4 notes" width="380">
      <v-textarea
        v-model="note"
        label="Note"
        rows="2"
        auto-grow
        autofocus
        maxlength="2000"
        hide-details
        @keydown.ctrl.enter="keep"
      />
      <div class="row">
        <span class="quiet">Yours alone: never on the sheet.</span>
        <v-btn color="primary" variant="flat" :disabled="note.trim() === ''" @click="keep"
          >Keep note</v-btn
        >
      </div>
      <ul v-if="lesson.notes.length">
        <li v-for="n in [...lesson.notes].reverse()" :key="n.id">
          <span
            ><span class="quiet">{{ timeWord(new Date(n.written_at)) }}</span> {{ n.text }}</span
          >
          <v-btn
            variant="text"
            size="small"
            :aria-label="`Delete note: ${n.text}`"
            @click="open.deleteNote(n.id)"
            >Delete</v-btn
          >
        </li>
      </ul>
    </v-card>
  </v-menu>
</template>

<style scoped>
.notes {
  display: grid;
  gap: 10px;
}
.row,
li {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 10px;
}
.row .quiet {
  font-size: var(--text-small);
}
ul {
  list-style: none;
  padding: 0;
}
</style>
