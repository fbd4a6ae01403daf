// The Shots stage's parts: what they say of a block, and what each control asks to be changed.
import { DOMWrapper, flushPromises } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { computed, ref } from 'vue'
import BallDetails from '@/lesson/shots/BallDetails.vue'
import BallTape from '@/lesson/shots/BallTape.vue'
import BlockBar from '@/lesson/shots/BlockBar.vue'
import ContactStrip from '@/lesson/shots/ContactStrip.vue'
import PatternLine from '@/lesson/shots/PatternLine.vue'
import PatternNotes from '@/lesson/shots/PatternNotes.vue'
import ReadView from '@/lesson/shots/ReadView.vue'
import type { BallEntry } from '@/lesson/shots/useBallEntry'
import { useReadings, scatterOf } from '@/lesson/shots/useReadings'
import OneOf from '@/ui/OneOf.vue'
import type { OpenLesson } from '@/lesson/useLesson'
import {
  block,
  furnish,
  knowledge,
  lesson,
  readings,
  serve,
  settle,
  shot,
  show,
  using,
  listOf,
} from './mounting'

beforeEach(furnish)

const shots = [
  shot('a', { start: 'pull', curve: 'push', contact: 'clean' }),
  shot('b', { heel_toe_mm: -12 }),
]

function entryOf(chosen: string | null = null, open: string | null = null) {
  const chosenId = ref(chosen)
  const openId = ref(open)
  const acts = { choose: vi.fn(), next: vi.fn(), set: vi.fn(), remove: vi.fn(), contact: vi.fn() }
  const state = {
    shots: computed(() => shots),
    chosenId,
    openId,
    currentId: computed(() => chosenId.value ?? openId.value),
    newest: computed(() => chosenId.value ?? openId.value ?? 'b'),
  }
  return { ...state, ...acts } as unknown as BallEntry & typeof acts
}
function openLesson() {
  return { putBlock: vi.fn(), putAnswer: vi.fn(), sourceOf: vi.fn().mockReturnValue('film') }
}

describe('the tape of balls', () => {
  it('says each ball in words and chooses it by touch', async () => {
    const entry = entryOf()
    const { page } = await show(BallTape, { entry, hand: 'right', reading: false, byNumber: false })
    const balls = page.findAll('ol button')
    expect(balls.map((b) => b.attributes('aria-label'))).toEqual([
      'Ball 1: starts left, curves right, clean',
      'Ball 2: 12 mm to the heel',
    ])
    await balls[0]?.trigger('click')
    expect(entry.choose).toHaveBeenCalledWith('a')
  })
  it.each([
    [null, null, false, 'Next: ball 3', 'Next ball'],
    [null, 'b', false, 'Ball 2 is open', 'Next ball'],
    ['a', null, false, 'Changing ball 1', 'Done'],
    ['a', null, true, 'Ball 1 is chosen', 'Done'],
  ])('chosen %s, open %s, reading %s: %s', async (chosen, open, reading, says, next) => {
    const entry = entryOf(chosen, open)
    const { page } = await show(BallTape, { entry, hand: 'left', reading, byNumber: false })
    expect(page.find('.says').text()).toBe(says)
    expect(page.find('.next').text()).toContain(next)
    await page.find('.next').trigger('click')
    expect(entry.next).toHaveBeenCalledOnce()
  })
})

describe('the bar of a block', () => {
  const props = (open: ReturnType<typeof openLesson>, more = {}) => ({
    modelValue: 'B',
    open,
    lesson: lesson([block(), block([], { id: 'C', kind: 'retest', club: 'd' })]),
    block: block([], more),
    knowledge,
  })
  it('shows the carry in yards and changes it', async () => {
    const open = openLesson()
    const { page } = await show(BlockBar, props(open))
    const carry = page.find<HTMLInputElement>('[aria-label*=arry]')
    expect(carry.element.value).toBe('150')
    await carry.setValue('437')
    await carry.setValue('100')
    expect(open.putBlock.mock.calls[0]?.[1].expected_carry_m).toBeLessThan(400)
    expect(open.putBlock.mock.calls[1]?.[1].expected_carry_m).toBeCloseTo(91.44)
    await carry.setValue('')
    expect(open.putBlock).toHaveBeenLastCalledWith('B', { expected_carry_m: null })
  })
  it.each(['a lot', '-5', '0', '438', '900'])(
    'keeps what was there when told “%s”',
    async (typed) => {
      const open = openLesson()
      const { page } = await show(BlockBar, props(open))
      const carry = page.find<HTMLInputElement>('[aria-label*=arry]')
      await carry.setValue(typed)
      expect(open.putBlock).not.toHaveBeenCalled()
      expect(carry.element.value).toBe('150')
    },
  )
  it.each([
    ['tee', { surface: null, teed: true }],
    ['mat', { surface: 'mat', teed: false }],
    ['', { surface: null, teed: null }],
  ])('hit from “%s”', async (value, sent) => {
    const open = openLesson()
    const { page } = await show(BlockBar, props(open))
    await listOf(page, 'Hit from').choose(value)
    expect(open.putBlock).toHaveBeenCalledWith('B', sent)
  })
  it('shows that it is teed', async () => {
    const { page } = await show(BlockBar, props(openLesson(), { teed: true }))
    expect(listOf(page, 'Hit from').on).toBe('tee')
  })
  it('goes to another block and begins a new one like this one', async () => {
    const open = openLesson()
    const { page } = await show(BlockBar, props(open))
    const blocks = listOf(page, 'Block')
    expect(blocks.words).toEqual(['Baseline · 7 iron', 'Retest · Driver'])
    await blocks.choose('C')
    expect(page.emitted('update:modelValue')).toEqual([['C']])
    await listOf(page, 'Club').choose('d')
    expect(open.putBlock).toHaveBeenLastCalledWith('B', { club: 'd' })
  })
  it.each([
    ['More baseline', { kind: 'baseline' }],
    ['Retest', { kind: 'retest' }],
    ['Hit balls with it', { kind: 'trial', drill: 'wall' }],
  ])('begins a new block like this one: %s', async (word, sent) => {
    document.body.innerHTML = ''
    const open = openLesson()
    const drills = [{ id: 'wall', name: 'The wall' }]
    const { page } = await show(BlockBar, { ...props(open), knowledge: { ...knowledge, drills } })
    await page.get('.v-btn').trigger('click')
    await flushPromises()
    const whole = new DOMWrapper(document.body)
    const button = whole.findAll('.kinds button').find((b) => b.text().startsWith(word))
    if (word.startsWith('Hit')) {
      expect(button?.attributes('disabled')).toBeDefined() // until it is said with which drill
      await listOf(page, 'Drill of the next balls').choose('wall')
    }
    await button?.trigger('click')
    const [id, body] = open.putBlock.mock.calls.at(-1) ?? []
    expect(body).toEqual({
      ...sent,
      club: '7i',
      surface: 'turf',
      teed: null,
      expected_carry_m: 137.16,
    })
    expect(page.emitted('update:modelValue')?.at(-1)).toEqual([id])
  })
})

describe('the values of a ball', () => {
  const kept = shot('a', { start: 'pull', carry_m: 91.44, path_deg: -4, heel_toe_mm: -12 })
  it('shows degrees to the right for both hands, and takes them so', async () => {
    for (const [hand, shown, sent] of [
      ['right', '-4', 3],
      ['left', '4', -3],
    ] as const) {
      const entry = entryOf('a')
      const { page } = await show(BallDetails, { shot: kept, hand, unit: 'yd', entry })
      const path = page
        .findAll('label')
        .find((l) => l.text().startsWith('Path'))
        ?.find('input')
      expect(path?.element.value.replace('−', '-')).toBe(shown)
      await path?.setValue('3')
      expect(entry.set).toHaveBeenLastCalledWith({ path_deg: sent })
    }
  })
  it('news do not take away what is being typed', async () => {
    const entry = entryOf('a')
    const { page, give } = await show(BallDetails, { shot: kept, unit: 'yd', entry })
    const carry = page
      .findAll('label')
      .find((l) => l.text().startsWith('Carry'))
      ?.find('input')
    carry?.element.focus()
    if (carry) carry.element.value = '12'
    await give({ shot: shot('a', { ...kept.observed, carry_m: 100 }) })
    expect(carry?.element.value).toBe('12')
    carry?.element.blur()
    await new Promise((done) => setTimeout(done, 5))
    expect(carry?.element.value).toBe('109')
  })
  it('empties a word, and closes', async () => {
    const entry = entryOf('a')
    const { page } = await show(BallDetails, { shot: kept, hand: 'right', unit: 'm', entry })
    await listOf(page, 'Start').choose('')
    expect(entry.set).toHaveBeenCalledWith({ start: null })
    await page.find('[aria-label="Close the numbers"]').trigger('click')
    expect(page.emitted('close')).toHaveLength(1)
  })
})

describe('what the pattern says', () => {
  const block = readings({
    shape: 'pull-fade',
    two_way: true,
    missed: ['2 of 9 fat'],
    strike_in_words: false,
    carry_lost_pct: 8.4,
    delivery: {
      path_deg: { value: -4.12, se: 1 },
      face_to_path_deg: { value: 2, se: 1.1 },
      low_point_cm: { value: 3.6, se: 1.5 },
      heel_toe_mm: { value: -12, se: 2 },
    },
  })
  it('is one sentence about the block that is hit and the delivery with its doubt', async () => {
    const { page } = await show(PatternLine, { block, balls: 9, hand: 'right', brief: false })
    expect(page.find('.strong').text()).toBe(
      'Pull-fade, 12 mm to the heel, 2 of 9 fat, 8 % short, two-way',
    )
    expect(page.find('.quiet').text()).toBe(
      'path 4.1° left ± 1.0 · face 2.0° open to it ± 1.1 · low point +4 cm ± 2',
    )
    const brief = await show(PatternLine, { block, balls: 9, hand: 'left', brief: true })
    expect(brief.page.find('.quiet').exists()).toBe(false)
  })
  it('gives no millimetres of a strike that only words tell', async () => {
    const words = { ...block, missed: ['1 of 9 off the hosel'], strike_in_words: true }
    const { page } = await show(PatternLine, { block: words, balls: 9, hand: 'right', brief: true })
    expect(page.find('.strong').text()).toBe('Pull-fade, 1 of 9 off the hosel, 8 % short, two-way')
  })
  it('asks for the first ball, also of a retest after a baseline', async () => {
    const { page } = await show(PatternLine, { block: null, balls: 0, hand: 'right', brief: false })
    expect(page.text()).toContain('No balls yet')
  })
})

describe('what else a block shows', () => {
  const props = { block: readings(), since: [], hand: 'right', unit: 'yd' }
  it('is nothing where there is nothing to say', async () => {
    const { page } = await show(PatternNotes, props)
    expect(page.find('li').exists()).toBe(false)
  })
  it('names two swings, wild balls and what changed', async () => {
    const group = (balls: number[], shape: string) => ({ balls, shape, start_deg: 0, curve_deg: 0 })
    const found = readings({
      groups: [group([0, 2, 3], 'pull-fade'), group([1, 4], 'push-hook')],
      balls: readings().balls.map((b, i) => ({ ...b, wild: i === 1 })),
      wanted: [
        { name: 'launch_deg', value: 18.2, least: null, most: 15 },
        { name: 'lean_deg', value: 6.1, least: 12, most: 15 },
      ],
      drifts: [
        { what: 'carry_m', change: -18.3, chance: 0.001 },
        { what: 'start_deg', change: 3.2, chance: 0.002 },
        { what: 'scatter', change: 2, chance: 0.003 },
      ],
    })
    const { page } = await show(PatternNotes, { ...props, block: found })
    expect(page.findAll('li').map((l) => l.text())).toEqual([
      'Two swings, not one: 3 × pull-fade (1, 3, 4), 2 × push-hook (2, 5).',
      'Ball 2 far from the others.',
      'Launch 18°; under 15° is wanted.',
      'The shaft leans 6° at the ball; 12 to 15° is wanted.',
      'From the first ball to the last carry falls by 20 yd: tiring?',
      'From the first ball to the last: start 3° further right.',
      'From the first ball to the last they scatter wider: tiring?',
    ])
  })
  it('says only what moved surely since an earlier lesson', async () => {
    const moved = (name: string, by: number, sure: boolean) => ({
      name,
      then: { value: 0, se: 1 },
      now: { value: by, se: 1 },
      difference: { value: by, se: 1.4 },
      sure,
    })
    const since = (list: unknown[]) => [
      { lesson_id: 'K', started_at: '2026-10-27T10:00:00Z', club: '7i', balls: 10, moved: list },
    ]
    const list = [
      moved('path_deg', 3, true),
      moved('heel_toe_mm', -6, true),
      moved('start_deg', 1, false),
    ]
    const { page } = await show(PatternNotes, { ...props, hand: 'left', since: since(list) })
    expect(page.text()).toBe(
      'Since 27 Oct (10 balls): path 3° further left, strike 6 mm nearer the heel.',
    )
    const still = await show(PatternNotes, {
      ...props,
      since: since([moved('start_deg', 1, false)]),
    })
    expect(still.page.text()).toContain('nothing has moved more than chance would')
  })
})

describe('the balls as read', () => {
  const props = (entry: ReturnType<typeof entryOf>, open = openLesson(), more = {}) => ({
    open,
    lesson: lesson([block(shots)]),
    entry,
    block: readings(),
    kind: 'iron',
    teed: false,
    knowledge,
    ...more,
  })
  it('gives the account of the block, and of a ball that is chosen', async () => {
    const whole = await show(ReadView, props(entryOf()))
    expect(whole.page.find('[data-testid=lost]').text()).toContain('The block: 16 yd short')
    const one = await show(ReadView, props(entryOf('b')))
    expect(one.page.find('[data-testid=lost]').text()).toContain('Ball 2: 11 yd short')
    expect(one.page.findAll('.chosen path')).toHaveLength(3)
  })
  it('asks for the deep side of the divots, with what is at hand', async () => {
    const open = openLesson()
    const { page } = await show(ReadView, props(entryOf(), open))
    await page.find('[aria-label="Divots deeper at toe or heel"] button').trigger('click')
    expect(open.putAnswer).toHaveBeenCalledWith('heel_or_toe_deep_divot', 'yes', 'film')
    const teed = await show(ReadView, props(entryOf(), open, { teed: true }))
    expect(teed.page.find('[aria-label="Divots deeper at toe or heel"]').exists()).toBe(false)
  })
})

describe('what the balls show', () => {
  const open = (balls: object[]) =>
    ({
      id: 'L',
      lesson: ref(lesson()),
      diagnosis: ref({}),
      balls: ref(balls),
    }) as unknown as OpenLesson

  it('is that of the chosen block; what moved is asked only while it is read', async () => {
    const asked = serve({ 'GET /api/lessons/L/since': { body: [] } })
    const read = ref(false)
    const { used: found } = await using(() =>
      useReadings(open([readings()]), ref('B'), () => read.value),
    )
    await settle()
    expect(asked).toHaveLength(0)
    expect(found.block.value?.shape).toBe('pull-fade')
    read.value = true
    await settle()
    expect(asked.map((a) => a.call)).toEqual(['GET /api/lessons/L/since'])
    expect(found.since.value).toEqual([])
  })
  it('is nothing for a block without balls', async () => {
    const { used: found } = await using(() => useReadings(open([]), ref('Z'), () => false))
    expect(found.block.value).toBeNull()
    expect(scatterOf(null)).toBeNull()
    expect(scatterOf(readings())).toEqual({ heelToe: 6, lowHigh: 4 })
  })
})

describe('words side by side', () => {
  it('says which is on and gives the other when touched', async () => {
    const words = [
      { id: 'log', word: 'Log' },
      { id: 'read', word: 'Read', disabled: true },
    ]
    const { page } = await show(OneOf, { name: 'View', words, on: 'log' })
    const [log, read] = page.findAll('button')
    expect(log?.attributes('aria-pressed')).toBe('true')
    expect(read?.attributes('disabled')).toBeDefined()
    await log?.trigger('click')
    expect(page.emitted('chosen')).toEqual([['log']])
  })
  it('contact in seven words', async () => {
    const { page } = await show(ContactStrip, { contact: 'thin' })
    expect(page.findAll('button')).toHaveLength(7)
    expect(page.find('[aria-pressed=true]').text()).toContain('Thin')
    await page.findAll('button')[1]?.trigger('click')
    expect(page.emitted('contact')).toEqual([['fat']])
  })
})
