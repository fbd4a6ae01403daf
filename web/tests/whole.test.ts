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
import LessonClock from '@/lesson/LessonClock.vue'
import ListenStage from '@/lesson/listen/ListenStage.vue'
import RetestStage from '@/lesson/retest/RetestStage.vue'
import FollowUpForm from '@/lesson/send/FollowUpForm.vue'
import SendStage from '@/lesson/send/SendStage.vue'
import { useClock } from '@/lesson/useClock'
import MapPage from '@/map/MapPage.vue'
import { measureWord, retestWord } from '@/lesson/retest/measureWords'
import { effectScope } from 'vue'
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
  student,
} from './mounting'

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
  equipment: [
    { id: 'bottle', name: 'a bottle', outdoors: false },
    { id: 'turf', name: 'turf', outdoors: true },
  ],
  chains: { late: ['late', 'speed_lost'] },
  ends: { speed_lost: 'slower' },
  drill_figures: [
    {
      drill: 'bottle',
      word: 'right',
      view: 'down_the_line',
      pose: { seat: -7 },
      things: [{ kind: 'bottle', x: 60, y: 112, to_x: null, to_y: null, tilt: 0 }],
    },
  ],
  misses: [
    { id: 'fat', name: 'Fat' },
    { id: 'thin', name: 'Thin' },
  ],
  schools: {
    ...knowledge.schools,
    heel_toe: {
      default: 'heels',
      options: [{ id: 'heels', name: 'Heels', sentence: 'Back.', cause_weight: { late: 0.1 } }],
    },
  },
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
  changeStudent: vi.fn(),
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
const card = (more: object): Shape['CardOut'] => ({
  drill: 'mirror',
  pros: [],
  cons: [],
  cautions: [],
  withheld: null,
  instead: null,
  ...more,
})
const coaching: Shape['CoachingOut'] = {
  cause: 'heel',
  decided: true,
  cards: [
    card({ drill: 'mirror', pros: ['needs nothing'] }),
    card({ drill: 'bottle', withheld: 'flagged: knee', instead: 'mirror' }),
  ],
  ladder: null,
  cues: ['Press early.', 'Let it catch you.'],
  cautions: ['Stop at pain.'],
  setup_changes: [{ check: 'grip', drill: 'mirror', balls: 0, wanted: 3, tried: false }],
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
    const open = acts()
    const { page } = await show(ListenStage, { open, lesson: filled(), knowledge: known })
    const button = (text: string) => page.findAll('button').find((b) => b.text() === text)
    expect(button('Fat')?.attributes('aria-pressed')).toBe('true')
    await button('Thin')?.trigger('click')
    expect(open.changeLesson.mock.calls[0]?.[0].listen.misses).toEqual(['fat', 'thin'])
    await button('Fat')?.trigger('click')
    expect(open.changeLesson.mock.calls[1]?.[0].listen.misses).toEqual([])
    await button('Knee')?.trigger('click')
    expect(open.changeStudent).toHaveBeenCalledWith({ limits: ['knee'] })
    await button('Partly')?.trigger('click')
    expect(open.putAnswer).toHaveBeenCalledWith('heel_up', 'partly', 'feel')
    expect(page.text()).toContain('private: never on the sheet')
    expect(page.find('[data-testid="came-back"]').exists()).toBe(false)
  })
  it('a returning student starts with what home practice showed', async () => {
    const follow_up = { due_on: '2026-11-10', practised: 6, passes: 40, course: 'Fewer duffs.', verdict: 'partly', answered_at: null } // prettier-ignore
    const earlier = [
      {
        lesson_id: 'K',
        started_at: '2026-11-01T10:00:00Z',
        cause: 'late',
        drill: 'mirror',
        follow_up,
      },
    ]
    const back = filled({ earlier, reopens: 'K' })
    const { page } = await show(ListenStage, { open: acts(), lesson: back, knowledge: known })
    const said = page.get('[data-testid="came-back"]').text()
    for (const words of ['1 Nov', 'Late shift', 'partly', '6 times', '40 right', 'Fewer duffs.'])
      expect(said).toContain(words)
    expect(said).toContain('a short new baseline first')
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
    expect(open.changeStudent).toHaveBeenLastCalledWith({ dominant_leg: 'lead' })
    const { page: free } = await show(CueBench, {
      open,
      lesson: filled(),
      knowledge: known,
      cues: coaching.cues,
    })
    await free.get('.one-of button').trigger('click')
    expect(open.changeLesson).toHaveBeenLastCalledWith({
      cue: { text: '', felt: { jump: 'pushing' } },
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
      'Kept back: flagged: knee.Instead: Mirror.',
    )
    const gate = page.get('[data-testid="setup-gate"]')
    expect(gate.text()).toContain('Weak grip. Press.')
    await gate.get('button').trigger('click')
    expect(open.putBlock.mock.calls[0]?.[1]).toMatchObject({ kind: 'trial', drill: 'mirror' })
    await page.get('[data-testid="ask-health"] button').trigger('click')
    expect(open.changeLesson.mock.calls[0]?.[0].listen.health_asked).toBe(true)
    await page.get('[data-testid="card-mirror"] button').trigger('click')
    expect(open.changeLesson).toHaveBeenLastCalledWith({ drill: 'mirror' })
  })
  it('what is not here is said at the card, one by one or all that wants the open', async () => {
    const cards = [
      card({ drill: 'bottle', cons: ['a bottle is not here'], cautions: ['Mind it.'] }),
    ]
    serve({ 'GET /api/lessons/L/coaching': { body: { ...coaching, cards, setup_changes: [] } } })
    const open = acts()
    const lacking = filled({ lacking: ['bottle'] })
    const { page } = await show(DrillStage, { open, lesson: lacking, diagnosis, knowledge: known })
    await settle()
    const shown = page.get('[data-testid="card-bottle"]')
    expect(shown.text()).toContain('But: a bottle is not here.')
    expect(shown.text()).toContain('Mind it.')
    expect(shown.get('svg[role="img"]').attributes('aria-label')).toBe('Bottle: right')
    await shown.get('.kit').trigger('click')
    expect(open.changeLesson).toHaveBeenLastCalledWith({ lacking: [] })
    await page.get('.indoors input').trigger('change')
    expect(open.changeLesson).toHaveBeenLastCalledWith({ lacking: ['bottle', 'turf'] })
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
    expect(open.putBlock.mock.calls[0]?.[1]).toMatchObject({
      kind: 'trial',
      drill: 'bottle',
      club: '7i',
      expected_carry_m: 137.16,
    })
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
      tried: '',
      knowledge: known,
      speaker: { hand: 'right', sides: 'lead_trail' },
    })
    expect(page.get('[data-testid="ladder"]').text()).toContain(says)
    expect(page.findAll('.ladder li')).toHaveLength(2) // no ball, no half and full swings
    await page.get('.taps .big').trigger('click')
    expect(open.tapRepetition).toHaveBeenCalledWith('mirror', 'pass')
    expect(page.text()).toContain('◁')
    expect(page.text()).toContain(
      'For: heel early · needs nothing · without a ball · indoors or out',
    )
    const swap = page.findAll('button').map((b) => b.text())
    expect(swap.includes('Swap the drill')).toBe(more.said === 'reopen')
  })
  it.each([
    [[{ evidence: 'trial:1', bits: 2 }], '2 balls with it: 4 times likelier with this cause.'],
    [[], '2 balls with it: they do not tell yet.'],
  ])('balls hit with the drill say what they tell of the cause', async (said, words) => {
    serve({ 'GET /api/lessons/L/coaching': { body: { ...coaching, ladder: ladder({}) } } })
    const blocks = [
      block(),
      block([shot('a', {}), shot('b', {})], { id: 'T', kind: 'trial', drill: 'bottle' }),
    ]
    const causes = [{ id: 'heel', probability: 0.7, root: 0.6, for: said, against: [] }]
    const { page } = await show(DrillStage, {
      open: acts(),
      lesson: filled({ drill: 'bottle', blocks }),
      diagnosis: { ...diagnosis, ranking: { ...diagnosis.ranking, causes } },
      knowledge: known,
    })
    await settle()
    expect(page.get('[data-testid="tried"]').text()).toBe(words)
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
  it('reopens a rejected cause in a new lesson', async () => {
    const follow_up = { due_on: '2026-12-06', practised: 4, passes: null, course: '', verdict: 'rejected', answered_at: '2026-12-07T10:00:00Z' } // prettier-ignore
    serve({ 'POST /api/lessons/L/reopen': { status: 201, body: { ...filled(), id: 'N' } } })
    const { page, went } = await show(FollowUpForm, { lesson: filled({ follow_up }) })
    expect(page.text()).toContain('asked on 7 Dec')
    await page.get('[data-testid="reopen"]').trigger('click')
    await settle()
    expect(went()).toBe('/lessons/N/listen')
    serve({ 'POST /api/lessons/L/reopen': { status: 404, body: problem('It is gone.') } })
    await page.get('[data-testid="reopen"]').trigger('click')
    await settle()
    expect(page.get('[role=alert]').text()).toContain('It is gone.')
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
    expect(page.text()).toContain('since 1 Dec')
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
    expect(page.text()).toContain('Can come from: Heel leaves early.')
    expect(page.text()).toContain('weak grip (weak)')
    expect(page.text()).toContain('Heels counts it 0.1 times as often. Back.')
    expect(page.findAll('.chain li').map((l) => l.text())).toEqual(['1 late shift', '2 slower'])
    await page.get('input').setValue('nothing like it')
    expect(page.text()).toContain('No cause is called that.')
  })
})

describe('the clock', () => {
  it.each([
    [{ look: 600 }, '27 left before it.'],
    [{ look: 2300 }, 'time to begin it.'],
  ])('with %o used it says what is left before the retest', async (used_s, words) => {
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
    const found = scope.run(() => useClock('L', stage))
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
    scope.stop()
    vi.useRealTimers()
  })
})
