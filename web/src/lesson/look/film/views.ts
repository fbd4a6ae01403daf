// Where the camera stood, in words.
import type { Marks } from '@/lesson/look/film/marking'

export const VIEWS: readonly { id: Marks['view']; word: string }[] = [
  { id: 'down_the_line', word: 'Down the line' },
  { id: 'face_on', word: 'Face on' },
]

/** Within a sentence. */
export function viewWord(view: Marks['view']): string {
  return VIEWS.find((v) => v.id === view)?.word.toLowerCase() ?? view
}
