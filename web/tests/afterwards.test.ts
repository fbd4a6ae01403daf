// After the lesson: who is due, a student along time, the map, and the clock.
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, ref } from 'vue'
import type { Lesson } from '@/api/client'
import DueList from '@/day/DueList.vue'
import ProgressTable from '@/day/ProgressTable.vue'
import LessonClock from '@/lesson/LessonClock.vue'
import { useClock } from '@/lesson/useClock'
import MapPage from '@/map/MapPage.vue'
import { furnish, serve, settle, show, student } from './mounting'
import { known, filled, acts } from './wholeLesson'

beforeEach(furnish)
afterEach(() => {
  document.body.innerHTML = ''
})

describe('afterwards', () => {
  const serveAll = (more: object = {}) =>
    serve({ 'GET /api/knowledge': { body: known }, ...more } as never)
  it('the day shows who is due', async () => {
    const due = [
      {
        lesson_id: 'L',
        student_id: 'S',
        student_name: 'Perrin',
        cause: null,
        due_on: '2026-12-01',
        late: true,
      },
    ]
    serveAll()
    const { page } = await show(DueList, { due })
    await settle()
    expect(page.text()).toContain('Perrin')
    expect(page.text()).toContain('since 1 Dec')
  })
  it('a student is seen along time', async () => {
    const spread = (value: number) => ({ value, se: 1 })
    const movedOf = (name: string, by: number, sure: boolean) => ({
      name,
      then: spread(0),
      now: spread(by),
      difference: spread(by),
      sure,
    })
    const step = (id: string, start: number) => ({
      lesson_id: id,
      started_at: '2026-11-01T10:00:00Z',
      clubs: ['7i'],
      values: { start_deg: start, heel_toe_mm: -9 },
      moved: start === -1 ? [movedOf('start_deg', 4, true), movedOf('heel_toe_mm', 1, false)] : [],
      strips: { heel_toe_mm: { value: start, se: 1.5, balls: [start - 4, start + 4] } },
      signs: ['late'],
      cause: 'heel',
      verdict: 'partly',
      drill: null,
      passes: 0,
    })
    serveAll({
      'GET /api/students/S/progress': {
        body: {
          steps: [step('a', -5), step('b', -1), step('c', 0)],
          overall: [movedOf('start_deg', 5, true)],
        },
      },
    })
    const { page } = await show(ProgressTable, { student, knowledge: known })
    await settle()
    expect(page.text()).toContain('5° left')
    expect(page.text()).toContain('1° left')
    const bold = page.findAll('.moved').map((m) => m.text())
    expect(bold.filter((word) => word !== '')).toEqual(['4° further right', '5° further right'])
    expect(page.text()).toContain('partly')
    await vi.waitFor(() => {
      expect(page.find('[data-testid=strips] svg').exists()).toBe(true)
    })
    const strip = page.get('[data-testid=strips] svg')
    expect(page.findAll('[data-testid=strips] svg')).toHaveLength(1) // what nobody measured is not drawn
    expect(strip.attributes('aria-label')).toContain('Strike along time: 1 Nov -5 mm')
    const dots = strip.findAll('circle').map((c) => c.attributes('r'))
    expect(dots.filter((r) => r === '3')).toHaveLength(6) // two balls a lesson
    expect(dots.filter((r) => r === '6')).toHaveLength(3)
  })
  const map = async () => {
    const made = [
      { miss: 'fat', causes: { late: 1, heel: 0.25 } },
      { miss: 'heel', causes: { heel: 1 } },
    ]
    serveAll({ 'GET /api/map': { body: made } })
    const { page } = await show(MapPage, { knowledge: known })
    await settle()
    return page
  }
  it('the map finds a cause and tells all of it', async () => {
    const page = await map()
    await page.get('input').setValue('late')
    expect(page.findAll('.list details')).toHaveLength(1)
    expect(page.findAll('.box.dim')).toHaveLength(1) // the other cause
    expect(page.text()).toContain('Can come from: Heel leaves early.')
    expect(page.text()).toContain('weak grip (weak)')
    expect(page.text()).toContain('Heels counts it 0.1 times as often. Back.')
    expect(page.findAll('.chain li').map((l) => l.text())).toEqual(['1 late shift', '2 slower'])
    await page.get('input').setValue('nothing like it')
    expect(page.text()).toContain('No cause is called that.')
  })
  it('on the map a cause lights what it comes from and brings about, by touch and by key', async () => {
    const page = await map()
    const cause = page.get('[data-cause=late]')
    await cause.trigger('keydown', { key: 'Enter' })
    expect(cause.attributes('aria-pressed')).toBe('true')
    expect(page.findAll('.link.lit')).toHaveLength(1) // heel -> late
    expect(page.get('.about').text()).toContain('Can come from: Heel leaves early.')
    expect(page.findAll('.makes')).toHaveLength(1) // to the fat ball
    await cause.trigger('click')
    expect(page.findAll('.link.lit')).toHaveLength(0)
  })
  it('on the map a miss lights what makes it, thicker where it makes more', async () => {
    const page = await map()
    await page.get('[data-miss=fat]').trigger('click')
    const widths = page.findAll('.makes').map((p) => Number(p.attributes('stroke-width')))
    expect(widths).toHaveLength(2)
    expect(Math.max(...widths)).toBeGreaterThan(2 * Math.min(...widths))
    expect(page.findAll('.makers button').map((b) => b.text())).toEqual([
      'Late shift',
      'Heel leaves early',
    ])
    await page.findAll('.makers button')[1]?.trigger('click')
    expect(page.get('[data-cause=heel]').attributes('aria-pressed')).toBe('true')
    expect(page.get('[data-miss=fat]').attributes('aria-pressed')).toBe('false')
  })
})

describe('the clock', () => {
  it.each([
    [{ look: 600 }, 'begin it by'],
    [{ look: 2300 }, 'it is time to begin it.'],
  ])('with %o used it says when the retest begins', async (used_s, words) => {
    const clock = { used_s, planned_min: { look: 8 }, minutes: 45, keep_for_retest: 8 }
    const open = acts()
    const { page } = await show(LessonClock, { open, lesson: filled(), clock })
    await page.get('[data-testid="clock"]').trigger('click')
    await settle()
    const table = document.querySelector('[aria-label="Time of the lesson"]')
    expect(table?.textContent).toContain(words)
    const hour = [...(table?.querySelectorAll('button') ?? [])].find((b) => b.textContent === '60')
    hour?.click()
    expect(open.changeLesson.mock.calls[0]?.[0].listen.minutes).toBe(60)
  })
  it('counts for the stage that was open', async () => {
    vi.useFakeTimers()
    const clock = { used_s: { look: 12 }, planned_min: {}, minutes: 45, keep_for_retest: 8 }
    const asked = serve({
      'GET /api/lessons/L/clock': { body: clock },
      'POST /api/lessons/L/clock': { body: clock },
    })
    const stage = ref<'look' | 'drill'>('look')
    const scope = effectScope()
    const open = ref<Lesson | null>(filled({ revision: '1' }))
    const found = scope.run(() => useClock('L', stage, open))
    await vi.advanceTimersByTimeAsync(4000)
    stage.value = 'drill'
    await vi.advanceTimersByTimeAsync(100)
    expect(asked.find((a) => a.call.startsWith('POST'))?.sent).toEqual({
      stage: 'look',
      seconds: 4,
      now_in: 'drill',
    })
    await vi.advanceTimersByTimeAsync(15_000)
    const last = asked.at(-1)?.sent as { stage: string; seconds: number }
    expect(last.stage).toBe('drill')
    expect(last.seconds).toBeGreaterThan(9)
    expect(found?.value?.used_s).toEqual({ look: 12 })
    // another ball is no reason to ask again; another length is
    const asks = () => asked.filter((a) => a.call.startsWith('GET')).length
    expect(asks()).toBe(1)
    open.value = filled({ revision: '2' })
    await vi.advanceTimersByTimeAsync(100)
    expect(asks()).toBe(1)
    open.value = { ...filled({ revision: '3' }), listen: { ...filled().listen, minutes: 60 } }
    await vi.advanceTimersByTimeAsync(100)
    expect(asks()).toBe(2)
    scope.stop()
    vi.useRealTimers()
  })
})
