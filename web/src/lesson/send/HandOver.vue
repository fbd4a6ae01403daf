<script setup lang="ts">
// The ways the sheet leaves: printed, as a file, shared where the browser can, as a mail begun.
import { computed, ref, shallowRef } from 'vue'
import type { Shape } from '@/api/client'
import { useLessonContext } from '@/lesson/lessonContext'
import { dayWord } from '@/ui/dates'

const props = defineProps<{
  sheet: Shape['SheetOut']
  /** What the addresses of the sheet are asked with. */
  query: string
  drillName: (id: string | null) => string | null
}>()
const { lesson } = useLessonContext()
defineEmits<{ print: [] }>()

const base = computed(() => `/api/lessons/${lesson.value.id}`)
const title = computed(() => `Your lesson of ${dayWord(lesson.value.started_at)}`)
const text = computed(() => {
  const { miss, cause, cue, rehearsal, ball_drill, thought, rescue, days } = props.sheet
  const lines = [
    miss && `The miss: ${miss}.`,
    `The one cause: ${cause}`,
    cue && `The cue: ${cue}`,
    rehearsal && `Without a ball: ${props.drillName(rehearsal) ?? ''}.`,
    ball_drill && `With a ball: ${props.drillName(ball_drill) ?? ''}.`,
    thought && `On the course, one thought at most: ${thought}`,
    rescue && `When the miss comes back, for one ball: ${rescue}`,
    `I ask how it went on ${dayWord(days.at(-1)?.on ?? props.sheet.check_in)}.`,
  ]
  return lines.filter(Boolean).join('\n\n')
})
const mail = computed(
  () => `mailto:?subject=${encodeURIComponent(title.value)}&body=${encodeURIComponent(text.value)}`,
)
const canShare = typeof navigator.canShare === 'function'
const busy = ref(false)
const problem = shallowRef('')
async function share(): Promise<void> {
  busy.value = true
  problem.value = ''
  try {
    const url = `${location.origin}${base.value}/sheet.pdf?${props.query}`
    const answer = await fetch(new Request(url))
    const name = `${lesson.value.student.name}.pdf`
    const file = new File([await answer.blob()], name, { type: 'application/pdf' })
    const whole = { title: title.value, text: text.value, files: [file] }
    await navigator.share(
      navigator.canShare(whole) ? whole : { title: title.value, text: text.value },
    )
  } catch (error) {
    // closed by the user: nothing went wrong
    if ((error as Error).name !== 'AbortError') {
      problem.value = 'This device would not share it. Take the PDF instead.'
    }
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <div class="ways" role="group" aria-label="Hand it over">
    <v-btn @click="$emit('print')">Print</v-btn>
    <v-btn :href="`${base}/sheet.pdf?${query}`" download>PDF</v-btn>
    <v-btn v-if="canShare" :loading="busy" @click="share">Share</v-btn>
    <v-btn :href="mail" data-testid="mail">Mail draft</v-btn>
    <v-btn :href="`${base}/practice.ics?${query}`" download>Calendar</v-btn>
    <v-btn :href="`${base}/case`" variant="text" download>Case file for a colleague</v-btn>
    <p v-if="problem" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
