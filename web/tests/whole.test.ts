// @vitest-environment jsdom
// The stages around the shots: what they say, and what each control asks to be changed.
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { ref } from 'vue'
import type { Shape } from '@/api/client'
import CasebookPage from '@/casebook/CasebookPage.vue'
import DueList from '@/day/DueList.vue'
import ProgressTable from '@/day/ProgressTable.vue'
import CueBench from '@/lesson/decide/CueBench.vue'
import DecideStage from '@/lesson/decide/DecideStage.vue'
import DrillBench from '@/lesson/drill/DrillBench.vue'
import DrillStage from '@/lesson/drill/DrillStage.vue'
import ListenStage from '@/lesson/listen/ListenStage.vue'
import RetestStage from '@/lesson/retest/RetestStage.vue'
import FollowUpForm from '@/lesson/send/FollowUpForm.vue'
import SendStage from '@/lesson/send/SendStage.vue'
import { useClock } from '@/lesson/useClock'
import MapPage from '@/map/MapPage.vue'
import { measureWord, retestWord } from '@/ui/words'
import { effectScope } from 'vue'
import { block, furnish, knowledge, lesson, serve, settle, shot, show, student } from './mounting'

beforeEach(furnish)
afterEach(() => {
  document.body.innerHTML = ''
})

const known = {
  ...knowledge,
  causes: [
    {
      id: 'heel',
      name: 'Heel leaves early',
      label: 'heel early',
      group: 'downswing',
      sentence: 'Up too soon.',
      effect: { path_deg: -4 },
      upstream_of: ['late'],
      source: 'common practice',
    },
    {
      id: 'late',
      name: 'Late shift',
      label: 'late shift',
      group: 'downswing',
      sentence: 'Late.',
      effect: {},
      upstream_of: [],
      source: 'common practice',
    },
  ],
  checks: [
    {
      id: 'heel_up',
      label: 'heel up',
      question: 'Is it up?',
      view: 'feel',
      points: { heel: 'strong' },
      sources: ['film'],
    },
    {
      id: 'grip',
      label: 'weak grip',
      question: 'Weak?',
      view: 'setup',
      points: { late: 'weak' },
      sources: ['look'],
    },
  ],
  drills: [
    {
      id: 'bottle',
      name: 'Bottle',
      essence: 'Stands by the trail foot.',
      steps: ['Stand it there', 'Swing'],
      mistake: 'Leaning away',
      pass_sign: 'Still up',
      fail_signs: ['Falls'],
      equipment: ['bottle'],
      targets: ['heel'],
      limits: ['knee'],
      ball: 'some',
    },
    {
      id: 'mirror',
      name: 'Mirror',
      essence: 'Press.',
      steps: ['Look', 'Press'],
      mistake: 'Bending',
      pass_sign: 'Seen',
      fail_signs: ['Late'],
      equipment: [],
      targets: ['heel'],
      limits: [],
      ball: 'none',
    },
  ],
  misses: [
    { id: 'fat', name: 'Fat' },
    { id: 'thin', name: 'Thin' },
  ],
  signs: [{ id: 'late', name: 'Late', answers: {} }],
  cautions: {
    limits: [{ id: 'knee', name: 'Knee' }],
    general: [],
    force_tests: [
      { id: 'jump', name: 'Jump', component: 'vertical', limits: ['knee'] },
      { id: 'hits', name: 'Hit on the lead leg', component: 'dominance', limits: [] },
    ],
  },
} as unknown as typeof knowledge

const filled = (more: object = {}) =>
  lesson([block([shot('a', {})])], {
    listen: {
      feels: '',
      misses: ['fat'],
      goal: '',
      event: '',
      event_on: null,
      background: '',
      health: '',
      health_asked: false,
      minutes: 45,
    },
    cue: { text: '', felt: {} },
    sheet: {},
    drill: null,
    primary: null,
    repetitions: [],
    follow_up: null,
    ...more,
  } as never)
const acts = () => ({
  changeLesson: vi.fn(),
  putAnswer: vi.fn(),
  decide: vi.fn(),
  tapRepetition: vi.fn(),
  putBlock: vi.fn(),
  followUp: vi.fn(),
  load: vi.fn().mockResolvedValue(undefined),
})
const diagnosis = {
  ranking: {
    start_with: 'heel',
    enough: true,
    causes: [
      { id: 'heel', probability: 0.7, root: 0.6 },
      { id: 'late', probability: 0.3, root: 0.2 },
    ],
    pattern: { balls: 8 },
  },
  standing: { kind: 'settled', leading: ['heel'], turn: null },
  spreads: { start_deg: { value: -4, se: 1 } },
  verdicts: [],
}
const coaching: Shape['CoachingOut'] = {
  cause: 'heel',
  decided: true,
  cards: [
    { drill: 'mirror', because: ['needs nothing'], withheld: null, instead: null },
    { drill: 'bottle', because: [], withheld: 'flagged: knee', instead: 'mirror' },
  ],
  ladder: null,
  cues: ['Press early.', 'Let it catch you.'],
  cautions: ['Stop at pain.'],
  change_setup_first: ['grip'],
}
const ladder = (more: object) => ({
  step: 'slow',
  in_a_row: 2,
  said: 'stay',
  passes: 7,
  fails: 1,
  ...more,
})

describe('listening', () => {
  it('keeps misses, limits and what is felt, each as one touch', async () => {
    const asked = serve({ 'PATCH /api/students/S': { body: student } })
    const open = acts()
    const { page } = await show(ListenStage, { open, lesson: filled(), knowledge: known })
    const button = (text: string) => page.findAll('button').find((b) => b.text() === text)
    expect(button('Fat')?.attributes('aria-pressed')).toBe('true')
    await button('Thin')?.trigger('click')
    expect(open.changeLesson.mock.calls[0]?.[0].listen.misses).toEqual(['fat', 'thin'])
    await button('Fat')?.trigger('click')
    expect(open.changeLesson.mock.calls[1]?.[0].listen.misses).toEqual([])
    await button('Knee')?.trigger('click')
    await settle()
    expect(asked.at(-1)?.sent).toEqual({ limits: ['knee'] })
    await button('Partly')?.trigger('click')
    expect(open.putAnswer).toHaveBeenCalledWith('heel_up', 'partly', 'feel')
    expect(page.text()).toContain('private: never on the sheet')
  })
})

describe('deciding', () => {
  it('wants a reason against the ranking, none with it', async () => {
    const between = {
      one: 'late',
      other: 'heel',
      evidence: [{ evidence: 'pattern.start_deg', bits: -1 }],
      looks: [{ id: 'heel_up' }, { id: 'grip' }],
    }
    serve({
      'GET /api/lessons/L/coaching': { body: coaching },
      'GET /api/lessons/L/between': { body: between },
    })
    const open = acts()
    const { page } = await show(DecideStage, {
      open,
      lesson: filled({ decisions: [] }),
      diagnosis,
      knowledge: known,
    })
    await settle()
    const roots = page.findAll('.roots button')
    await roots[1]?.trigger('click')
    await settle()
    const picked = page.get('[data-testid="picked"]')
    expect(picked.text()).toContain('Against the ranking')
    expect(picked.text()).toContain('heel up: no')
    expect(picked.text()).toContain('weak grip: yes')
    expect(picked.text()).toContain('this misleads: starts 4° left')
    const decide = page.get('[data-testid="decide"]')
    expect(decide.attributes('disabled')).toBeDefined()
    await picked.get('textarea').setValue('On film.')
    await decide.trigger('click')
    expect(open.decide).toHaveBeenCalledWith('late', 'On film.')
    await roots[0]?.trigger('click')
    await page.get('[data-testid="decide"]').trigger('click')
    expect(open.decide).toHaveBeenLastCalledWith('heel', '')
  })
  it('keeps one cue, and force tests back where a limit is flagged', async () => {
    const open = acts()
    const limited = filled({ student: { ...student, limits: ['knee'] } })
    const { page } = await show(CueBench, {
      open,
      lesson: limited,
      knowledge: known,
      cues: coaching.cues,
    })
    expect(page.text()).toContain('kept back: knee')
    await page.findAll('.cues button')[1]?.trigger('click')
    expect(open.changeLesson).toHaveBeenCalledWith({ cue: { text: 'Let it catch you.', felt: {} } })
    await page.get('.one-of button').trigger('click')
    expect(open.changeLesson).toHaveBeenLastCalledWith({
      cue: { text: '', felt: { hits: 'pushing' } },
    })
  })
})

describe('drilling', () => {
  it('shows what serves, what is kept back, and what comes first', async () => {
    serve({ 'GET /api/lessons/L/coaching': { body: coaching } })
    const open = acts()
    const { page } = await show(DrillStage, { open, lesson: filled(), diagnosis, knowledge: known })
    await settle()
    expect(page.get('[data-testid="card-bottle"]').text()).toContain(
      'Kept back: flagged: knee. Instead: Mirror.',
    )
    expect(page.text()).toContain('Set-up first: weak grip.')
    await page.get('[data-testid="ask-health"] button').trigger('click')
    expect(open.changeLesson.mock.calls[0]?.[0].listen.health_asked).toBe(true)
    await page.get('[data-testid="card-mirror"] button').trigger('click')
    expect(open.changeLesson).toHaveBeenLastCalledWith({ drill: 'mirror' })
  })
  it('makes a trial block of the balls that are hit with it', async () => {
    serve({ 'GET /api/lessons/L/coaching': { body: { ...coaching, ladder: ladder({}) } } })
    const open = acts()
    const { page, went } = await show(DrillStage, {
      open,
      lesson: filled({ drill: 'bottle' }),
      diagnosis,
      knowledge: known,
    })
    await settle()
    await page
      .findAll('button')
      .find((b) => b.text() === 'Hit balls with it')
      ?.trigger('click')
    await settle()
    expect(open.putBlock.mock.calls[0]?.[1]).toEqual({ kind: 'trial', drill: 'bottle', club: '7i' })
    expect(page.emitted('block')).toHaveLength(1)
    expect(went()).toContain('/shots')
  })
  it.each([
    [{ said: 'begin' }, 'Begin here.'],
    [{ said: 'stay', in_a_row: -1 }, '1 not yet in a row.'],
    [{ said: 'stay', in_a_row: 3 }, '3 right in a row.'],
    [{ said: 'up' }, 'Up a step.'],
    [{ said: 'reopen' }, 'swap the drill'],
    [{ said: 'done' }, 'on to the retest'],
  ])('the bench says where it stands: %o', async (more, says) => {
    const open = acts()
    const repetitions = [{ id: '1', drill: 'mirror', result: 'early', done_at: '' }]
    const { page } = await show(DrillBench, {
      open,
      lesson: filled({ repetitions }),
      drill: known.drills[1],
      ladder: ladder(more),
      cautions: coaching.cautions,
      speaker: { hand: 'right', sides: 'lead_trail' },
    })
    expect(page.get('[data-testid="ladder"]').text()).toContain(says)
    expect(page.findAll('.ladder li')).toHaveLength(2) // no ball, no half and full swings
    await page.get('.taps .big').trigger('click')
    expect(open.tapRepetition).toHaveBeenCalledWith('mirror', 'pass')
    expect(page.text()).toContain('◁')
  })
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
  ...more,
})

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
    expect(open.putBlock.mock.calls[0]?.[1]).toEqual({ kind: 'retest', club: '7i' })
    expect(went()).toContain('/shots')
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

describe('sending home', () => {
  const sheet = {
    cause_id: 'heel',
    miss: 'pull',
    cause: 'Up.',
    cue: 'Heavy.',
    thought: '',
    rehearsal: 'mirror',
    ball_drill: null,
    days: [],
    cautions: [],
    check_in: '2026-12-06',
  }
  it('changes words, and asks on the day of the check-in', async () => {
    serve({
      'GET /api/lessons/L/sheet': { body: sheet },
      'GET /api/lessons/L/coaching': { body: coaching },
    })
    const open = acts()
    const { page } = await show(SendStage, {
      open,
      lesson: filled({ decisions: [{ id: 'd', cause: 'heel' }] }),
      diagnosis,
      knowledge: known,
    })
    await settle()
    await page.findAll('textarea')[0]?.setValue('low left')
    await page.findAll('textarea')[0]?.trigger('change')
    expect(open.changeLesson).toHaveBeenCalledWith({ sheet: { miss: 'low left' } })
    expect(page.findAll('select option').map((o) => o.text())).toEqual(['Mirror', 'Mirror'])
    await page.get('[data-testid="send-home"]').trigger('click')
    expect(open.followUp).toHaveBeenCalledWith({ due_on: '2026-12-06' })
    expect(open.changeLesson).toHaveBeenLastCalledWith({ finished: true })
  })
  it('asks what came back; nonsense is no number', async () => {
    const follow_up = {
      due_on: '2026-12-06',
      practised: null,
      passes: null,
      course: '',
      verdict: null,
      answered_at: null,
    }
    const { page } = await show(FollowUpForm, { lesson: filled({ follow_up }) })
    const [times] = page.findAll('input')
    await times?.setValue('often')
    await times?.trigger('change')
    expect(page.emitted('change')).toBeUndefined()
    await times?.setValue('4')
    await page.findAll('.one-of button')[2]?.trigger('click')
    expect(page.emitted('change')).toEqual([[{ practised: 4 }], [{ verdict: 'rejected' }]])
  })
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
    expect(page.text()).toContain('since 2026-12-01')
  })
  it('the casebook says how often it came true', async () => {
    const cases = [
      {
        lesson_id: 'L',
        student_name: 'Perrin',
        decided_at: '2026-11-01T10:00:00Z',
        cause: 'heel',
        ranked_first: 'late',
        agreed: false,
        verdict: 'rejected',
      },
      {
        lesson_id: 'M',
        student_name: 'Oda',
        decided_at: '2026-11-02T10:00:00Z',
        cause: 'heel',
        ranked_first: 'heel',
        agreed: true,
        verdict: null,
      },
    ]
    serveAll({
      'GET /api/casebook': {
        body: { cases, answered: 1, confirmed: 0, first_confirmed: 0, first_answered: 0 },
      },
    })
    const { page } = await show(CasebookPage)
    await settle()
    expect(page.get('[data-testid="casebook-sum"]').text()).toBe(
      'Of 1 that came back, 0 were confirmed.',
    )
    expect(page.text()).toContain('rejected')
    expect(page.text()).toContain('not asked yet')
  })
  it('an empty casebook says so', async () => {
    serveAll({
      'GET /api/casebook': {
        body: { cases: [], answered: 0, confirmed: 0, first_confirmed: 0, first_answered: 0 },
      },
    })
    const { page } = await show(CasebookPage)
    await settle()
    expect(page.text()).toContain('No decision yet.')
  })
  it('a student is seen along time', async () => {
    const step = (id: string, start: number) => ({
      lesson_id: id,
      started_at: '2026-11-01T10:00:00Z',
      values: { start_deg: start, heel_toe_mm: -9 },
      signs: ['late'],
      cause: 'heel',
      verdict: 'partly',
      drill: null,
      passes: 0,
    })
    serveAll({
      'GET /api/students/S/progress': { body: { steps: [step('a', -5), step('b', -1)] } },
    })
    const { page } = await show(ProgressTable, { student })
    await settle()
    expect(page.text()).toContain('5° left')
    expect(page.text()).toContain('1° left')
    expect(page.text()).toContain('partly')
  })
  it('the map finds a cause', async () => {
    serveAll()
    const { page } = await show(MapPage)
    const { useKnowledge } = await import('@/api/knowledge')
    await useKnowledge().load()
    await settle()
    await page.get('input').setValue('late')
    expect(page.findAll('details')).toHaveLength(1)
    await page.get('input').setValue('nothing like it')
    expect(page.text()).toContain('No cause is called that.')
  })
})

describe('the clock', () => {
  it('counts for the stage that was open', async () => {
    vi.useFakeTimers()
    const clock = { used_s: { look: 12 }, planned_min: {}, minutes: 45, keep_for_retest: 8 }
    const asked = serve({
      'GET /api/lessons/L/clock': { body: clock },
      'POST /api/lessons/L/clock': { body: clock },
    })
    const stage = ref<'look' | 'drill'>('look')
    const scope = effectScope()
    const found = scope.run(() => useClock('L', stage))
    await vi.advanceTimersByTimeAsync(4000)
    stage.value = 'drill'
    await vi.advanceTimersByTimeAsync(100)
    expect(asked.find((a) => a.call.startsWith('POST'))?.sent).toEqual({
      stage: 'look',
      seconds: 4,
    })
    await vi.advanceTimersByTimeAsync(15_000)
    const last = asked.at(-1)?.sent as { stage: string; seconds: number }
    expect(last.stage).toBe('drill')
    expect(last.seconds).toBeGreaterThan(9)
    expect(found?.value?.used_s).toEqual({ look: 12 })
    scope.stop()
    vi.useRealTimers()
  })
})
