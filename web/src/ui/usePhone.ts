// Is the page as narrow as a phone's? There one thing is shown at a time.
import { computed, type ComputedRef } from 'vue'
import { useDisplay } from 'vuetify'

const PHONE_PX = 600

export function usePhone(): ComputedRef<boolean> {
  const { width } = useDisplay()
  return computed(() => width.value <= PHONE_PX)
}
