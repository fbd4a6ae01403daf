// The retest: where it stands, balls over balls, trace over trace, and the transfer.
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import type { Shape } from '@/api/client'
import RetestStage from '@/lesson/retest/RetestStage.vue'
import { measureWord, retestWord } from '@/lesson/retest/measureWords'
import { block, furnish, serve, settle, shot, show, listOf } from './mounting'
import { known, filled, acts, diagnosis } from './wholeLesson'

beforeEach(furnish)
afterEach(() => {
  document.body.innerHTML = ''
})

const measure = (more: object = {}): Shape['ComparedOut'] => ({
  name: 'start_deg',
  before: [-5, -4, -6],
  after: [0, 1, -1],
  change: { before: -5, after: 0, by: 5, se: 0.8, surprise: 0.001 },
  predicted: -1,
  sure: true,
  ...more,
})
const retest = (more: object = {}): Shape['RetestOut'] => ({
  club: '7i',
  measures: [measure(), measure({ name: 'heel_toe_mm', sure: false, predicted: 0 })],
  primary: 'start_deg',
  fixed: false,
  verdict: { state: 'real', real_at: 3, more: null },
  level: 0.1,
  partial: ['start_deg'],
  still: ['heel_toe_mm'],
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
  it.each([
    [{ state: 'real', real_at: 3, more: null }, 'Real already: start from 5° left to straight.'],
    [{ state: 'too_few', real_at: null, more: 2 }, 'Too few yet: 2 more balls.'],
    [{ state: 'not_yet', real_at: null, more: 1 }, 'Not yet: 1 more ball like these would tell.'],
    [
      { state: 'not_yet', real_at: null, more: null },
      'Not yet, and a few more balls would hardly tell: start.',
    ],
  ])('%o', (verdict, says) => {
    expect(retestWord(retest({ verdict }), measure(), 'right', 'yd')).toBe(says)
  })
  it('is ready before its first ball, and says values as an onlooker would', () => {
    expect(retestWord(retest(), measure({ after: [] }), 'right', 'yd')).toBe(
      'Ready: start will decide.',
    )
    expect(measureWord('start_deg', -5, 'left', 'yd')).toBe('5° right')
    expect(measureWord('carry_m', 100, 'right', 'yd')).toBe('109 yd')
    expect(measureWord('low_point_cm', -3, 'right', 'yd')).toBe('−3 cm')
  })
  it('fixes its measure and begins a block; partial success is named', async () => {
    serve({ 'GET /api/lessons/L/retest': { body: retest() } })
    const open = acts()
    const { page, went } = await show(RetestStage, {
      open,
      lesson: filled(),
      diagnosis,
      knowledge: known,
    })
    await settle()
    expect(page.text()).toContain('Start moved; strike not yet.')
    expect(page.text()).toContain('at most 10 of 100 retests')
    await page.get('[data-testid="begin-retest"]').trigger('click')
    await settle()
    expect(open.changeLesson).toHaveBeenCalledWith({ primary: 'start_deg' })
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
