// A film that was recorded here and is in no file yet: it is there again when its page is opened
// again, and the browser asks before the application is left with it.
import type { Marks } from '@/lesson/look/film/marking'

export interface UnsavedFilm {
  file: File
  view: Marks['view']
  /** Under which its marks are kept. */
  id: string
}

/** By lesson. */
const unsaved = new Map<string, UnsavedFilm>()

function askFirst(event: BeforeUnloadEvent): void {
  event.preventDefault()
}

export function unsavedFilm(lesson: string): UnsavedFilm | null {
  return unsaved.get(lesson) ?? null
}
export function holdUnsaved(lesson: string, film: UnsavedFilm): void {
  unsaved.set(lesson, film)
  window.addEventListener('beforeunload', askFirst)
}
/** It is saved, kept, or was put away on purpose. */
export function letGo(lesson: string): void {
  unsaved.delete(lesson)
  if (unsaved.size === 0) window.removeEventListener('beforeunload', askFirst)
}
