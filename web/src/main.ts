import '@fontsource/atkinson-hyperlegible/latin-400.css'
import '@fontsource/atkinson-hyperlegible/latin-700.css'
import 'vuetify/styles'
import '@/ui/base.css'
import { VueQueryPlugin } from '@tanstack/vue-query'
import { createPinia } from 'pinia'
import { createApp } from 'vue'
import App from '@/App.vue'
import { client } from '@/api/client'
import { OUTBOX, Outbox } from '@/sync/outbox'
import { thisPage } from '@/sync/page'
import { newQueries } from '@/api/query'
import { forgetReadLately } from '@/api/readLately'
import { router } from '@/router'
import { vuetify } from '@/ui/theme'

/** The code in the address that brought this device here, if one did. */
function sentTo(): Record<string, string> {
  const code = new URLSearchParams(location.search).get('code')
  return code === null ? {} : { code }
}

const FACES = ['400 1em "Atkinson Hyperlegible"', '700 1em "Atkinson Hyperlegible"']
const TYPE_MS = 800

/** Letters of another width would move what stands beside them once the type arrives. */
function typeIsThere(): Promise<unknown> {
  const loaded = Promise.all(FACES.map((face) => document.fonts.load(face))).catch(() => undefined)
  return Promise.race([loaded, new Promise((resolve) => setTimeout(resolve, TYPE_MS))])
}

async function begin(): Promise<void> {
  const page = await thisPage()
  const queries = newQueries()
  client.use({
    onRequest({ request }) {
      if (!request.headers.has('page-id')) request.headers.set('page-id', page)
    },
    onResponse({ response }) {
      if (response.status !== 401) return
      // it was sent away: names and health notes that were read here are forgotten; what was entered
      // here and has not arrived waits
      queries.clear()
      void forgetReadLately()
      void router.replace({ name: 'pair', query: sentTo() })
    },
  })
  const outbox = new Outbox(page)
  await Promise.all([outbox.start(), typeIsThere()])
  createApp(App)
    .provide(OUTBOX, outbox)
    .use(createPinia())
    .use(VueQueryPlugin, { queryClient: queries })
    .use(router)
    .use(vuetify)
    .mount('#app')
}
void begin()
