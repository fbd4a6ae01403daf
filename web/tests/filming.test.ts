// A film is put away while something of it is still on its way, or before it is in any file.
import { effectScope, ref, type EffectScope } from 'vue'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { dayAfter } from '@/lesson/look/film/keptFilms'
import { unsavedFilm } from '@/lesson/look/film/unsavedFilm'
import { useFilm } from '@/lesson/look/film/useFilm'
import type { OpenLesson } from '@/lesson/useLesson'

const sought = vi.hoisted(() => ({ end: null as null | (() => void) }))
vi.mock('@/api/knowledge', () => ({
  useKnowledge: () => ({ all: { film: { measures: [], points: [] } } }),
}))
vi.mock('@/lesson/useLast', () => ({ useLast: () => ref(null) }))
vi.mock('@/lesson/useLessonQuery', () => ({ useLessonQuery: () => ({ found: ref([]) }) }))
vi.mock('@/lesson/look/film/openFilm', () => ({
  openFilm: (file: File) =>
    Promise.resolve({ name: file.name, url: 'blob:', width: 720, height: 1280, plays: 120 }),
}))
vi.mock('@/lesson/look/film/motion', () => ({
  motionOf: () =>
    new Promise((done) => {
      sought.end = () => {
        done({ frames: [], moved: [] })
      }
    }),
}))
vi.mock('@/api/client', async (whole) => ({
  ...(await whole<object>()),
  client: { POST: () => null },
  ask: () => Promise.resolve({ events: { address: 3, top: 40, impact: 60 }, doubt: {} }),
}))

const put: { id: string; name: string }[] = []
const open = {
  id: 'lesson',
  saving: ref({ state: 'saved', waiting: 0 }),
  putFilm: (id: string, body: { name: string }) => put.push({ id, name: body.name }),
} as unknown as OpenLesson
const file = (name: string) => new File(['x'], name)

let stage: EffectScope
const openStage = () => {
  stage = effectScope()
  const ruler = stage.run(() => useFilm(open, ref('block')))
  if (!ruler) throw new Error('no stage')
  return ruler
}
beforeEach(() => {
  put.length = 0
  vi.spyOn(URL, 'revokeObjectURL').mockImplementation(() => undefined)
})
afterEach(() => {
  stage.stop()
  vi.restoreAllMocks()
})

describe('a film put away while its events are sought', () => {
  it.each(['another is open', 'none is open', 'its page is left'])(
    'saves none: %s',
    async (then) => {
      const ruler = openStage()
      await ruler.take(file('first.mp4'), 'down_the_line')
      const finding = ruler.find()
      expect(ruler.finding.value).toBe(0)
      if (then === 'its page is left') stage.stop()
      else ruler.putAway()
      if (then === 'another is open') await ruler.take(file('next.mp4'), 'face_on')
      sought.end?.()
      await finding
      expect(put).toEqual([])
      expect(ruler.marks.value?.events).toEqual({})
      expect(ruler.finding.value).toBeNull()
    },
  )
  it('has them where it is still open', async () => {
    const ruler = openStage()
    await ruler.take(file('first.mp4'), 'down_the_line')
    const finding = ruler.find()
    sought.end?.()
    await finding
    expect(put).toEqual([{ id: ruler.id.value, name: 'first.mp4' }])
  })
})

describe('a film recorded here and kept nowhere', () => {
  const leave = () => !window.dispatchEvent(new Event('beforeunload', { cancelable: true }))

  it('is there again, with its marks, after another stage; leaving is asked about', async () => {
    const ruler = openStage()
    await ruler.take(file('now.webm'), 'face_on', true)
    const id = ruler.id.value
    stage.stop()
    expect(leave()).toBe(true)
    const again = openStage()
    await vi.waitFor(() => {
      expect(again.film.value?.name).toBe('now.webm')
    })
    expect(again.id.value).toBe(id)
    expect(again.onlyHere.value).toBe(true)
    again.putAway()
    expect(unsavedFilm('lesson')).toBeNull()
    expect(leave()).toBe(false)
  })
  it('is let go once it is in a file', async () => {
    const ruler = openStage()
    await ruler.take(file('now.webm'), 'face_on', true)
    ruler.isSafe()
    stage.stop()
    expect(openStage().film.value).toBeNull()
    expect(leave()).toBe(false)
  })
})

describe('the day until which a film is kept', () => {
  it('is the day here, however far east this is', () => {
    vi.stubEnv('TZ', 'Pacific/Auckland')
    const summer = new Date(2026, 0, 15, 9)
    expect(summer.toISOString().slice(0, 10)).toBe('2026-01-14')
    expect(dayAfter(0, summer)).toBe('2026-01-15')
    expect(dayAfter(14, summer)).toBe('2026-01-29')
    vi.unstubAllEnvs()
  })
})
