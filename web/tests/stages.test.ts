// Pressure as a stage, looks before and after, the stance, and where keys may log a ball.
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { createPinia, setActivePinia } from 'pinia'
import type { Knowledge } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import LookStage from '@/lesson/look/LookStage.vue'
import StanceCard from '@/lesson/look/StanceCard.vue'
import PressureStage from '@/lesson/pressure/PressureStage.vue'
import LessonHeader from '@/lesson/LessonHeader.vue'
import SendStage from '@/lesson/send/SendStage.vue'
import { BESIDE_THE_DECISION, STAGES, stageOf } from '@/lesson/stages'
import { timeWord } from '@/ui/dates'
import SomeOf from '@/ui/SomeOf.vue'
import {
  block,
  furnish,
  knowledge,
  lesson,
  problem,
  serve,
  settle,
  shot,
  show,
  listOf,
} from './mounting'

beforeEach(() => {
  furnish()
  document.body.innerHTML = ''
})

const known = {
  ...knowledge,
  signs: [{ id: 'retreat', name: 'Retreat', answers: { heel_up: 'yes' } }],
  felt: [
    {
      id: 'back',
      question: 'Going back, where was it?',
      options: [
        { say: 'toes', answers: { heel_up: 'no' } },
        { say: 'heel', answers: { heel_up: 'yes' } },
      ],
    },
    { id: 'none', question: 'No sign of it?', options: [{ say: 'a', answers: { other: 'yes' } }] },
  ],
  feel_tests: [
    {
      id: 'pads',
      name: 'Pads',
      equipment: [],
      how: ['Stand.'],
      limits: [],
      asks: [{ check: 'heel_up', question: 'was it up?' }],
    },
  ],
  figures: [{ check: 'heel_up', view: 'hand', sound: { knuckles: 2 }, unsound: { knuckles: 0 } }],
} as unknown as Knowledge
const standing = {
  kind: 'open',
  headline: 'Open between two.',
  detail: '',
  leading: [],
  balls_missing: 0,
  answers_missing: 0,
  flip: null,
}
const diagnosis = (more: object = {}) => ({
  ranking: {
    start_with: 'heel',
    next_checks: [{ id: 'heel_up' }],
    causes: [],
    pattern: { balls: 0 },
  },
  decision_status: standing,
  spreads: {},
  trial_results: [],
  ...more,
})
const acts = () => ({
  putAnswer: vi.fn(),
  correctMeans: vi.fn(),
  sourceOf: () => 'film',
  deleteAnswer: vi.fn(),
  putBlock: vi.fn(),
  changeTrace: vi.fn(),
  deleteTrace: vi.fn(),
  putTrace: vi.fn(),
  changeLesson: vi.fn(),
})

const MOMENTS = {
  address: -1,
  shaft_level_back: -0.6,
  lead_arm_level_back: -0.45,
  top: -0.25,
  lead_arm_level_down: -0.1,
  shaft_level_down: -0.05,
  impact: 0,
  finish: 0.4,
}
const t_s = Array.from({ length: 200 }, (_, i) => -1.5 + i / 100)
const trace = (id: string, more: object = {}) => ({
  id,
  block_id: null,
  name: id,
  counts: true,
  recorded_at: '2026-11-26T10:00:00Z',
  swapped: false,
  typed: false,
  named: ['top'],
  problem: null,
  read: {
    curve: {
      t_s,
      lead_pct: t_s.map(() => 50),
      lead_toe_pct: null,
      trail_toe_pct: null,
      vertical_pct_bw: null,
    },
    rate_hz: 100,
    events: Object.fromEntries(
      Object.entries(MOMENTS).map(([n, t]) => [n, { t_s: t, how: 'estimated', sd_s: 0.02 }]),
    ),
    corridor: {},
    corridor_of: 'undecided',
    corridor_drill: null,
    measures: {
      lead_pct: { impact: 50 },
      deviation_pct: {},
      press_before_start_pct: null,
      trail_peak: { t_s: 0, value: 20 },
      shift_start_s: -0.3,
      shift_from_top_s: 0.1,
      recentred_pct: 0,
      lead_peak: { t_s: 0, value: 80 },
      retreat_pct: 0,
      toes: [],
      heel_up_s: {},
      peaks: [],
      path_ratio: null,
      loop: null,
      style: 'front_foot',
    },
    signs: [],
    answers: [],
    a_style: false,
    remarks: [],
    maybe_swapped: false,
  },
  ...more,
})

describe('the pressure stage', () => {
  const open = async (traces: object[], together: object | null = null) => {
    serve({ 'GET /api/lessons/L/traces': { body: { traces, together } } })
    const does = acts()
    const { page } = await show(PressureStage, {
      open: does,
      lesson: lesson(),
      diagnosis: diagnosis(),
      knowledge: known,
    })
    await settle()
    return { page, does }
  }
  it('says what to do where there is no trace', async () => {
    const { page } = await open([])
    expect(page.text()).toContain('No pressure trace yet.')
  })
  it('names an event that is moved together with those named before', async () => {
    const { page, does } = await open([trace('a')])
    await page.get('[data-testid="event-impact"]').trigger('keydown', { key: 'ArrowLeft' })
    expect(does.changeTrace).toHaveBeenCalledWith('a', { events: { top: -0.25, impact: -0.005 } })
    await page
      .findAll('button')
      .find((b) => b.text() === 'Estimate the events')
      ?.trigger('click')
    expect(does.changeTrace).toHaveBeenLastCalledWith('a', { events: {} })
    await page
      .findAll('button')
      .find((b) => b.text() === 'Exchange the feet')
      ?.trigger('click')
    expect(does.changeTrace).toHaveBeenLastCalledWith('a', {
      swapped: true,
      was: { swapped: false },
    })
    await page
      .findAll('button')
      .find((b) => b.text() === 'Delete this trace')
      ?.trigger('click')
    expect(does.deleteTrace).toHaveBeenCalledWith('a')
  })
  it('lays the mean under, another swing, or nothing', async () => {
    const mean = { t_s: [-0.1, 0], mean_pct: [40, 50], sd_pct: [1, 1], odd: null }
    const { page } = await open([trace('a'), trace('b')], mean)
    const choice = listOf(page, 'Laid under')
    expect(choice.words).toEqual(['nothing', 'the mean and spread', 'a'])
    expect(choice.on).toBe('mean')
    await choice.choose('')
    expect(page.find('[data-testid="under"]').exists()).toBe(false)
    await choice.choose('a')
    expect(page.find('[data-testid="under"]').exists()).toBe(true)
  })
  it('says that a trace cannot be read, and keeps it', async () => {
    const { page } = await open([trace('a', { read: null, problem: 'Only 2 samples.' })])
    expect(page.get('[role="alert"]').text()).toContain(
      'Only 2 samples. It is kept as it was recorded.',
    )
  })
  it('covers every new trace until it is uncovered, and shows feel tests without a mat', async () => {
    const { page } = await open([trace('a'), trace('b')])
    await page.get('input[type="checkbox"]').setValue(true)
    expect(page.find('[data-testid="pressure-curve"]').exists()).toBe(false)
    await page.get('[data-testid="uncover"]').trigger('click')
    expect(page.find('[data-testid="pressure-curve"]').exists()).toBe(true)
    await page.findAll('.tape button')[0]?.trigger('click')
    expect(page.find('[data-testid="cover"]').exists()).toBe(true)
    await page
      .findAll('button')
      .find((b) => b.text() === 'No mat')
      ?.trigger('click')
    expect(page.get('[data-testid="feel-pads"]').text()).toContain('Was it up?')
  })
  it('says when nobody answers', async () => {
    serve({ 'GET /api/lessons/L/traces': { status: 500, body: problem('It failed.') } })
    const { page } = await show(PressureStage, {
      open: acts(),
      lesson: lesson(),
      diagnosis: diagnosis(),
      knowledge: known,
    })
    await settle()
    expect(page.get('[role="alert"]').text()).toContain('It failed.')
  })
})

describe('the looks', () => {
  const changed = [block([shot('a', {})]), block([], { id: 'R', kind: 'retest' })]
  const seen = [
    { id: '1', check_id: 'heel_up', source: 'film', answer: 'yes', block_id: null },
    { id: '2', check_id: 'heel_up', source: 'film', answer: 'no', block_id: 'R' },
  ]
  const open = async (blocks = changed, more: object = {}) => {
    setActivePinia(createPinia())
    serve({ 'GET /api/knowledge': { body: known } })
    const does = acts()
    const answered = lesson(blocks, { answers: seen } as never)
    const { page } = await show(LookStage, {
      open: does,
      lesson: answered,
      diagnosis: diagnosis(more),
      knowledge: known,
    })
    await useKnowledge().load()
    await settle()
    return { page, does }
  }
  it('has those that tell most on top, each look but once', async () => {
    const { page } = await open()
    expect(page.findAll('h2')[0]?.text()).toBe('Would tell most now')
    const asked = page.findAll('.question').map((q) => q.text())
    expect(asked.filter((q) => q === 'Is it so: trail heel up?')).toHaveLength(1)
    expect(asked[0]).toBe('Is it so: trail heel up?')
  })
  it('folds what was answered before, and draws a look sound and as it is if yes', async () => {
    const { page } = await open()
    expect(page.findAll('.figures svg')).toHaveLength(0)
    expect(page.get('.line').text()).toContain('Yes, on film')
    await page.get('[aria-label^="Change:"]').trigger('click')
    expect(page.findAll('.figures svg').map((s) => s.attributes('aria-label'))).toEqual([
      'Sound',
      'If yes',
    ])
  })
  it('keeps what is seen after a change apart from before', async () => {
    const { page, does } = await open()
    const row = () => page.findAll('.check').find((r) => r.text().includes('trail heel up'))
    expect(row()?.text()).toContain('after, on film: no')
    await page
      .findAll('button')
      .find((b) => b.text() === 'After')
      ?.trigger('click')
    expect(row()?.text()).toContain('No, on film')
    expect(row()?.text()).toContain('before, on film: yes')
    await row()?.get('[aria-label^="Change:"]').trigger('click')
    await row()?.findAll('.answers button')[1]?.trigger('click')
    expect(does.putAnswer).toHaveBeenCalledWith('heel_up', 'partly', 'film', 'R')
    await row()?.findAll('.answers button')[2]?.trigger('click')
    expect(does.deleteAnswer).toHaveBeenCalledWith('2')
  })
  it('was seen otherwise: the answer stays one, and a second look is said to be one', async () => {
    const { page, does } = await open([block()], {})
    await page.get('[aria-label^="Change:"]').trigger('click')
    await page.get('[aria-label^="on film: seen otherwise?"]').trigger('click')
    const list = () => listOf(page, 'Source for: Is it so: trail heel up?')
    await list().choose('look')
    expect(does.correctMeans).toHaveBeenCalledWith(expect.objectContaining({ id: '1' }), 'look')
    expect(does.putAnswer).not.toHaveBeenCalled()
  })
  it('asks nothing of before and after where nothing was changed', async () => {
    const { page } = await open([block()])
    expect(page.findAll('button').some((b) => b.text() === 'After')).toBe(false)
  })
  it('suggests to stop when another look would not change the drill', async () => {
    const { page } = await open(changed, { decision_status: { ...standing, kind: 'settled' } })
    expect(page.text()).toContain('Another look would hardly change the drill')
  })
})

describe('the stance', () => {
  it('keeps numbers with the baseline, and lets nonsense be', async () => {
    const open = acts()
    const kept = {
      lead_flare_deg: 20,
      trail_drop_cm: null,
      width_cm: null,
      ball_from_lead_heel_cm: null,
      hands_to_body_cm: null,
    }
    const { page } = await show(StanceCard, { open, lesson: lesson([block([], { stance: kept })]) })
    const [flare, , width] = page.findAll('input')
    expect((flare?.element as HTMLInputElement).value).toBe('20')
    await width?.setValue('42,5')
    expect(open.putBlock).toHaveBeenLastCalledWith('B', { stance: { ...kept, width_cm: 42.5 } })
    const calls = open.putBlock.mock.calls.length
    for (const nonsense of ['wide', '900', '-3']) await width?.setValue(nonsense)
    expect(open.putBlock.mock.calls).toHaveLength(calls)
    await flare?.setValue('')
    expect(open.putBlock).toHaveBeenLastCalledWith('B', {
      stance: { ...kept, lead_flare_deg: null },
    })
  })
  it('is measured again with a change, and both are said', async () => {
    const open = acts()
    const trial = { ...block([]), id: 'T', kind: 'trial' as const }
    const measured = [
      { check: 'feet', answer: 'yes', text: 'hands 19 cm from the thigh', after: false },
      { check: 'feet', answer: 'no', text: 'hands 11 cm from the thigh', after: true },
    ]
    const { page } = await show(StanceCard, {
      open,
      lesson: lesson([block([]), trial]),
      diagnosis: { measured },
    })
    expect(page.get('[data-testid="stance-change"]').text()).toBe(
      'Before: hands 19 cm from the thigh. After: hands 11 cm from the thigh, sound now.',
    )
    await page.get('[aria-label="Hands from the body, newest balls"]').setValue('12')
    expect(open.putBlock).toHaveBeenLastCalledWith('T', { stance: { hands_to_body_cm: 12 } })
  })
})

describe('the line of stages', () => {
  const saving = { value: { state: 'saved', waiting: 0 } }
  const header = async (clock: object | null, more: object = {}) => {
    const open = { shots: { value: [shot('a', {})] }, saving, undo: vi.fn(), redo: vi.fn() }
    const whole = {
      listen: { misses: ['fat'], minutes: 45 },
      repetitions: [1, 2],
      follow_up: null,
      ...more,
    }
    const { page } = await show(LessonHeader, {
      open,
      lesson: lesson([block()], whole as never),
      stage: 'look',
      knowledge,
      clock,
    })
    return page
  }
  it('has every stage in the order of the work, and says which hold something', async () => {
    const page = await header(null, { follow_up: { due_on: '2026-12-01' } })
    expect(page.findAll('nav a').map((a) => a.attributes('aria-label'))).toEqual([
      'Listen, begun',
      'Shots, begun',
      'Look',
      'Pressure',
      'Decide',
      'Drill, begun',
      'Retest',
      'Send, begun',
    ])
  })
  it.each([
    [{ shots: 600 }, (now: number) => `Retest by ${timeWord(new Date(now + 27 * 60_000))}`],
    [{ shots: 600, look: 1800 }, () => 'Time to retest'],
  ])('the clock says when the retest has to begin: %s', async (used_s, says) => {
    vi.useFakeTimers({ now: new Date(2026, 10, 26, 16, 8), toFake: ['Date'] })
    const page = await header({ used_s, planned_min: {}, minutes: 45, keep_for_retest: 8 })
    expect(page.get('[data-testid=clock]').text()).toBe(says(Date.now()))
    expect(page.get('nav').text()).not.toMatch(/\d/)
    vi.useRealTimers()
  })
  it('opens where the address says, else with the shots', () => {
    expect(STAGES.map((s) => stageOf(s.id))).toEqual(STAGES.map((s) => s.id))
    expect(stageOf('lunch')).toBe('shots')
    expect(stageOf(undefined)).toBe('shots')
    expect(BESIDE_THE_DECISION).not.toContain('send')
  })
})

describe('before anything is decided', () => {
  it('there is no sheet to send', async () => {
    serve({})
    const { page } = await show(SendStage, {
      open: acts(),
      lesson: lesson(),
      diagnosis: diagnosis(),
      knowledge: known,
    })
    expect(page.text()).toContain('Nothing is decided yet.')
    expect(page.find('iframe').exists()).toBe(false)
    expect(page.find('[data-testid="send-home"]').exists()).toBe(false)
  })
})

describe('words of which some are on', () => {
  it('say which, and toggle by touch', async () => {
    const words = [
      { id: 'fat', name: 'Fat' },
      { id: 'thin', name: 'Thin' },
    ]
    const { page } = await show(SomeOf, { name: 'Misses', words, on: ['thin'] })
    expect(page.findAll('button').map((b) => b.attributes('aria-pressed'))).toEqual([
      'false',
      'true',
    ])
    await page.findAll('button')[0]?.trigger('click')
    expect(page.emitted('toggled')).toEqual([['fat']])
  })
})
