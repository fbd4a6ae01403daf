import '@fontsource/atkinson-hyperlegible/latin-400.css'
import '@fontsource/atkinson-hyperlegible/latin-700.css'
import 'vuetify/styles'
import '@/ui/base.css'
import { createPinia } from 'pinia'
import { createApp } from 'vue'
import App from '@/App.vue'
import { router } from '@/router'
import { vuetify } from '@/ui/theme'

createApp(App).use(createPinia()).use(router).use(vuetify).mount('#app')
