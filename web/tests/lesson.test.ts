// One open lesson: changes show at once, news of others come in, nothing overtakes what is on its way.
import { DOMWrapper } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { h, ref } from 'vue'
import { useKnowledge } from '@/api/knowledge'
import LookRound from '@/lesson/decide/LookRound.vue'
import LessonMenu from '@/lesson/LessonMenu.vue'
import NoteButton from '@/lesson/NoteButton.vue'
import { useArrivals } from '@/sync/useArrivals'
import { useLesson, type OpenLesson } from '@/lesson/useLesson'
import WaitingStrip from '@/sync/waiting/WaitingStrip.vue'
import { block, furnish, knowledge, lesson, problem, serve, settle, shot, show } from './mounting'

const DIAGNOSIS = { ranking: { next_checks: [{ id: 'heel_up' }] } }
const READ = {
  'GET /api/lessons/L': { body: lesson() },
  'GET /api/lessons/L/diagnosis': { body: DIAGNOSIS },
  'GET /api/lessons/L/balls': { body: [] },
}

beforeEach(() => {
  document.body.innerHTML = ''
  furnish()
})

/** What stands at the foot of every page. */
const strip = () => new DOMWrapper(document.body).get('[data-testid=waiting]')

async function opened(answers: Parameters<typeof serve>[0] = {}) {
  const asked = serve({ ...READ, ...answers })
  let open: OpenLesson | null = null
  const Holder = {
    setup() {
      open = useLesson('L')
      void open.load()
      return () => h(WaitingStrip)
    },
  }
  const { page } = await show(Holder)
  useKnowledge().knowledge = knowledge
  await settle()
  return { open: open as unknown as OpenLesson, asked, page }
}

describe('an open lesson', () => {
  it('shows a ball before the server has it, then what the server says', async () => {
    const kept = lesson([block([shot('a', { start: 'pull', curve: 'push' })])])
    const { open, asked } = await opened({ 'POST /api/lessons/L/changes shot a': { body: kept } })
    open.putShot('a', 'B', { start: 'pull' }, {})
    expect(open.shots.value.map((s) => s.observed)).toEqual([{ start: 'pull' }])
    expect(open.saving.value.state).toBe('saving')
    await settle()
    expect(open.shots.value[0]?.observed).toEqual({ start: 'pull', curve: 'push' })
    expect(open.saving.value.state).toBe('saved')
    expect(asked.filter((a) => a.call.endsWith('/diagnosis'))).toHaveLength(2)
  })
  it('takes what follows from the answer to the write, without asking again', async () => {
    const found = { ranking: { next_checks: [{ id: 'knees' }] } }
    const body = { ...lesson([block([shot('a', { start: 'pull' })])]), diagnosis: found }
    const { open, asked } = await opened({ 'POST /api/lessons/L/changes shot a': { body } })
    open.putShot('a', 'B', { start: 'pull' }, {})
    await settle()
    expect(open.asking.value?.id).toBe('knees')
    expect(asked.filter((a) => a.call.endsWith('/diagnosis'))).toHaveLength(1)
    expect(open.lesson.value).not.toHaveProperty('diagnosis')
  })
  it('takes a ball into a block that the server does not have yet', async () => {
    const { open } = await opened()
    open.putBlock('N', { kind: 'retest', club: 'd' })
    open.putShot('a', 'N', { start: 'push' }, {})
    const made = open.lesson.value?.blocks.at(-1)
    expect(made).toMatchObject({ id: 'N', kind: 'retest', club: 'd', teed: null, position: 1 })
    expect(made?.shots).toHaveLength(1)
  })
  it('takes back at once what could not be sent yet, and does it again', async () => {
    const gone = { status: 503, body: problem('The database is busy.') }
    const { open } = await opened({ 'POST /api/lessons/L/changes shot a': gone })
    open.putShot('a', 'B', { start: 'pull' }, {})
    open.putShot('b', 'B', { start: 'push' }, {})
    await settle()
    open.undo()
    expect(open.shots.value.map((s) => s.id)).toEqual(['a'])
    open.redo()
    expect(open.shots.value.map((s) => s.id)).toEqual(['a', 'b'])
    open.undo()
    open.undo()
    expect(open.shots.value).toEqual([])
  })
  it('shows what is kept when something was refused; every page says why', async () => {
    const { open } = await opened({
      'POST /api/lessons/L/changes lesson': { status: 409, body: problem('The lesson is over.') },
    })
    open.changeLesson({ complaint: 'It leaks right.' })
    await settle()
    expect(open.refusal.value).toBeNull()
    expect(strip().text()).toContain('1 not taken')
    expect(open.lesson.value?.complaint).toBe('')
  })
  it('stays on the screen when it cannot be read again', async () => {
    const { open } = await opened()
    serve({ 'GET /api/lessons/L': { status: 503, body: {} } })
    await open.load()
    expect(open.failure.value).toBeNull()
    expect(open.lesson.value?.id).toBe('L')
  })
  it('that cannot be read at first says so', async () => {
    const { open } = await opened({
      'GET /api/lessons/L': { status: 404, body: problem('There is no lesson.') },
    })
    expect(open.failure.value?.message).toBe('There is no lesson.')
  })
  it('what was read before a change does not take the change away', async () => {
    const { open } = await opened({
      'POST /api/lessons/L/changes shot a': { status: 503, body: {} },
    })
    const reading = open.load()
    open.putShot('a', 'B', { start: 'pull' }, {})
    await reading
    expect(open.shots.value).toHaveLength(1)
  })
  it('answers a look with the first means at hand, and again in its place', async () => {
    const answered = lesson()
    const { open, asked } = await opened({ 'POST /api/lessons/L/changes undo': { body: answered } })
    open.answerAsked('yes')
    expect(open.lesson.value?.answers).toMatchObject([
      { check_id: 'heel_up', answer: 'yes', source: 'film' },
    ])
    open.putAnswer('heel_up', 'no', 'film')
    expect(open.lesson.value?.answers.map((a) => a.answer)).toEqual(['no'])
    expect(open.lastAnswer.value).toEqual({ check: 'heel_up' })
    const [answer] = open.lesson.value?.answers ?? []
    open.deleteAnswer(answer?.id ?? '')
    expect(open.lesson.value?.answers).toEqual([])
    await settle()
    expect(asked.some((a) => a.call.startsWith('POST /api/lessons/L/changes answer '))).toBe(true)
  })
  const two = {
    'GET /api/lessons/L/diagnosis': {
      body: { ranking: { next_checks: [{ id: 'heel_up' }, { id: 'knees' }] } },
    },
  }
  const answered = (open: OpenLesson) =>
    open.lesson.value?.answers.map((a) => [a.check_id, a.answer]) ?? []
  it('a second touch means the look that is shown, until the next ranking is there', async () => {
    const { open } = await opened(two)
    open.answerAsked('yes')
    open.answerAsked('no')
    expect(answered(open)).toEqual([['heel_up', 'no']])
    expect(open.asking.value?.id).toBe('heel_up')
  })
  it('how it was seen is what was said: with what is at hand, until another means is named', async () => {
    const { open } = await opened(two)
    const by = () => open.lesson.value?.answers.map((a) => [a.check_id, a.source])
    open.lesson.value = lesson([block()], { at_hand: ['look', 'feel'], answers: [] } as never)
    const [means] = [useKnowledge().check('heel_up')]
    Object.assign(means ?? {}, { sources: ['film', 'look'] })
    expect(open.sourceOf('heel_up')).toBe('look')
    open.filmOpen.value = true
    expect(open.sourceOf('heel_up')).toBe('film')
    open.filmOpen.value = false
    open.answerAsked('yes')
    expect(by()).toEqual([['heel_up', 'look']])
    const [answer] = open.lesson.value?.answers ?? []
    if (answer) open.correctMeans(answer, 'film')
    expect(by()).toEqual([['heel_up', 'film']])
    open.takeBy('heel_up', 'feel')
    expect(open.sourceOf('heel_up')).toBe('feel')
  })
  it('what could not be told is asked again when nothing else is left', async () => {
    const untold = (check_id: string) =>
      ({ id: check_id, check_id, answer: 'unknown', source: 'film', block_id: null }) as never
    const { open } = await opened(two)
    open.lesson.value = lesson([block()], { answers: [untold('heel_up')] })
    expect(open.asking.value?.id).toBe('knees')
    open.lesson.value = lesson([block()], { answers: [untold('heel_up'), untold('knees')] })
    expect(open.asking.value?.id).toBe('heel_up')
  })
  it('without a connection the next look is asked, and shown, after each answer', async () => {
    const away = () => {
      throw new TypeError('no connection')
    }
    const { open } = await opened({ ...two, 'POST /api/lessons/L/changes note n': away })
    open.putNote('n', 'late')
    await settle()
    expect(open.saving.value.state).toBe('unreachable')
    open.answerAsked('yes')
    expect(open.asking.value?.id).toBe('knees')
    open.answerAsked('no')
    expect(answered(open)).toEqual([
      ['heel_up', 'yes'],
      ['knees', 'no'],
    ])
    expect(open.asking.value).toBeNull()
    open.undo()
    expect(answered(open)).toEqual([['heel_up', 'yes']])
    expect(open.asking.value?.id).toBe('knees')
  })
})

describe('balls from a device', () => {
  const watching = (idle: () => boolean, reload: () => Promise<void>) =>
    show({
      setup() {
        useArrivals('L', ref(lesson()), idle, reload)
        return () => null
      },
    })
  const seconds = (n: number) => vi.advanceTimersByTimeAsync(1000 * n + 50)
  /** How often it was looked: what earlier tests still try to send does not count. */
  function answer(revision: string, taught = 3): () => number {
    const body = { revision, taught }
    const asked = serve({ 'GET /api/lessons/L/revision': { body } })
    return () => asked.filter((a) => a.call.endsWith('/revision')).length
  }

  it('are looked for every second and read when there are any', async () => {
    vi.useFakeTimers({ toFake: ['setInterval', 'clearInterval'] })
    const reload = vi.fn().mockResolvedValue(undefined)
    const asked = answer('1-0')
    const { leave } = await watching(() => true, reload)
    await seconds(2)
    await settle()
    expect(asked()).toBe(3) // at once, then every second
    expect(reload).not.toHaveBeenCalled()
    answer('2-0')
    await seconds(1)
    await settle()
    expect(reload).toHaveBeenCalledOnce()
    leave()
    await seconds(5)
    expect(reload).toHaveBeenCalledOnce()
    vi.useRealTimers()
  })
  it('are not all that is read: so is what was learned from a lesson that is over', async () => {
    vi.useFakeTimers({ toFake: ['setInterval', 'clearInterval'] })
    const reload = vi.fn().mockResolvedValue(undefined)
    answer('1-0')
    await watching(() => true, reload)
    await seconds(1)
    await settle()
    answer('1-0', 4)
    await seconds(1)
    await settle()
    expect(reload).toHaveBeenCalledOnce()
    await seconds(2)
    await settle()
    expect(reload).toHaveBeenCalledOnce()
    vi.useRealTimers()
  })
  it('wait while something of ours is under way, and for an application that is away', async () => {
    vi.useFakeTimers({ toFake: ['setInterval', 'clearInterval'] })
    const reload = vi.fn().mockResolvedValue(undefined)
    let idle = false
    const asked = answer('2-0')
    await watching(() => idle, reload)
    await seconds(3)
    await settle()
    expect(asked()).toBe(0)
    idle = true
    serve({})
    await seconds(1)
    await settle()
    expect(reload).not.toHaveBeenCalled()
    answer('2-0')
    await seconds(1)
    await settle()
    expect(reload).toHaveBeenCalled()
    vi.useRealTimers()
  })
})

describe('a server that tells what was changed', () => {
  class Told {
    static CLOSED = 2
    static opened: Told[] = []
    onmessage: ((event: { data: string }) => void) | null = null
    onerror: (() => void) | null = null
    readyState = 1
    close = vi.fn()
    constructor(readonly url: string) {
      Told.opened.push(this)
    }
    say(revision: number, taught = 3): void {
      this.onmessage?.({ data: JSON.stringify({ revision, taught }) })
    }
  }
  async function told() {
    Told.opened = []
    vi.stubGlobal('EventSource', Told)
    vi.useFakeTimers({ toFake: ['setInterval', 'clearInterval', 'Date'] })
    const reload = vi.fn().mockResolvedValue(undefined)
    const idle = ref(true)
    const asked = serve({ 'GET /api/lessons/L/revision': { body: { revision: 7, taught: 3 } } })
    const { leave } = await show({
      setup() {
        useArrivals('L', ref(lesson([], { revision: 7 } as object)), () => idle.value, reload)
        return () => null
      },
    })
    await settle()
    expect(Told.opened).toEqual([]) // a page that is left at once would leave its line behind
    await vi.advanceTimersByTimeAsync(4000)
    await settle()
    const source = Told.opened[0] as Told
    source.say(7)
    await settle()
    return { reload, idle, asked, leave, source }
  }
  afterEach(() => {
    vi.useRealTimers()
    vi.unstubAllGlobals()
    furnish() // the next ones are furnished anew
  })

  it('is not asked every second, and what it tells is read once nothing of ours waits', async () => {
    const { reload, idle, asked, source } = await told()
    expect(source.url).toBe('/api/lessons/L/revisions')
    const before = asked.length
    await vi.advanceTimersByTimeAsync(5000)
    await settle()
    expect(asked.length).toBe(before)
    idle.value = false
    const now = serve({ 'GET /api/lessons/L/revision': { body: { revision: 8 } } })
    source.say(8)
    await settle()
    expect(now).toEqual([])
    idle.value = true
    await settle()
    expect(reload).toHaveBeenCalledOnce()
  })
  it('is asked every second again when the line is gone, and left when the page is', async () => {
    const { asked, leave, source } = await told()
    const before = asked.length
    source.onerror?.()
    await settle()
    await vi.advanceTimersByTimeAsync(3050)
    await settle()
    expect(asked.length).toBeGreaterThanOrEqual(before + 3)
    leave()
    expect(source.close).toHaveBeenCalled()
  })
})

describe('a round of looks', () => {
  const look = (id: string) => ({ id, gain_bits: 0.1, seconds: 20 })
  const answer = (check_id: string, word: string) => ({
    id: check_id,
    check_id,
    answer: word,
    source: 'look',
    block_id: null,
  })
  async function round(answers: object[]) {
    serve({
      'GET /api/lessons/L/round': {
        body: { seconds: 120, checks: [look('grip'), look('heel_up')] },
      },
    })
    const open = {
      lastAnswer: ref(null),
      askLook: vi.fn(),
      answerAsked: vi.fn(),
      sourceOf: () => 'look',
    }
    const props = {
      open,
      lesson: lesson([block()], { answers } as object),
      diagnosis: DIAGNOSIS,
      knowledge,
    }
    const { page, change, leave } = await show(LookRound, props)
    await settle()
    return {
      page,
      open,
      change,
      leave,
      props,
      rows: () => page.findAll('li').map((l) => l.classes().join(' ')),
    }
  }
  it('asks the looks in their order and tells the keys which one is meant', async () => {
    const { page, open, rows, props, change, leave } = await round([])
    expect(rows()).toEqual(['now', ''])
    expect(open.askLook).toHaveBeenLastCalledWith(expect.objectContaining({ id: 'grip' }))
    await change({ ...props.lesson, answers: [answer('grip', 'no')] })
    expect(rows()).toEqual(['done', 'now'])
    await change({
      ...props.lesson,
      answers: [answer('grip', 'no'), answer('heel_up', 'yes')],
    })
    expect(page.find('.again').exists()).toBe(true)
    expect(page.findAll('li').map((l) => l.text())).toEqual([
      expect.stringContaining('Weak grip: no'),
      expect.stringContaining('Trail heel up: yes'),
    ])
    leave()
    expect(open.askLook).toHaveBeenLastCalledWith(null)
  })
  it('asks again what could not be told, until it is answered', async () => {
    const { open, rows } = await round([answer('grip', 'unknown')])
    expect(rows()).toEqual(['now', ''])
    open.lastAnswer.value = { check: 'grip' } as never
    await settle()
    expect(rows()).toEqual(['done', 'now'])
  })
})

describe('the lesson as a whole', () => {
  const menu = () => new DOMWrapper(document.body)
  const press = async (words: string) => {
    await menu()
      .findAll('button')
      .find((b) => b.text() === words)
      ?.trigger('click')
    await settle()
  }
  async function shown(more = {}) {
    const open = { changeLesson: vi.fn() }
    const { page } = await show(LessonMenu, { open, lesson: lesson([block()], more), knowledge })
    await page.find('[aria-label="This lesson"]').trigger('click')
    await settle()
    return { open, page }
  }
  it('keeps and deletes notes with their time, one touch away', async () => {
    const open = { putNote: vi.fn(), deleteNote: vi.fn() }
    const notes = [{ id: 'n', text: 'Sore wrist.', written_at: '2026-11-30T16:05:00Z' }]
    const { page } = await show(NoteButton, { open, lesson: lesson([block()], { notes } as never) })
    await page.get('[data-testid="note"]').trigger('click')
    await settle()
    const said = menu().get('[aria-label="Notes"]')
    expect(said.text()).toMatch(/\d+:05.*Sore wrist\./)
    expect(said.text()).toContain('never on the sheet')
    await menu().find('[aria-label="Delete note: Sore wrist."]').trigger('click')
    expect(open.deleteNote).toHaveBeenCalledWith('n')
    await said.get('textarea').setValue('Rest on Friday.')
    await press('Keep note')
    expect(open.putNote.mock.calls[0]?.[1]).toBe('Rest on Friday.')
  })
  it('finishes the lesson', async () => {
    const { open } = await shown()
    await press('Finish lesson')
    expect(open.changeLesson).toHaveBeenCalledWith({ finished: true })
  })
  it('gives the case file and the balls, and opens the way in for a table', async () => {
    const { page } = await shown()
    const links = menu()
      .findAll('a')
      .map((a) => a.attributes('href'))
    expect(links).toEqual(['/api/lessons/L/case', '/api/lessons/L/balls.csv'])
    await press('Bring in balls from a table')
    expect(page.emitted('import')).toHaveLength(1)
  })
  it('changes the complaint when it was written', async () => {
    const { open } = await shown({ complaint: 'Left.' })
    const area = menu().find<HTMLTextAreaElement>('textarea')
    area.element.value = 'Left and short.'
    await area.trigger('change')
    expect(open.changeLesson).toHaveBeenCalledWith({ complaint: 'Left and short.' })
  })
})
