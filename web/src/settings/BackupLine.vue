<script setup lang="ts">
// When everything was last put by, and a button to do it now.
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { ask, client } from '@/api/client'
import { useAttempt } from '@/api/useAttempt'
import { recentWord } from '@/ui/dates'

const queries = useQueryClient()
const KEY = ['keeping']
const { data: kept } = useQuery({
  queryKey: KEY,
  queryFn: () => ask(client.GET('/api/keeping')),
  refetchInterval: 5000,
})
const { busy, problem, attempt } = useAttempt()

async function now(): Promise<void> {
  const found = await attempt(() => ask(client.POST('/api/keeping/backup')))
  if (found) queries.setQueryData(KEY, found)
}
</script>

<template>
  <section v-if="kept" class="stack" aria-labelledby="backups">
    <h2 id="backups">Backups</h2>
    <p v-if="!kept.folder" class="quiet">Demo data is made anew at every start; nothing is kept.</p>
    <template v-else>
      <p>
        {{ kept.last ? `Last backup: ${recentWord(kept.last)}.` : 'No backup yet.' }}
        One is made at each day's first start, and kept for seven days and four weeks.
      </p>
      <p v-if="kept.failed" role="alert">
        Today's backup could not be made. {{ kept.failed }} When that is mended, back up now.
      </p>
      <p v-if="kept.erasing" role="status">
        Something was deleted while its data was being read. It goes from the disk as soon as that
        is done; nothing is to be done here.
      </p>
      <p class="quiet">They are in {{ kept.folder }}. Copy one to a stick now and then.</p>
      <v-btn :loading="busy" @click="now">Back up now</v-btn>
    </template>
    <p v-if="problem" role="alert">{{ problem.message }} {{ problem.hint }}</p>
  </section>
</template>
