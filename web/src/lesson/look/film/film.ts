// A film of this device as the browser plays it, and what can be wrong with one.

import type { Listing } from '@/lesson/look/film/listing'

export interface OpenFilm {
  name: string
  url: string
  width: number
  height: number
  /** Pictures a second as the file plays them. */
  plays: number
  frames: number
  /** When each picture is shown and how it is packed; null: unknown, and one comes every `1 / plays`. */
  listing: Listing | null
  /** Its pictures come at uneven times that nobody listed: a step may show the same one twice. */
  uneven: boolean
  /** The file itself, for keeping it. */
  file: File
}

/** Why a film cannot be used, in a sentence for the instructor. */
export class FilmProblem extends Error {}

/** What to say of an error, whatever it is. */
export function sentenceOf(error: unknown, otherwise: string): string {
  return error instanceof FilmProblem ? error.message : otherwise
}
