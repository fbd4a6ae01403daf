// The retest: where it stands, balls over balls, trace over trace, and the transfer.
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import type { Shape } from '@/api/client'
import RetestStage from '@/lesson/retest/RetestStage.vue'
import { measureWord } from '@/lesson/retest/measureWords'
import { block, furnish, serve, settle, shot, show, listOf } from './mounting'
import { known, filled, acts, diagnosis } from './wholeLesson'

beforeEach(furnish)
afterEach(() => {
  document.body.innerHTML = ''
})

const measure = (more: object = {}): Shape['ComparedOut'] => ({
  name: 'start_deg',
  word: 'start',
  share: false,
  before: [-5, -4, -6],
  after: [0, 1, -1],
  first: [],
  change: { before: -5, after: 0, by: 5, se: 0.8, p_value: 0.001, direction: 'better' },
  predicted: -1,
  sure: true,
  about: false,
  shown_before: null,
  shown_after: null,
  ...more,
})
const fat = (more: object = {}): Shape['ComparedOut'] =>
  measure({
    name: 'ground_first',
    word: 'ground first',
    share: true,
    before: [1, 1, 0, 1, 1],
    after: [0, 0, 0, 0, 0],
    change: { before: 0.8, after: 0, by: -0.8, se: 0.2, p_value: 0.05, direction: 'better' },
    predicted: 0.4,
    ...more,
  })
const retest = (more: object = {}): Shape['RetestOut'] => ({
  club: '7i',
  measures: [
    measure(),
    measure({ name: 'heel_toe_mm', word: 'strike', sure: false, predicted: 0 }),
    fat(),
    fat({ name: 'curved', word: 'curved too far', before: [0, 0], after: [0] }),
  ],
  primary: 'ground_first',
  fixed: false,
  result: { state: 'real', real_at: 3, more: null },
  headline: 'Better, and more than chance: met the ground first: 4 of 5 before, 0 of 5 now.',
  more: ['Not sure yet: strike.'],
  since_first: '',
  chosen_late: '',
  level: 0.1,
  power: 0.62,
  balls: 10,
  traces: null,
  setup_only: false,
  ...more,
})
const laid = (share: number, sd: number[] = []): Shape['LaidOut'] => ({
  t_s: [-1, -0.5, 0, 0.3],
  lead_pct: [50, 20, share, 90],
  sd_pct: sd,
  swings: sd.length ? 3 : 1,
})
const traces: Shape['TracesComparedOut'] = {
  before: laid(50, [1, 2, 3, 1]),
  after: laid(80),
  events: { address: -1, top: -0.3, impact: 0, finish: 0.4 },
  shares: [{ event: 'impact', before: 50, after: 80, sure: true }],
  gone: ['late'],
  still: [],
  new: [],
}

describe('the retest', () => {
  it('says values as an onlooker would', () => {
    expect(measureWord('start_deg', -5, 'left', 'yd')).toBe('5° right')
    expect(measureWord('carry_m', 100, 'right', 'yd')).toBe('109 yd')
    expect(measureWord('low_point_cm', -3, 'right', 'yd')).toBe('−3 cm')
    expect(measureWord('heel_toe_mm', -2, 'right', 'yd')).toBe('2 mm to the heel')
    expect(measureWord('heel_toe_mm', 0.9, 'right', 'yd')).toBe('in the middle')
  })
  it('offers the shares that ever counted, says what came, and what a retest can show', async () => {
    serve({ 'GET /api/lessons/L/retest': { body: retest() } })
    const { page } = await show(RetestStage, {
      open: acts(),
      lesson: filled({ blocks: [] }),
      diagnosis,
      knowledge: known,
    })
    await settle()
    expect(listOf(page, 'Decided by').words).toEqual(['Start', 'Strike', 'Ground first'])
    const counted = page.get('[data-testid="measure-ground_first"]')
    expect(counted.text()).toContain('before 4 of 5')
    expect(counted.text()).toContain('after 0 of 5')
    expect(counted.text()).toContain('predicted about 2 of 5')
    expect(counted.findAll('.counts')).toHaveLength(4)
    expect(page.find('[data-testid="measure-curved"]').exists()).toBe(false)
    expect(page.text()).toContain('called better by it in 6 of 10 retests of 10 balls')
  })
  it('may be decided by another measure after the first ball, and says so', async () => {
    const late = 'Decided by start since after the first ball; ground first was fixed before it.'
    const since = 'Since the first lesson nothing has changed by more than chance.'
    const body = retest({ chosen_late: late, since_first: since })
    serve({ 'GET /api/lessons/L/retest': { body } })
    const open = acts()
    const seen = { contact: 'clean' }
    const blocks = [block([shot('a', seen)]), block([shot('c', seen)], { id: 'R', kind: 'retest' })]
    const { page } = await show(RetestStage, {
      open,
      lesson: filled({ blocks }),
      diagnosis,
      knowledge: known,
    })
    await settle()
    expect(page.get('[data-testid="chosen-late"]').text()).toContain(late)
    expect(page.get('[data-testid="since-first"]').text()).toBe(since)
    await listOf(page, 'Decided by').choose('heel_toe_mm')
    expect(open.changeLesson).toHaveBeenCalledWith({ primary: 'heel_toe_mm' })
  })
  it('fixes its measure and begins a block; what is open is named', async () => {
    serve({ 'GET /api/lessons/L/retest': { body: retest() } })
    const open = acts()
    const { page, went } = await show(RetestStage, {
      open,
      lesson: filled(),
      diagnosis,
      knowledge: known,
    })
    await settle()
    expect(page.get('[data-testid="verdict"]').text()).toContain('4 of 5 before, 0 of 5 now.')
    expect(page.get('[data-testid="more-said"]').text()).toBe('Not sure yet: strike.')
    expect(page.text()).toContain('at most 10 of 100 retests')
    await page.get('[data-testid="begin-retest"]').trigger('click')
    await settle()
    expect(open.changeLesson).toHaveBeenCalledWith({ primary: 'ground_first' })
    expect(open.putBlock.mock.calls[0]?.[1]).toMatchObject({ kind: 'retest', club: '7i' })
    expect(went()).toContain('/shots')
  })
  it('keeps the measure that was chosen when it is begun before the answer', async () => {
    serve({ 'GET /api/lessons/L/retest': { body: retest() } })
    const open = acts()
    const props = { open, lesson: filled(), diagnosis, knowledge: known }
    const { page } = await show(RetestStage, props)
    await settle()
    await listOf(page, 'Decided by').choose('heel_toe_mm')
    await page.get('[data-testid="begin-retest"]').trigger('click')
    expect(open.changeLesson.mock.calls).toEqual([[{ primary: 'heel_toe_mm' }]])
  })
  it('lays balls over balls, traces over traces, and the predicted pattern over both', async () => {
    serve({ 'GET /api/lessons/L/retest': { body: retest({ traces }) } })
    const seen = { start: 'pull', curve: 'straight', carry_m: 120 }
    const blocks = [
      block([shot('a', seen), shot('b', seen)]),
      block([shot('c', seen)], { id: 'R', kind: 'retest' }),
      block([shot('d', seen)], { id: 'T', kind: 'retest', own_targets: true }),
    ]
    const { page } = await show(RetestStage, {
      open: acts(),
      lesson: filled({ blocks }),
      diagnosis,
      knowledge: known,
    })
    await settle()
    const flights = page.get('[data-testid="flights-compared"]')
    expect(flights.attributes('aria-label')).toBe('2 balls before, 1 after')
    expect(flights.findAll('.after circle')).toHaveLength(1)
    expect(page.get('[data-testid="measure-start_deg"]').text()).toContain('by +5 ± 1°')
    expect(flights.find('[data-testid="predicted-flight"]').exists()).toBe(true)
    expect(page.get('[data-testid="trace-signs"]').text()).toBe('Gone: late.')
    expect(page.text()).toContain('50 → 80 %')
    const lines = page.get('[data-testid="traces-laid"]')
    expect(lines.findAll('.line').every((l) => l.attributes('d')?.startsWith('M'))).toBe(true)
    expect(lines.get('.after .spread').attributes('d')).toBe('')
    expect(page.get('[data-testid="transfer"]').text()).toContain('own targets: 1 ball.')
  })
  it('a target for every ball is a block of its own; near an event there is no transfer', async () => {
    serve({ 'GET /api/lessons/L/retest': { body: retest() } })
    const open = acts()
    const props = { open, lesson: filled(), diagnosis, knowledge: known }
    const { page } = await show(RetestStage, props)
    await settle()
    await page.get('[data-testid="own-targets"]').trigger('click')
    expect(open.putBlock.mock.calls[0]?.[1]).toMatchObject({ club: '7i', own_targets: true })
    serve({ 'GET /api/lessons/L/retest': { body: retest({ setup_only: true }) } })
    const { page: soon } = await show(RetestStage, props)
    await settle()
    expect(soon.get('[data-testid="transfer"]').text()).toContain('No second club today.')
    expect(soon.find('[data-testid="own-targets"]').exists()).toBe(false)
  })
  it('says when there is no baseline', async () => {
    serve({ 'GET /api/lessons/L/retest': { body: null } })
    const { page } = await show(RetestStage, {
      open: acts(),
      lesson: filled(),
      diagnosis,
      knowledge: known,
    })
    await settle()
    expect(page.text()).toContain('No baseline yet.')
  })
})
