// A lesson with a decision in reach, and what the server would say of it.
import { vi } from 'vitest'
import { ref } from 'vue'
import type { Shape } from '@/api/client'
import { block, knowledge, lesson, shot } from './mounting'

export const known = {
  ...knowledge,
  causes: [
    {
      id: 'heel',
      name: 'Heel leaves early',
      label: 'heel early',
      group: 'downswing',
      acts: 'starting_down',
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
      acts: 'starting_down',
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
      look_for: 'Air under it.',
      view: 'feel',
      points: { heel: 'strong' },
      sources: ['film'],
    },
    {
      id: 'grip',
      label: 'weak grip',
      question: 'Weak?',
      look_for: 'One knuckle.',
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
  cause_words: {
    very_likely: 'very likely',
    likely: 'likely',
    possible: 'possible',
    less_likely: 'less likely',
    unlikely: 'unlikely',
    follows: 'may come from another',
    seen: 'not settled yet',
    seen_hardly_behind: 'hardly behind these balls',
  },
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

export const filled = (more: object = {}) =>
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
    aid: null,
    primary: null,
    repetitions: [],
    follow_up: null,
    ...more,
  } as never)
export const acts = () => ({
  changeLesson: vi.fn(),
  putAnswer: vi.fn(),
  decide: vi.fn(),
  tapRepetition: vi.fn(),
  judgedReal: ref(false),
  saving: ref({ state: 'saved', waiting: 0 }),
  sourceOf: () => 'look',
  putBlock: vi.fn(),
  followUp: vi.fn(),
  changeStudent: vi.fn(),
})
export const ranked = (id: string, root: number) => ({
  id,
  root,
  probability: root + 0.1,
  word: 'possible',
  seen: null,
  comes_from: null,
  for: [{ evidence: 'heel_up', bits: 2, text: 'heel up: yes' }],
  against: [],
  better_explained: [],
  explains: { heel_toe_mm: -6 },
  explains_words: { heel_toe_mm: 'partly' },
  chain: [id],
})
export const diagnosis = {
  ranking: {
    start_with: 'heel',
    enough: true,
    causes: [ranked('heel', 0.6), ranked('late', 0.2)],
    deviation: { heel_toe_mm: -12 },
    ball_next: 'The path straightens.',
    unexplained: null,
    pattern: { balls: 8 },
  },
  decision_status: {
    kind: 'settled',
    headline: 'Start with “heel up”.',
    detail: '60 % against 20 %.',
    leading: ['heel', 'late'],
    flip: null,
  },
  spreads: { start_deg: { value: -4, se: 1 } },
  trial_results: [],
}
export const card = (more: object): Shape['CardOut'] => ({
  drill: 'mirror',
  pros: [],
  cons: [],
  cautions: [],
  withheld: null,
  instead: null,
  ...more,
})
export const coaching: Shape['CoachingOut'] = {
  cause: 'heel',
  decided: true,
  cards: [
    card({ drill: 'mirror', pros: ['needs nothing'] }),
    card({ drill: 'bottle', withheld: 'knee flagged', instead: 'mirror' }),
  ],
  without_a_drill: '',
  ladder: null,
  next_in_line: null,
  cues: ['Press early.', 'Let it catch you.'],
  cautions: ['Stop at pain.'],
  setup_changes: [{ check: 'grip', drill: 'mirror', balls: 0, wanted: 3, tried: false }],
}
export const ladder = (more: object) => ({
  steps: [
    { say: 'Without a ball', speed_pct: 30, times: 5, ball: false },
    { say: 'Slow', speed_pct: 50, times: 6, ball: false },
  ],
  at: 0,
  in_a_row: 2,
  said: 'stay',
  passes: 7,
  fails: 1,
  ...more,
})
