// The Pressure stage: where moments lie, what is said of a trace, what each control asks for.
import type { VueWrapper } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, nextTick, ref, shallowRef } from 'vue'
import type { Diagnosis, Shape } from '@/api/client'
import ForceStrip from '@/drawing/ForceStrip.vue'
import FootPrints from '@/drawing/FootPrints.vue'
import {
  axisOf,
  centreAt,
  pathOf,
  placeOf,
  timeAt,
  valueAt,
  type EventName,
  type Read,
} from '@/drawing/pressure'
import PressureCurve from '@/drawing/PressureCurve.vue'
import FeelTests from '@/lesson/pressure/FeelTests.vue'
import TraceCover from '@/lesson/pressure/TraceCover.vue'
import TraceImport from '@/lesson/pressure/TraceImport.vue'
import TraceSays from '@/lesson/pressure/TraceSays.vue'
import TraceTape from '@/lesson/pressure/TraceTape.vue'
import { usePlayer } from '@/lesson/pressure/usePlayer'
import type { OpenLesson } from '@/lesson/useLesson'
import { underCurve, useTraces, type Trace } from '@/lesson/pressure/useTraces'
import {
  block,
  furnish,
  keepsDrags,
  using,
  listOf,
  knowledge,
  lesson,
  problem,
  serve,
  settle,
  show,
} from './mounting'

beforeEach(furnish)
afterEach(() => {
  document.body.innerHTML = ''
})

const MOMENTS: Record<EventName, number> = {
  address: -1,
  shaft_level_back: -0.6,
  lead_arm_level_back: -0.45,
  top: -0.25,
  lead_arm_level_down: -0.1,
  shaft_level_down: -0.05,
  impact: 0,
  finish: 0.4,
}
const t_s = Array.from({ length: 301 }, (_, i) => -1.5 + i / 150)

function readOf(more: Partial<Read> = {}): Read {
  const events = Object.fromEntries(
    Object.entries(MOMENTS).map(([name, t]) => [
      name,
      { t_s: t, how: name === 'top' || name === 'impact' ? 'given' : 'estimated', sd_s: 0.02 },
    ]),
  )
  return {
    curve: {
      t_s,
      lead_pct: t_s.map((t) => 50 + 20 * t),
      lead_toe_pct: t_s.map(() => 60),
      trail_toe_pct: t_s.map(() => 40),
      vertical_pct_bw: null,
      lateral_pct_bw: null,
      torque_nm: null,
    },
    rate_hz: 150,
    events,
    corridor: { top: { low: 30, high: 65 }, impact: { low: 80, high: 95 } },
    corridor_of: 'undecided',
    corridor_drill: null,
    measures: {
      lead_pct: { impact: 61 },
      deviation_pct: {},
      press_before_start_pct: 4,
      trail_peak: { t_s: -0.4, value: 19 },
      shift_start_s: -0.4,
      shift_from_top_s: -0.15,
      recentred_pct: 20,
      lead_peak: { t_s: -0.05, value: 84 },
      retreat_pct: 23,
      toes: [],
      heel_up_s: { lead: 0, trail: 0.12 },
      peaks: [
        { force: 'sideways', t_s: -0.22, value: 16 },
        { force: 'up', t_s: -0.1, value: 140 },
      ],
      path_ratio: 1.3,
      loop: { first_s: -0.5, again_s: -0.2, lead_pct: 40, toe_pct: 50 },
      style: 'reverse',
    },
    signs: [
      { id: 'retreat', clear: 1, there: true, t_s: -0.05, words: 'falls from 84 to 61 %' },
      { id: 'late', clear: 0.1, there: false, t_s: -0.3, words: 'starts 0.1 s before the top' },
    ],
    answers: [
      { check_id: 'heel_up', share: 0.98, answer: 'yes', otherwise: ['feel'] },
      { check_id: 'grip', share: 0.02, answer: 'no', otherwise: [] },
    ],
    a_style: false,
    remarks: [{ row: null, text: 'nothing recorded from -1.0 to -0.8 s' }],
    maybe_swapped: true,
    ...more,
  } as unknown as Read
}
const trace = (id: string, more: Partial<Trace> = {}) =>
  ({
    id,
    block_id: null,
    name: `swing ${id}`,
    counts: true,
    recorded_at: '2026-11-26T10:00:00Z',
    swapped: false,
    typed: false,
    named: ['top'],
    read: readOf(),
    problem: null,
    ...more,
  }) as Trace

const known = {
  ...knowledge,
  signs: [
    { id: 'retreat', name: 'Retreat', sentence: '', answers: { heel_up: 'yes' } },
    { id: 'late', name: 'Late', sentence: '', answers: { grip: 'yes' } },
  ],
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
      equipment: ['two towels'],
      how: ['Lay one under the trail heel.'],
      asks: [{ check: 'heel_up', question: 'was the trail pad pressed?' }],
      limits: [],
    },
    { id: 'balls', name: 'Balls', equipment: [], how: ['x'], asks: [], limits: ['balance'] },
  ],
} as unknown as typeof knowledge

describe('the axis', () => {
  const axis = axisOf(readOf().events)
  it('puts every moment where it comes back from', () => {
    for (const t of [-1.6, -1, -0.4, -0.25, -0.1, 0, 0.3, 0.7])
      expect(timeAt(axis, placeOf(axis, t))).toBeCloseTo(t, 9)
  })
  it('gives the downswing more room for a second than the backswing', () => {
    const room = (from: number, to: number) =>
      (placeOf(axis, to) - placeOf(axis, from)) / (to - from)
    expect(room(-0.25, 0)).toBeGreaterThan(3 * room(-1, -0.25))
  })
})

describe('values of a curve', () => {
  const { curve } = readOf()
  it('lie on the line between steps, and at its ends', () => {
    expect(valueAt(curve, curve.lead_pct, -0.123)).toBeCloseTo(50 - 2.46, 6)
    expect(valueAt(curve, curve.lead_pct, 9)).toBeCloseTo(60, 6)
    expect(valueAt(curve, null, 0)).toBeNull()
    expect(valueAt({ ...curve, t_s: [0, 1] }, [null, 7], 0.2)).toBe(7)
  })
  it('make the centre of both feet', () => {
    expect(centreAt(curve, 0).lead).toBeCloseTo(50)
    expect(centreAt(curve, 0).toe).toBeCloseTo(50)
    expect(centreAt({ ...curve, lead_toe_pct: null }, 0).toe).toBeNull()
  })
  it('leave a hole where nothing was recorded', () => {
    const path = pathOf(
      [0, 1, 2, 3],
      [1, null, 3, 4],
      (t) => t,
      (v) => v,
      0,
      2,
    )
    expect(path).toBe('M0.0 1.0M2.0 3.0')
  })
})

describe('what lies under the curve', () => {
  const shown = trace('a')
  const late = trace('b', { read: readOf() })
  if (late.read) late.read.events.impact.t_s = 5
  const together = { t_s: [-0.1, 0], mean_pct: [40, 50], sd_pct: [1, 2], odd: null }
  it('is moved so that impacts meet', () => {
    expect(underCurve('b', shown, [shown, late], null)?.t_s[0]).toBeCloseTo(-6.5)
    expect(underCurve('mean', shown, [shown], together)?.sd_pct).toEqual([1, 2])
  })
  it('is nothing where there is nothing', () => {
    expect(underCurve('mean', shown, [shown], null)).toBeNull()
    expect(underCurve('a', shown, [shown], together)).toBeNull()
    expect(underCurve('', shown, [shown], together)).toBeNull()
  })
})

describe('the player', () => {
  const frames: FrameRequestCallback[] = []
  let clock = 0
  const tick = (ms: number) => {
    clock += ms
    frames.shift()?.(clock)
  }
  beforeEach(() => {
    frames.length = 0
    clock = 0
    vi.stubGlobal('requestAnimationFrame', (call: FrameRequestCallback) => frames.push(call))
    vi.stubGlobal('cancelAnimationFrame', () => (frames.length = 0))
    vi.spyOn(performance, 'now').mockImplementation(() => clock)
  })
  afterEach(() => {
    vi.restoreAllMocks()
  })
  it('plays at its speed, ends at the end and begins anew', () => {
    const scope = effectScope()
    const player = scope.run(() => usePlayer(ref({ from: -1, to: 0 })))
    if (!player) throw new Error('no player')
    player.speed.value = 0.5
    player.toggle()
    tick(100)
    expect(player.now.value).toBeCloseTo(-0.95)
    player.toggle()
    tick(100)
    expect(player.now.value).toBeCloseTo(-0.95)
    player.seek(-0.02)
    player.toggle()
    tick(100)
    expect(player.now.value).toBe(0)
    expect(player.playing.value).toBe(false)
    player.toggle()
    expect(player.now.value).toBe(-1)
    scope.stop()
  })
  it('stays within a span that changes', async () => {
    const span = ref({ from: -1, to: 0 })
    const scope = effectScope()
    const player = scope.run(() => usePlayer(span))
    player?.seek(5)
    expect(player?.now.value).toBe(0)
    span.value = { from: -3, to: -2 }
    await nextTick()
    expect(player?.now.value).toBe(-2)
    scope.stop()
  })
})

describe('the curve', () => {
  const props = {
    read: readOf(),
    now: -0.1,
    under: { t_s, lead_pct: t_s.map(() => 40), sd_pct: t_s.map(() => 2), word: 'mean' },
    footWords: { lead: 'Lead', trail: 'Trail' },
  }
  async function drag(page: VueWrapper, name: EventName, from: number, to: number): Promise<void> {
    const handle = page.get(`[data-testid="event-${name}"]`)
    const at = (clientX: number) => ({ clientX, clientY: 100, button: 0, pointerId: 1 })
    await handle.trigger('pointerdown', at(from))
    await handle.trigger('pointermove', at(to))
    await handle.trigger('pointerup', at(to))
  }
  it('draws corridor, spread and signs, estimated events apart from given ones', async () => {
    const { page } = await show(PressureCurve, props)
    expect(page.text()).toContain('falls from 84 to 61 %')
    expect(page.text()).not.toContain('starts 0.1 s before')
    expect(page.findAll('.event.estimated')).toHaveLength(6)
    expect(page.text()).toContain('≈ Address')
    expect(page.findAll('.spread')).toHaveLength(1)
  })
  it('writes no sign over another', async () => {
    const sign = (id: string, t_s: number) => ({
      id,
      clear: 1,
      there: true,
      t_s,
      words: `${id}: the trail foot up to 92 % on the toes starting down`,
    })
    const signs = [sign('a', -0.2), sign('b', -0.19), sign('c', -0.18)]
    const { page } = await show(PressureCurve, { ...props, read: readOf({ signs } as never) })
    const rows = page.findAll('.sign text').map((t) => Number(t.attributes('y')))
    const apart = rows.flatMap((y, i) => rows.slice(i + 1).map((other) => Math.abs(y - other)))
    expect(rows).toHaveLength(3)
    expect(Math.min(...apart)).toBeGreaterThanOrEqual(19)
  })
  it('keeps a drag to itself', async () => {
    expect(keepsDrags((await show(PressureCurve, props)).page)).toBe(true)
  })
  it('moves an event to where it is dragged, never past a given one', async () => {
    const { page } = await show(PressureCurve, props)
    await drag(page, 'shaft_level_down', 400, 300)
    const [name, t] = page.emitted('moved')?.at(-1) as [EventName, number]
    expect(name).toBe('shaft_level_down')
    expect(t).toBeGreaterThan(-0.25)
    expect(t).toBeLessThan(0)
    await drag(page, 'shaft_level_down', 400, -900)
    expect((page.emitted('moved')?.at(-1) as [EventName, number])[1]).toBe(-0.245)
  })
  it('moves it by the arrows, and scrubs elsewhere', async () => {
    const { page } = await show(PressureCurve, props)
    await page.get('[data-testid="event-impact"]').trigger('keydown', { key: 'ArrowRight' })
    expect(page.emitted('moved')?.at(-1)).toEqual(['impact', 0.005])
    await page.get('[data-testid="event-impact"]').trigger('keydown', { key: 'a' })
    expect(page.emitted('moved')).toHaveLength(1)
    await page.trigger('pointerdown', { clientX: 300, clientY: 90, button: 0, pointerId: 1 })
    await page.trigger('pointermove', { clientX: 9999, clientY: 90, button: 0, pointerId: 1 })
    expect(page.emitted('scrubbed')?.at(-1)).toEqual([0.4])
  })
})

describe('the forces', () => {
  const bump = (at: number, size: number) =>
    t_s.map((t) => size * Math.exp(-(((t - at) / 0.05) ** 2)))
  const read = readOf()
  read.curve.lateral_pct_bw = bump(-0.22, 16)
  read.curve.vertical_pct_bw = bump(-0.1, 140)
  it('name their peaks from left to right, each on its own scale', async () => {
    const { page } = await show(ForceStrip, { read, now: 0 })
    const names = page.findAll('text').map((t) => t.text())
    expect(names).toEqual(['sideways 16 %', 'up 140 %'])
    const peaks = page.findAll('.peak').map((c) => c.attributes())
    expect(Number(peaks[0]?.cx)).toBeLessThan(Number(peaks[1]?.cx))
    expect(peaks[0]?.cy).toBe(peaks[1]?.cy)
  })
  it('are not drawn where none was recorded', async () => {
    const { page } = await show(ForceStrip, { read: readOf(), now: 0 })
    expect(page.find('svg').exists()).toBe(false)
  })
})

describe('the shoes', () => {
  const props = { read: readOf(), now: -0.5, hand: 'right', footWords: { lead: 'L', trail: 'T' } }
  it('say the load of each foot, mirrored for a left-hander', async () => {
    const { page } = await show(FootPrints, props)
    expect(page.text()).toMatch(/L 40 %.*toe 60 %.*T 60 %.*toe 40 %/)
    expect(page.html()).not.toContain('scale(-1 1)')
    const other = await show(FootPrints, { ...props, hand: 'left' })
    expect(other.page.html()).toContain('scale(-1 1)')
  })
  it('say so where heel and toe were not recorded', async () => {
    const read = readOf()
    read.curve.lead_toe_pct = null
    const { page } = await show(FootPrints, { ...props, read })
    expect(page.text()).toContain('heel and toe not recorded')
  })
})

describe('what a trace says', () => {
  const props = { read: readOf(), trace: trace('a'), knowledge: known, hand: 'right' }
  it('names signs, numbers, answers and who says otherwise', async () => {
    const { page } = await show(TraceSays, props)
    expect(page.get('[data-testid="signs"]').text()).toBe('Retreat: falls from 84 to 61 %')
    const numbers = page.get('[data-testid="numbers"]').text()
    for (const words of [
      'Shift starts 0.15 s before the top',
      'the forces peak sideways, then upward',
      'presses 4 points forward',
      'trail heel in the air for 0.12 s',
      'crosses itself',
    ])
      expect(numbers).toContain(words)
    const answers = page.get('[data-testid="trace-answers"]').text()
    expect(answers).toMatch(/trail heel up: yes\s+98 %/)
    expect(answers).toContain('Not: weak grip.')
    expect(answers).toContain('feel says otherwise: trail heel up.')
    expect(page.text()).toContain('wrong way round')
  })
  it('says a style is no fault, and that nothing is wrong', async () => {
    const read = readOf({ a_style: true, signs: [], maybe_swapped: false })
    const counts = trace('a', { counts: false })
    const { page } = await show(TraceSays, { ...props, read, trace: counts })
    expect(page.text()).toContain('No sign of trouble')
    expect(page.text()).toContain('not a fault')
    expect(page.text()).toContain('compared, not counted')
  })
  it('asks to exchange, to estimate, to delete', async () => {
    const { page } = await show(TraceSays, props)
    for (const button of page.findAll('button')) await button.trigger('click')
    expect(Object.keys(page.emitted())).toEqual(
      expect.arrayContaining(['swap', 'forget', 'remove']),
    )
  })
})

describe('the tape of traces', () => {
  it('names the odd one and those made with a drill, and chooses', async () => {
    const { page } = await show(TraceTape, {
      modelValue: 'a',
      traces: [trace('a'), trace('b'), trace('c', { block_id: 'B2' })],
      odd: 'b',
      lesson: lesson([block(), block([], { id: 'B2', kind: 'trial' })]),
    })
    expect(page.findAll('button').map((b) => b.text())).toEqual(['1', '2odd one out', '3trial'])
    await page.findAll('button')[2]?.trigger('click')
    expect(page.emitted('update:modelValue')).toEqual([['c']])
  })
})

describe('the feel', () => {
  const open = () => ({ putAnswer: vi.fn() })
  it('is asked of what a trace will answer, and then uncovers it', async () => {
    const acts = open()
    const { page, change } = await show(TraceCover, { open: acts, knowledge: known })
    expect(page.findAll('.ask')).toHaveLength(1)
    expect(page.get('.ask').text()).toContain('Going back, where was it?')
    expect(page.get('[data-testid="uncover"]').text()).toBe('Show it unasked')
    await page.get('.ask button:last-child').trigger('click')
    expect(acts.putAnswer).toHaveBeenCalledWith('heel_up', 'yes', 'feel')
    const answers = [
      { id: '1', check_id: 'heel_up', source: 'feel', answer: 'yes', block_id: null },
    ]
    await change(lesson(undefined, { answers } as never))
    expect(page.get('.ask [aria-pressed=true]').text()).toBe('Heel')
    expect(page.get('[data-testid="uncover"]').text()).toBe('Show the trace')
    await page.get('[data-testid="uncover"]').trigger('click')
    expect(page.emitted('uncover')).toHaveLength(1)
  })
  it('has its own tests, kept back where a limit is flagged', async () => {
    const acts = open()
    const { page } = await show(FeelTests, {
      open: acts,
      lesson: lesson(),
      knowledge: known,
      limits: ['balance'],
    })
    expect(page.get('[data-testid="feel-balls"]').text()).toContain(
      'Not for this student: balance flagged',
    )
    expect(page.get('[data-testid="feel-pads"]').text()).toContain('Was the trail pad pressed?')
    await page.get('[data-testid="feel-pads"] button:last-child').trigger('click')
    expect(acts.putAnswer).toHaveBeenCalledWith('heel_up', 'no', 'feel')
  })
})

describe('a trace from a table', () => {
  it('asks what columns hold that it does not understand', async () => {
    const asked = serve({
      'POST /api/lessons/L/traces/preview': (sent) => {
        const { columns } = sent as { columns: (string | null)[] | null }
        const known = columns ?? [null, null]
        const recorded = columns ? preview.recorded : null
        const problem = columns ? null : 'There is no column of time.'
        return { body: { ...preview, headings: ['Clock', 'A'], columns: known, recorded, problem } }
      },
    })
    const { page } = await show(TraceImport, { lessonId: 'L' })
    await choose(page)
    expect(page.text()).toContain('There is no column of time. Say what the columns hold.')
    expect(page.get('[data-testid="keep-trace"]').attributes('disabled')).toBeDefined()
    await listOf(page, 'Clock holds').choose('t')
    expect(asked.at(-1)?.sent).toMatchObject({ columns: ['t', null] })
    expect(page.text()).not.toContain('There is no column of time.')
  })
  const preview: Shape['TracePreview'] = {
    recorded: { columns: ['t', 'lead_pct'], samples: [[0, 50]], events: {}, typed_pct: {} },
    headings: ['t', 'lead_pct'],
    columns: ['t', 'lead_pct'],
    fields: { t: 'Time, seconds', lead_pct: 'Lead foot, share of both' },
    rows: [['0', '50']],
    count: 1,
    rate_hz: 100,
    seconds: 2.4,
    problem: null,
    bad: Array.from({ length: 6 }, (_, i) => ({
      line: i + 2,
      heading: 'lead_pct',
      cell: 'slip',
      reason: 'not a number',
    })),
    ignored: ['battery'],
    remarks: [{ row: 1, text: 'rows were not in order of time' }],
    maybe_swapped: true,
  }
  async function choose(page: VueWrapper): Promise<void> {
    const input = page.get('input[type=file]')
    const file = new File(['t,lead_pct\n0,50\n'], 'swing.csv')
    file.arrayBuffer = () => Promise.resolve(new TextEncoder().encode('t').buffer)
    Object.defineProperty(input.element, 'files', { value: [file], configurable: true })
    await input.trigger('change')
    await settle()
  }
  it('is looked at before it is kept', async () => {
    serve({ 'POST /api/lessons/L/traces/preview': { body: preview } })
    const open = { putTrace: vi.fn() }
    const { page } = await show(TraceImport, { open, lessonId: 'L' })
    await choose(page)
    const said = page.get('[data-testid="trace-preview"]').text()
    expect(said).toContain('1 sample · 100 a second · 2.4 s · not read: battery')
    expect(said).toContain('Line 2, lead_pct “slip”: not a number')
    expect(said).toContain('and 2 more')
    expect(said).toContain('wrong way round')
    await page.get('[data-testid="keep-trace"]').trigger('click')
    const [, kept] = open.putTrace.mock.calls[0] as [string, Shape['TraceIn']]
    expect(kept).toEqual({ recorded: preview.recorded, block_id: null, name: 'swing.csv' })
    expect(page.find('[data-testid="trace-preview"]').exists()).toBe(false)
  })
  it('that is no swing is said and cannot be kept; what is no table is an error', async () => {
    serve({ 'POST /api/lessons/L/traces/preview': { body: { ...preview, problem: 'Too few.' } } })
    const { page } = await show(TraceImport, { open: {}, lessonId: 'L' })
    await choose(page)
    expect(page.get('[role="alert"]').text()).toContain('Too few. It is not kept.')
    expect(page.get('[data-testid="keep-trace"]').attributes('disabled')).toBeDefined()
    serve({
      'POST /api/lessons/L/traces/preview': { status: 409, body: problem('No headings.') },
    })
    await choose(page)
    expect(page.text()).toContain('No headings. Nothing was changed.')
  })
})

describe('the traces of a lesson', () => {
  it('are read anew after a change; a new one is shown at once', async () => {
    const body = { traces: [trace('a')], together: null }
    serve({ 'GET /api/lessons/L/traces': () => ({ body }) })
    const diagnosis = shallowRef<Diagnosis | null>(null)
    const now = shallowRef(lesson())
    const open = { id: 'L', lesson: now, diagnosis } as unknown as OpenLesson
    const { used: found } = await using(() => useTraces(open))
    expect(found.ready.value).toBe(false)
    diagnosis.value = {} as Diagnosis
    await settle()
    expect(found.shown.value?.id).toBe('a')
    body.traces = [trace('a'), trace('b')]
    now.value = lesson([], { revision: 2 })
    await settle()
    expect(found.shown.value?.id).toBe('b')
    body.traces = [trace('a')]
    now.value = lesson([], { revision: 3 })
    await settle()
    expect(found.shown.value?.id).toBe('a')
  })
})
