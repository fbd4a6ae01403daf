// Words as this student has them: feet by the hand played and by what was chosen in the settings.
import { computed, type ComputedRef } from 'vue'
import type { Handedness } from '@/api/client'
import { useSettings } from '@/ui/settings'
import { say, type Speaker } from '@/ui/words'

export function useSpeaker(hand: () => Handedness): {
  speaker: ComputedRef<Speaker>
  words: (text: string) => string
} {
  const settings = useSettings()
  const speaker = computed(() => ({ hand: hand(), sides: settings.sides }))
  return { speaker, words: (text) => say(text, speaker.value) }
}
