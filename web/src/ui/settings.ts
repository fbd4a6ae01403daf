// How this instructor wants to see things; kept in the browser.
import { defineStore } from 'pinia'
import { ref, watch } from 'vue'
import type { Lesson } from '@/api/client'

export type Mode = 'sun' | 'bay'
export type SideWords = 'lead_trail' | 'left_right'
export type DistanceUnit = 'yd' | 'm'

type School = Lesson['school']

interface Kept {
  mode: Mode
  sides: SideWords
  distance: DistanceUnit
  keys: boolean
  faceSeen: 'front' | 'player'
  feelFirst: boolean
  school: School
  /** On what goes home: who gave the lesson, and where. */
  by: string
  place: string
}

const KEPT = 'firm-footing-settings'
const FIRST: Kept = {
  mode: 'sun',
  sides: 'lead_trail',
  distance: 'yd',
  keys: true,
  faceSeen: 'front',
  feelFirst: false,
  by: '',
  place: '',
  school: {
    pressure: 'recentre',
    heel_toe: 'undecided',
    lead_foot: 'undecided',
    start: 'ground_up',
    heel_or_knee: 'undecided',
    trail_hip: 'undecided',
    head: 'undecided',
  },
}

function kept(): Kept {
  try {
    const found = JSON.parse(localStorage.getItem(KEPT) ?? '{}') as Partial<Kept>
    return { ...FIRST, ...found, school: { ...FIRST.school, ...found.school } }
  } catch {
    return FIRST
  }
}

export const useSettings = defineStore('settings', () => {
  const start = kept()
  const mode = ref(start.mode)
  const sides = ref(start.sides)
  const distance = ref(start.distance)
  const keys = ref(start.keys)
  const faceSeen = ref(start.faceSeen)
  const feelFirst = ref(start.feelFirst)
  const school = ref(start.school)
  const by = ref(start.by)
  const place = ref(start.place)
  const all = { mode, sides, distance, keys, faceSeen, feelFirst, school, by, place }
  watch(Object.values(all), () => {
    const now: Kept = {
      mode: mode.value,
      sides: sides.value,
      distance: distance.value,
      keys: keys.value,
      faceSeen: faceSeen.value,
      feelFirst: feelFirst.value,
      school: school.value,
      by: by.value,
      place: place.value,
    }
    localStorage.setItem(KEPT, JSON.stringify(now))
  })
  return all
})
