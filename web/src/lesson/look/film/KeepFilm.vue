<script setup lang="ts">
// Whether the film is kept on this device after the page is closed, and until when.
import { onMounted, ref, watch } from 'vue'
import { sentenceOf, type OpenFilm } from '@/lesson/look/film/film'
import { forgetFilm, keepFilm, keptFilms } from '@/lesson/look/film/keptFilms'
import ChooseOne from '@/ui/ChooseOne.vue'
import { dayWord } from '@/ui/dates'

const props = defineProps<{ id: string; film: OpenFilm }>()
const emit = defineEmits<{ kept: [] }>()
const DAYS = [
  { id: '0', word: 'until this page is closed' },
  { id: '1', word: 'until tomorrow' },
  { id: '7', word: 'for a week' },
  { id: '28', word: 'for four weeks' },
  { id: '90', word: 'for three months' },
] as const
type Days = (typeof DAYS)[number]['id']

const until = ref<string | null>(null)
/** For how long it was kept on this page; null: it was kept before. */
const chosen = ref<Days | null>('0')
const problem = ref('')

async function read(): Promise<void> {
  until.value = (await keptFilms()).find((f) => f.id === props.id)?.until ?? null
  if (until.value === null) chosen.value = '0'
  else if (chosen.value === '0') chosen.value = null
}
async function choose(days: Days): Promise<void> {
  chosen.value = days
  problem.value = ''
  try {
    if (days === '0') await forgetFilm(props.id)
    else {
      await keepFilm(props.id, props.film.file, Number(days))
      emit('kept')
    }
  } catch (error) {
    problem.value = sentenceOf(error, 'The film could not be kept.')
  }
  await read()
}
onMounted(read)
watch(() => props.id, read)
</script>

<template>
  <div class="keep">
    <ChooseOne name="Keep the film on this device" :options="DAYS" :on="chosen" @chosen="choose" />
    <p v-if="problem" role="alert" class="problem">{{ problem }}</p>
    <p v-else-if="until" class="quiet" data-testid="film-kept">
      It is kept here until {{ dayWord(until) }} and then deleted. It is not sent anywhere.
    </p>
  </div>
</template>

<style scoped>
.keep {
  display: grid;
  gap: 4px;
  max-width: 340px;
}
</style>
