// The events as the film's own movement proposes them.
import { ref, type Ref, type ShallowRef } from 'vue'
import { ask, ApiError, client } from '@/api/client'
import { sentenceOf, type OpenFilm } from '@/lesson/look/film/film'
import { sureOf, withFoundAround, withProposed, type Marks } from '@/lesson/look/film/marking'
import { motionOf, type Motion } from '@/lesson/look/film/motion'

export function useFinder(
  film: ShallowRef<OpenFilm | null>,
  marks: ShallowRef<Marks | null>,
  problem: Ref<string>,
  keep: (next: Marks) => void,
) {
  /** How much of the film is looked through; null: nothing is sought. */
  const finding = ref<number | null>(null)
  /** How sure the finder is of what it found, in a sentence. */
  const sure = ref('')
  /** What moves in a film: looked through once. */
  let moved: { film: OpenFilm; motion: Motion } | null = null

  async function motionIn(sought: OpenFilm): Promise<Motion> {
    if (moved?.film === sought) return moved.motion
    const motion = await motionOf(sought, (part) => {
      if (film.value !== sought) return false
      finding.value = part
      return true
    })
    moved = { film: sought, motion }
    return motion
  }
  /**
   * What is marked already stays. `around`: a picture near impact, where two moves could be the
   * swing; then the events are those found around it.
   */
  async function find(around: number | null = null): Promise<void> {
    if (!film.value || !marks.value) return
    problem.value = ''
    finding.value = 0
    const sought = film.value
    /** Another film, or none, may be open when the events are there: they are not its own. */
    const isStillOpen = () => film.value === sought
    try {
      const motion = await motionIn(sought)
      if (!isStillOpen()) return
      const body = { ...motion, fps: marks.value.fps, around }
      const found = await ask(client.POST('/api/films/events', { body }))
      if (!isStillOpen()) return
      keep((around === null ? withProposed : withFoundAround)(marks.value, found))
      sure.value = sureOf(found)
    } catch (error) {
      if (!isStillOpen()) return
      problem.value =
        error instanceof ApiError
          ? `${error.message} ${error.hint}`
          : sentenceOf(error, 'The film could not be looked through. Mark the events by hand.')
    } finally {
      if (isStillOpen()) finding.value = null
    }
  }
  function forget(): void {
    finding.value = null
    sure.value = ''
  }
  return { finding, sure, find, forget }
}
