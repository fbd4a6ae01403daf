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
}

const KEPT = 'firm-footing-settings'
const FIRST: Kept = {
  mode: 'sun',
  sides: 'lead_trail',
  distance: 'yd',
  keys: true,
  faceSeen: 'front',
  feelFirst: false,
  school: {
    pressure: 'recentre',
    heel_toe: 'undecided',
    lead_foot: 'undecided',
    start: 'ground_up',
  },
}

function kept(): Kept {
  try {
    return { ...FIRST, ...(JSON.parse(localStorage.getItem(KEPT) ?? '{}') as Partial<Kept>) }
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
  const all = { mode, sides, distance, keys, faceSeen, feelFirst, school }
  watch(Object.values(all), () => {
    const now: Kept = {
      mode: mode.value,
      sides: sides.value,
      distance: distance.value,
      keys: keys.value,
      faceSeen: faceSeen.value,
      feelFirst: feelFirst.value,
      school: school.value,
    }
    localStorage.setItem(KEPT, JSON.stringify(now))
  })
  return all
})
