<script setup lang="ts">
// By what means the look that is asked is taken; another is one touch away.
import { computed } from 'vue'
import type { Knowledge, Source } from '@/api/client'
import { useLessonContext } from '@/lesson/lessonContext'
import OneOf from '@/ui/OneOf.vue'
import { capital, MEANS_WORDS } from '@/ui/words'

const props = defineProps<{ check: Knowledge['checks'][number] }>()
const { open } = useLessonContext()
const on = computed(() => open.sourceOf(props.check.id))
/** In the order of what is most at hand. */
const ORDER: Source[] = ['look', 'feel', 'film', 'mat', 'plate', 'monitor']
const words = computed(() =>
  ORDER.filter((s) => props.check.sources.includes(s)).map((id) => ({
    id,
    word: capital(MEANS_WORDS[id]),
  })),
)
</script>

<template>
  <OneOf
    v-if="words.length > 1"
    class="by"
    small
    name="How it is seen"
    :words="words"
    :on="on"
    @chosen="(means) => open.takeBy(check.id, means)"
  />
  <span v-else class="quiet">{{ MEANS_WORDS[on] }}</span>
</template>

<style scoped>
.by :deep(.v-btn.v-btn) {
  min-height: 44px;
  padding: 0 10px;
  font-size: var(--text-small);
}
</style>
