import '@fontsource/atkinson-hyperlegible/latin-400.css'
import '@fontsource/atkinson-hyperlegible/latin-700.css'
import 'vuetify/styles'
import '@/ui/base.css'
import { VueQueryPlugin } from '@tanstack/vue-query'
import { createPinia } from 'pinia'
import { createApp } from 'vue'
import App from '@/App.vue'
import { newQueries } from '@/api/query'
import { router } from '@/router'
import { vuetify } from '@/ui/theme'

createApp(App)
  .use(createPinia())
  .use(VueQueryPlugin, { queryClient: newQueries() })
  .use(router)
  .use(vuetify)
  .mount('#app')
