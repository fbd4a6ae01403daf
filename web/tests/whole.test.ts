// The stages around the shots: what they say, and what each control asks to be changed.
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import CueBench from '@/lesson/decide/CueBench.vue'
import DecideStage from '@/lesson/decide/DecideStage.vue'
import DrillBench from '@/lesson/drill/DrillBench.vue'
import DrillStage from '@/lesson/drill/DrillStage.vue'
import ListenStage from '@/lesson/listen/ListenStage.vue'
import FollowUpForm from '@/lesson/send/FollowUpForm.vue'
import HandOver from '@/lesson/send/HandOver.vue'
import SendStage from '@/lesson/send/SendStage.vue'
import { block, furnish, problem, serve, settle, shot, show, student, listOf } from './mounting'
import { known, filled, acts, diagnosis, card, coaching, ladder } from './wholeLesson'

beforeEach(furnish)
afterEach(() => {
  document.body.innerHTML = ''
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
    const last = {
      lesson_id: 'K',
      started_at: '2026-11-01T10:00:00Z',
      complaint: 'I duff it.',
      misses: ['fat'],
      cause: 'late',
      cue: 'Wait for the arms.',
      drill: 'mirror',
      right: 7,
      not_yet: 3,
      follow_up,
      baselines: [{ club: '7i', shots: [shot('k', {})] }],
      answers: [{ check_id: 'grip', answer: 'no', source: 'look' }],
      cameras: [],
    }
    const asked = serve({
      'GET /api/lessons/L/last': { body: last },
      'POST /api/lessons/K/changes follow-up': { body: {} },
    })
    const open = acts()
    const back = filled({ reopens: 'K' })
    const { page } = await show(ListenStage, { open, lesson: back, knowledge: known })
    await settle()
    const said = page.get('[data-testid="came-back"]').text()
    const told = ['1 Nov', 'Late shift']
    const kept = [
      '“I duff it.”',
      '“Wait for the arms.”',
      'Mirror: 7 right, 3 not yet',
      '1 ball with',
    ]
    for (const words of [...told, ...kept]) expect(said).toContain(words)
    expect(said).toContain('A short new baseline first')
    const card = page.get('[data-testid="came-back"]')
    const entered = card.findAll('.home input').map((i) => (i.element as HTMLInputElement).value)
    expect(entered).toEqual(['6', '40', 'Fewer duffs.'])
    expect(card.get('[aria-pressed=true]').text()).toBe('Partly')
    await card.findAll('.home input')[0]?.setValue('9')
    await card.findAll('.home input')[0]?.trigger('change')
    await settle()
    const put = asked.find((a) => a.call === 'POST /api/lessons/K/changes follow-up')
    expect(put?.sent).toEqual({ practised: 9, was: { practised: 6 } })
    await card.get('[aria-label="Still so: Weak?"]').trigger('click')
    expect(open.putAnswer).toHaveBeenCalledWith('grip', 'no', 'look')
    const takeUp = card.findAll('button').find((b) => b.text() === 'Take this cause up again')
    await takeUp?.trigger('click')
    expect(open.decide).toHaveBeenCalledWith('late', 'Taken up again from the lesson of 1 Nov.')
    expect(open.changeLesson).toHaveBeenCalledWith({ drill: 'mirror' })
  })
})

describe('deciding', () => {
  it('compares side by side, and wants a reason against the order, none with it', async () => {
    const between = { one: 'heel', other: 'late', evidence: [], checks: [{ id: 'grip' }] }
    const seen = { start_deg: { value: -4, se: 1 }, curve_deg: { value: 4, se: 1 } }
    const without = { cause: 'heel', now: seen, without: seen, sentence: 'Straight.', worse: false }
    serve({
      'GET /api/lessons/L/coaching': { body: coaching },
      'GET /api/lessons/L/between': { body: between },
      'GET /api/lessons/L/separating': { body: [] },
      'GET /api/lessons/L/without': { body: without },
    })
    const open = acts()
    const { page } = await show(DecideStage, {
      open,
      lesson: filled({ decisions: [] }),
      diagnosis,
      knowledge: known,
    })
    await settle()
    expect(page.get('[data-testid="verdict-headline"]').text()).toBe('Start with “heel up”.')
    const heel = page.get('[data-testid="compare-heel"]')
    expect(heel.text()).toContain('60 %')
    expect(heel.text()).toContain('Speaks for it')
    expect(heel.text()).toContain('heel up: yes')
    expect(heel.text()).toContain('6 of 12 mm')
    expect(heel.find('svg.flight').exists()).toBe(true)
    expect(page.get('[data-testid="tell-apart"]').text()).toContain('Weak?')
    const late = page.get('[data-testid="compare-late"]')
    await late.get('[data-testid="decide"]').trigger('click')
    expect(open.decide).not.toHaveBeenCalled()
    const anyway = late.get('[data-testid="decide-anyway"]')
    expect(anyway.attributes('disabled')).toBeDefined()
    await late.get('textarea').setValue('On film.')
    await anyway.trigger('click')
    expect(open.decide).toHaveBeenCalledWith('late', 'On film.')
    await heel.get('[data-testid="decide"]').trigger('click')
    expect(open.decide).toHaveBeenLastCalledWith('heel', '')
    await page.get('[data-testid="row-late"]').trigger('click')
    expect(page.find('[data-testid="compare-late"]').exists()).toBe(false)
  })
  it('takes no touch before all that was entered is weighed', async () => {
    serve({ 'GET /api/lessons/L/coaching': { body: coaching } })
    const open = acts()
    open.saving.value = { state: 'saving', waiting: 1 }
    const lesson = filled({ decisions: [] })
    const { page } = await show(DecideStage, { open, lesson, diagnosis, knowledge: known })
    await settle()
    const cards = page.get('[data-testid="cards"]')
    expect(cards.attributes('inert')).toBeDefined()
    open.saving.value = { state: 'saved', waiting: 0 }
    await settle()
    expect(cards.attributes('inert')).toBeUndefined()
  })
  it('urges nothing while deciding would be a guess, and still lets one decide', async () => {
    serve({ 'GET /api/lessons/L/coaching': { body: coaching } })
    const open = acts()
    const guess = {
      ...diagnosis,
      decision_status: { ...diagnosis.decision_status, kind: 'not_enough' },
    }
    const props = { open, lesson: filled({ decisions: [] }), knowledge: known }
    const { page } = await show(DecideStage, { ...props, diagnosis: guess })
    await settle()
    expect(page.get('[data-testid="thin"]').text()).toContain('a guess')
    expect(page.text()).not.toContain('Start here')
    const first = page.get('[data-testid="compare-heel"] [data-testid="decide"]')
    expect(first.classes()).toContain('v-btn--variant-outlined')
    await first.trigger('click')
    expect(open.decide).toHaveBeenCalledWith('heel', '')
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
    expect(page.text()).toContain('not for this student: knee')
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
      'Not for this student: knee flagged.Instead: Mirror.',
    )
    const gate = page.get('[data-testid="setup-gate"]')
    expect(gate.text()).toContain('Weak grip. Press.')
    await gate.get('button').trigger('click')
    expect(open.putBlock.mock.calls[0]?.[1]).toMatchObject({ kind: 'trial', drill: 'mirror' })
    await page.get('[data-testid="ask-health"] button').trigger('click')
    expect(open.changeLesson.mock.calls[0]?.[0].listen.health_asked).toBe(true)
    await page.get('[data-testid="card-mirror"] button').trigger('click')
    expect(open.changeLesson).toHaveBeenLastCalledWith({ drill: 'mirror', aid: null })
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
  it('where every drill is kept back it says what is left to do', async () => {
    const cards = [card({ drill: 'bottle', withheld: 'knee flagged' })]
    const body = { ...coaching, cards, without_a_drill: 'Rehearse the cue alone.' }
    serve({ 'GET /api/lessons/L/coaching': { body } })
    const { page } = await show(DrillStage, {
      open: acts(),
      lesson: filled(),
      diagnosis,
      knowledge: known,
    })
    await settle()
    expect(page.get('[data-testid="without-a-drill"]').text()).toBe(
      'No drill for this cause suits what was flagged. Rehearse the cue alone.',
    )
    expect(page.get('[data-testid="card-bottle"]').text()).not.toContain('Instead')
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
    const rep = (result: string, real: boolean) => ({ drill: 'mirror', result, real, done_at: '' })
    const repetitions = [rep('early', false), rep('pass', false), rep('pass', true)]
    const { page } = await show(DrillBench, {
      open,
      lesson: filled({ repetitions }),
      drill: known.drills[1],
      ladder: ladder(more),
      cautions: coaching.cautions,
      tried: '',
      aids: [known.drills[0]],
      knowledge: known,
      speaker: { hand: 'right', sides: 'lead_trail' },
    })
    expect(page.get('[data-testid="ladder"]').text()).toContain(says)
    expect(page.findAll('.ladder li')).toHaveLength(2)
    expect(page.get('.ladder .on').text()).toContain('30 % of full speed, 5 in a row')
    await page.get('.taps .big').trigger('click')
    expect(open.tapRepetition).toHaveBeenCalledWith('mirror', 'pass')
    expect(page.text()).toContain('◁')
    expect(page.get('[data-testid="counted"]').text()).toBe(
      'in the feel 1 of 2 right, in the real swing 1 of 1 right',
    )
    expect(open.judgedReal.value).toBe(false) // the step is without a ball
    await page.findAll('.judged button')[1]?.trigger('click')
    expect(open.judgedReal.value).toBe(true)
    expect(page.text()).toContain(
      'For: heel early · needs nothing · without a ball · indoors or out',
    )
    const swap = page.findAll('button').map((b) => b.text())
    expect(swap.includes('Choose another drill')).toBe(more.said === 'reopen')
  })
  it('lets a second aid stand there, with its own sign', async () => {
    const { page } = await show(DrillBench, {
      open: acts(),
      lesson: filled({ drill: 'mirror', aid: known.drills[0]?.id }),
      drill: known.drills[1],
      ladder: ladder({}),
      cautions: [],
      tried: '',
      aids: [known.drills[0]],
      knowledge: known,
      speaker: { hand: 'right', sides: 'lead_trail' },
    })
    expect(page.get('[data-testid="second-aid"]').text()).toContain('Right when, too:')
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
    expect(listOf(page, 'Rehearsal').words).toEqual(['none', 'Mirror'])
    expect(page.get<HTMLInputElement>('[aria-label="Ask on"]').element.value).toBe('2026-12-06')
    await page.get('[aria-label="Ask on"]').setValue('2026-12-09')
    await page.get('form.then').trigger('submit')
    expect(open.followUp).toHaveBeenCalledWith({ due_on: '2026-12-09' })
    expect(open.changeLesson).toHaveBeenLastCalledWith({ finished: true })
  })
  it('hands the sheet over as a mail begun, and shares it where the browser can', async () => {
    const shared = vi.fn().mockResolvedValue(undefined)
    Object.assign(navigator, { canShare: () => true, share: shared })
    const asked = serve({ 'GET /api/lessons/L/sheet.pdf': { body: {} } })
    const drillName = () => 'Mirror'
    const props = { lesson: filled(), sheet, query: 'sides=lead_trail', drillName }
    const { page } = await show(HandOver, props)
    const mail = decodeURIComponent(page.get('[data-testid=mail]').attributes('href') ?? '')
    expect(mail).toMatch(/^mailto:\?subject=Your lesson of/)
    expect(mail).toContain(`The one cause: ${sheet.cause}`)
    const share = page.findAll('button').find((b) => b.text() === 'Share')
    await share?.trigger('click')
    await settle()
    expect(asked.some((a) => a.call.includes('/sheet.pdf'))).toBe(true)
    expect(shared.mock.calls[0]?.[0].files[0].name).toBe(`${filled().student.name}.pdf`)
    shared.mockRejectedValueOnce(new Error('no'))
    await share?.trigger('click')
    await settle()
    expect(page.get('[role=alert]').text()).toContain('Take the PDF instead.')
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
    const [day, times] = page.findAll('input')
    await day?.setValue('2026-12-09')
    expect(page.emitted('change')).toEqual([[{ due_on: '2026-12-09' }]])
    for (const nonsense of ['often', '', '-3', '2.5', '1000']) {
      await times?.setValue(nonsense)
      await times?.trigger('change')
      await settle()
      const field = times?.element as HTMLInputElement
      expect(field.value).toBe('')
      expect(field.validationMessage).toContain('nothing was changed')
    }
    expect(page.emitted('change')).toHaveLength(1)
    await times?.setValue('4')
    await page.findAll('.one-of button')[2]?.trigger('click')
    expect(page.emitted('change')).toEqual([
      [{ due_on: '2026-12-09' }],
      [{ practised: 4 }],
      [{ verdict: 'rejected' }],
    ])
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
