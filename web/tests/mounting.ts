// A page without a server: components are mounted as the application mounts them, and what they ask
// for is answered from a table.
import { VueQueryPlugin } from '@tanstack/vue-query'
import { flushPromises, mount, type VueWrapper } from '@vue/test-utils'
import { createPinia } from 'pinia'
import { vi } from 'vitest'
import { defineComponent, h, onScopeDispose, shallowRef, type Component } from 'vue'
import { createMemoryHistory, createRouter } from 'vue-router'
import { createVuetify } from 'vuetify'
import type { Block, Handedness, Knowledge, Lesson, LoggedShot, Shape } from '@/api/client'
import type { WriteStore } from '@/sync/writeStore'
import { OUTBOX, Outbox } from '@/sync/outbox'
import { newQueries } from '@/api/query'
import { useKnowledge } from '@/api/knowledge'
import { send } from '@/sync/writes'
import { provideLessonContext } from '@/lesson/lessonContext'
import type { OpenLesson } from '@/lesson/useLesson'
import { server } from './lacking'
import type { ReadBlock } from '@/lesson/shots/useReadings'

export class Watcher {
  observe(): void {}
  unobserve(): void {}
  disconnect(): void {}
}

/** A browser that keeps what waits no longer than the test. */
const nothingKept: WriteStore = {
  all: () => Promise.resolve([]),
  put: () => Promise.resolve(),
  remove: () => Promise.resolve(),
  claimOrphans: () => Promise.resolve([]),
  beat: () => Promise.resolve(),
  leave: () => Promise.resolve(),
  beats: () => Promise.resolve(new Map()),
}

/** What jsdom lacks of a browser. */
export function furnish(): void {
  vi.stubGlobal('ResizeObserver', Watcher)
  vi.stubGlobal('IntersectionObserver', Watcher)
  vi.stubGlobal('visualViewport', new EventTarget())
  Element.prototype.setPointerCapture = () => undefined
  localStorage.clear()
}

type Answer = { status?: number; body: unknown }
type Answers = Record<string, Answer | ((sent: unknown) => Answer)>
interface Change {
  kind: string
  id?: string
  body?: unknown
}
export interface Asked {
  call: string
  sent: unknown
}

/**
 * Answers to 'METHOD /api/path', of a change of a lesson 'POST …/changes kind row'; what is not in the
 * table is not found. The calls, in order.
 */
export function serve(answers: Answers): Asked[] {
  const asked: Asked[] = []
  server.answer = async (request: Request) => {
    const url = new URL(request.url)
    const text = await request.text()
    const whole: unknown = text === '' ? null : JSON.parse(text)
    const change = url.pathname.endsWith('/changes') ? (whole as Change) : null
    const which = [change?.kind, change?.id].filter((part) => part !== undefined)
    const call = [`${request.method} ${url.pathname}`, ...which].join(' ')
    const sent = change ? change.body : whole
    asked.push({ call, sent })
    const found = answers[call]
    const answer = typeof found === 'function' ? found(sent) : found
    const { status = 200, body } = answer ?? { status: 404, body: problem('Not found.') }
    const json = status === 204 ? null : JSON.stringify(body)
    return new Response(json, { status, headers: { 'content-type': 'application/json' } })
  }
  return asked
}

export function problem(message: string, hint = 'Nothing was changed.'): Shape['ErrorShape'] {
  return { code: 'refused', message, hint, where: '' }
}

const NAMES = {
  '/': 'day',
  '/students/:id': 'student',
  '/lessons/:id/:stage?': 'lesson',
  '/casebook/:part?': 'casebook',
  '/:rest(.*)': 'lost',
}
const routes = Object.entries(NAMES).map(([path, name]) => ({
  path,
  name,
  component: { template: '<i />' },
}))

/** Until nothing is asked or drawn any more. */
export async function settle(): Promise<void> {
  for (let i = 0; i < 3; i++) {
    await flushPromises()
    await new Promise((done) => setTimeout(done, 5))
  }
}

interface Shown {
  page: VueWrapper
  went: () => string
  leave: () => void
  /** Other props. */
  give: (props: Record<string, unknown>) => Promise<void>
  /** The lesson in hand becomes another. */
  change: (lesson: unknown) => Promise<void>
}

/** `open`, `lesson`, `diagnosis`: the lesson in hand; `knowledge`: as fetched; the rest: props. */
export async function show(
  component: Component,
  {
    open = {},
    lesson: inHand,
    diagnosis = null,
    readBalls = null,
    knowledge: known,
    ...props
  }: Given = {},
): Promise<Shown> {
  const router = createRouter({ history: createMemoryHistory(), routes })
  const pinia = createPinia()
  useKnowledge(pinia).knowledge = (known === undefined ? knowledge : known) as Knowledge
  let isGone = false
  // a page that is gone sends nothing more: what waits would reach the next test's server
  const sent: typeof send = (...write) => (isGone ? new Promise(() => undefined) : send(...write))
  const outbox = new Outbox('this-page', { ...nothingKept }, sent)
  const hand = (props.hand ?? 'right') as Handedness
  const ofHand = lesson([block()], { student: { ...student, handedness: hand } as never })
  const now = shallowRef((inHand ?? ofHand) as Lesson)
  const Above = defineComponent({
    inheritAttrs: false,
    setup(_, { attrs }) {
      onScopeDispose(() => {
        isGone = true
      })
      const found = { balls: shallowRef(readBalls), diagnosis: shallowRef(diagnosis) }
      provideLessonContext({ id: 'L', ...open, ...found, lesson: now } as OpenLesson)
      return () => h(component, attrs)
    },
  })
  const above = mount(Above, {
    props,
    attachTo: document.body,
    global: {
      plugins: [pinia, router, createVuetify(), [VueQueryPlugin, { queryClient: newQueries() }]],
      provide: { [OUTBOX as symbol]: outbox },
    },
  })
  await flushPromises()
  return {
    page: above.findComponent(component) as VueWrapper,
    went: () => router.currentRoute.value.fullPath,
    leave: () => {
      above.unmount()
    },
    give: (next) => above.setProps(next as never),
    async change(next) {
      now.value = next as Lesson
      await flushPromises()
    },
  }
}
/** A composable as a component of the application uses it, and a way to leave that component. */
export async function using<T>(composable: () => T): Promise<{ used: T; leave: () => void }> {
  let used: T | undefined
  const { leave } = await show({
    setup() {
      used = composable()
      return () => null
    },
  })
  return { used: used as T, leave }
}
interface Given extends Record<string, unknown> {
  open?: object
  lesson?: unknown
  diagnosis?: unknown
  readBalls?: unknown
  knowledge?: unknown
}

export function shot(id: string, observed: object, touched: object = {}): LoggedShot {
  return { id, block_id: 'B', observed, touched, hit_at: '2026-11-26T10:00:00Z' } as LoggedShot
}

export function block(shots: LoggedShot[] = [], more: Partial<Block> = {}): Block {
  return {
    id: 'B',
    position: 0,
    kind: 'baseline',
    club: '7i',
    drill: null,
    aid: null,
    expected_carry_m: 137.16,
    effort_pct: null,
    surface: 'turf',
    teed: null,
    stance: null,
    own_targets: false,
    shots,
    ...more,
  } as Block
}

export const student = {
  id: 'S',
  name: 'Perrin Vale',
  handedness: 'right',
  handicap: 18,
  dominant_leg: null,
  age_group: 'adult',
  limits: [],
  limit_details: {},
  archived: false,
  about: '',
  created_at: '2026-11-20T10:00:00Z',
}

export function lesson(blocks: Block[] = [block()], more: Partial<Lesson> = {}): Lesson {
  return {
    id: 'L',
    student,
    complaint: '',
    given_by: '',
    school: {
      pressure: 'recentre',
      heel_toe: 'undecided',
      lead_foot: 'undecided',
      start: 'ground_up',
      trail_hip: 'undecided',
      head: 'undecided',
    },
    at_hand: ['look', 'film', 'feel'],
    finished: false,
    started_at: '2026-11-26T10:00:00Z',
    blocks,
    answers: [],
    traces: 0,
    stills: [],
    notes: [],
    decisions: [],
    lacking: [],
    reopens: null,
    earlier: [],
    revision: '1-0',
    undo: null,
    redo: null,
    ...more,
  } as unknown as Lesson
}

const check = (id: string, label: string, view: string) => ({
  id,
  label,
  question: `Is it so: ${label}?`,
  look_for: '',
  view,
  sources: ['film', 'look'],
  seconds: 20,
})
const school = (id: string, title = id) => ({
  title,
  id,
  name: id,
  options: [
    { id: 'undecided', name: 'Undecided', sentence: 'Both.' },
    { id: 'heels', name: 'Heels', sentence: 'Back.' },
  ],
})

export const knowledge = {
  causes: [{ id: 'heel', name: 'Heel leaves early', place: 'trail_heel', moves: 'up' }],
  mechanisms: [],
  ends: {},
  cause_words: { likely: 'likely', follows: 'may come from another' },
  chains: {},
  equipment: [],
  figures: [],
  drill_figures: [],
  checks: [
    check('heel_or_toe_deep_divot', 'divots deeper on one side', 'setup'),
    check('heel_up', 'trail heel up', 'face_on'),
    check('grip', 'weak grip', 'setup'),
  ],
  drills: [],
  clubs: [
    { id: 'd', name: 'Driver', kind: 'driver', head: { teed: true } },
    { id: '7i', name: '7 iron', kind: 'iron', head: { teed: false } },
  ],
  schools: {
    pressure: school('p'),
    heel_toe: school('h', 'Heel and toe'),
    lead_foot: school('l'),
    start: school('s'),
    trail_hip: school('t'),
    head: school('hd'),
  },
  cautions: { limits: [{ id: 'knee_pain', name: 'Knee pain' }] },
  usual_carry_m: {},
  school_changes: { heel_toe: { heels: ['Its drills come first: Mirror.'] } },
  noting: {
    word_inner_deg: 2,
    word_outer_deg: 6,
    word_near_deg: 4,
    word_far_deg: 9,
    divot_length_cm: 12,
    contact_mm: { hosel: -26, toe: 20 },
    carry_m: 130,
  },
} as unknown as Knowledge

const lost = (strike: number): Shape['LostOut'] => ({
  expected_m: 137.16,
  actual_m: 137.16 - strike - 1,
  items: { club_speed: -2, strike, loft_and_spin: 1, glancing: 0.1, ground: 0 },
  remainder_m: 1.9,
  measured: true,
  adds_up: true,
})
const spread = (value: number, se = 1) => ({ value, se })

/** A block of two balls, read. */
export function readings(more: Partial<ReadBlock> = {}): ReadBlock {
  const ball = (shot_id: string, deg: number) => ({
    shot_id,
    delivery: { path_deg: spread(deg), face_deg: spread(1), attack_deg: spread(-3) },
    start_deg: deg,
    curve_deg: 4,
    carry_m: 120,
    apex_m: 21,
    track: [
      [0, 0, 0],
      [60, 21, 0],
      [119, 0, 8],
    ] as [number, number, number][],
    wild: false,
    lost: lost(9),
  })
  return {
    block_id: 'B',
    expected_carry_m: 137.16,
    expected_source: 'named',
    shape: 'pull-fade',
    two_way: false,
    missed: [],
    strike_in_words: false,
    carry_lost_pct: null,
    delivery: {
      path_deg: spread(-4.1),
      face_deg: spread(-0.6, 1.2),
      attack_deg: spread(-1.4, 0.4),
      low_point_cm: spread(4, 1.5),
      heel_toe_mm: spread(-10, 3),
    },
    scatter: { heel_toe_mm: 6, low_high_mm: 4 },
    balls: [ball('a', -3), ball('b', 2)],
    groups: [],
    drifts: [],
    wanted: [],
    lost: lost(14),
    ...more,
  }
}

/** Whether a finger's move on a drawing is the drawing's own: else the browser flings with it. */
export function keepsDrags(page: VueWrapper): boolean {
  const move = new Event('touchmove', { bubbles: true, cancelable: true })
  page.find('svg').element.dispatchEvent(move)
  return move.defaultPrevented
}

/** A list to choose from, by its name: its words, what is chosen, and choosing another. */
export function listOf(page: VueWrapper, name: string) {
  const found = page.findAllComponents({ name: 'ChooseOne' }).find((c) => c.props('name') === name)
  if (found === undefined) throw new Error(`There is no list called ${name}.`)
  const options = found.props('options') as { id: string; word: string; disabled?: boolean }[]
  return {
    words: options.filter((o) => !o.disabled).map((o) => o.word),
    on: found.props('on') as string | null,
    async choose(id: string) {
      found.vm.$emit('chosen', id)
      await flushPromises()
    },
  }
}
