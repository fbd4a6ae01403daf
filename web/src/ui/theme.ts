// Two ways to look at the same paper: in the sun and in the bay.
import { createVuetify } from 'vuetify'
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg'

/** Chalk, slate, moss and clay. `primary` is ink; `clay` marks the chosen cause and nothing else. */
/** Vuetify's half-hidden words are too faint for the sun. */
const variables = { 'medium-emphasis-opacity': 0.9, 'high-emphasis-opacity': 1 }

const sun = {
  dark: false,
  variables,
  colors: {
    background: '#fffefb',
    surface: '#ffffff',
    'surface-variant': '#e9e2d2',
    'on-surface-variant': '#1b2624',
    primary: '#1b2624',
    secondary: '#2f4a5c',
    error: '#8c2f1b',
    clay: '#a8431d',
    paper: '#f7f4ec',
    ink: '#1b2624',
    quiet: '#4c5652',
    line: '#8d8672',
    turf: '#dfe5d0',
    slate: '#2f4a5c',
    panel: '#ebe5d6',
  },
}

const bay = {
  dark: true,
  variables,
  colors: {
    background: '#151a19',
    surface: '#1d2423',
    'surface-variant': '#2d3634',
    'on-surface-variant': '#f0ece0',
    primary: '#f0ece0',
    secondary: '#9dbccd',
    error: '#f2a48d',
    clay: '#ee9468',
    paper: '#1a201f',
    ink: '#f0ece0',
    quiet: '#b7bdb4',
    line: '#77806f',
    turf: '#27322a',
    slate: '#9dbccd',
    panel: '#2a3331',
  },
}

export const vuetify = createVuetify({
  icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
  theme: { defaultTheme: 'sun', themes: { sun, bay } },
  defaults: {
    VBtn: { variant: 'outlined', rounded: 'lg', minHeight: 48 },
    VBtnToggle: {
      divided: true,
      variant: 'outlined',
      VBtn: { color: 'primary', selectedClass: 'chosen' },
    },
    VTextField: { variant: 'outlined', density: 'comfortable', hideDetails: 'auto' },
    VTextarea: { variant: 'outlined', density: 'comfortable', hideDetails: 'auto' },
    VSelect: { variant: 'outlined', density: 'comfortable', hideDetails: 'auto' },
  },
})
