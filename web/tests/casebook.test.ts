// The casebook: its cases, whether they were right, what pays, and what was learned.
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import CasebookPage from '@/casebook/CasebookPage.vue'
import { fateWords } from '@/casebook/words'
import SettingsPage from '@/settings/SettingsPage.vue'
import { furnish, listOf, serve, settle, show } from './mounting'
import { known } from './wholeLesson'

beforeEach(furnish)
afterEach(() => {
  document.body.innerHTML = ''
})
const serveAll = (more: object = {}) =>
  serve({ 'GET /api/knowledge': { body: known }, ...more } as never)
const share = (came: number, of: number) => ({ came, of, low: 0, high: 0.62 })
const one = {
  lesson_id: 'L',
  student_name: 'Perrin',
  handedness: 'right',
  club: '7i',
  shape: 'Pull',
  decided_at: '2026-11-01T10:00:00Z',
  cause: 'heel',
  ranked_first: 'late',
  agreed: false,
  fate: 'rejected',
  known_by: ['retest'],
}
const other = {
  ...one,
  lesson_id: 'M',
  student_name: 'Oda',
  handedness: 'left',
  club: 'd',
  shape: 'Hook',
  ranked_first: 'heel',
  agreed: true,
  fate: null,
  known_by: [],
}
const book = {
  cases: [one, other],
  more: false,
  decided: share(0, 1),
  first: { came: 0, of: 0, low: 0, high: 1 },
  against: share(0, 1),
}
const learned = {
  use: true,
  since: null,
  waiting: 0,
  made_at: null,
  outcomes: 12,
  students: 11,
  least: 10,
  said: ['12 outcomes of 11 students known.', 'Heel: 4 % by the files, 16 % here.'],
  moved: [{ cause: 'heel', shipped: 0.04, here: 0.16, expected: 4, held: false }],
  looks: [] as object[],
  pooled: true,
  colleagues: [] as object[],
  decided: { heel: 9, late: 3 },
}

describe('the casebook', () => {
  it('lists decisions and what became of them, by any of four things', async () => {
    serveAll({ 'GET /api/casebook': { body: book } })
    const { page } = await show(CasebookPage)
    await settle()
    const rows = () => page.findAll('tbody tr').map((r) => r.text())
    expect(rows()).toHaveLength(2)
    expect(rows()[0]).toContain('not confirmed, by retest')
    await listOf(page, 'What became of it').choose('not known yet')
    expect(rows()).toHaveLength(1)
    expect(rows()[0]).toContain('Oda')
    await listOf(page, 'Ball flight').choose('Pull')
    expect(page.text()).toContain('No case is like that.')
  })
  it('says of an empty one that nothing was decided', async () => {
    serveAll({ 'GET /api/casebook': { body: { cases: [] } } })
    const { page } = await show(CasebookPage)
    await settle()
    expect(page.text()).toContain('No decision yet.')
  })
  it('says how often it came true, and of few that they are few', async () => {
    serveAll({
      'GET /api/casebook': { body: book },
      'GET /api/casebook/right': {
        body: {
          bands: [{ low: 0.6, high: 0.8, said: 0.7, share: share(0, 1) }],
          by_miss: [{ word: 'pull', share: share(0, 1) }],
          by_club: [{ word: '7i', share: share(0, 1) }],
          by_source: [{ word: 'retest', share: share(0, 1) }],
        },
      },
    })
    const { page } = await show(CasebookPage, { part: 'right' })
    await settle()
    expect(page.get('[data-testid="casebook-sum"]').text()).toBe(
      'Of 1 decision whose fate is known, 0 were confirmed. So few say little.',
    )
    const bars = page.findAll('.scale').map((b) => b.attributes('aria-label'))
    expect(bars.slice(0, 3)).toEqual([
      'All decisions: 0 of 1; between 0% and 62%',
      'Decided as the ranking had it: none yet',
      'Decided against it: 0 of 1; between 0% and 62%',
    ])
    expect(page.get('figcaption').text()).toBe(
      'When it said 60% to 80%, 0 of 1 came true; between 0% and 62%.',
    )
  })
  it('tells what looks, drills and stages brought', async () => {
    const look = { check: 'heel_up', lessons: 7, bits: 0.5, seconds: 30 }
    serveAll({
      'GET /api/casebook/pays': {
        body: {
          lessons: 9,
          looks: [look],
          never: [],
          drills: [{ drill: 'club', lessons: 2, share: share(1, 2) }],
          minutes: { look: 6.25 },
        },
      },
    })
    const { page } = await show(CasebookPage, { part: 'pays' })
    await settle()
    expect(page.text()).toContain('1.0 bits a minute, in 7 lessons')
    expect(page.text()).toContain('Every look that was proposed has been taken')
    expect(page.text()).toContain('1 of 2; between 0% and 62%')
    expect(page.text()).toContain('6.3 min')
  })
  it('shows what moved, holds it still, and is switched off', async () => {
    let now: object = learned
    const asked = serveAll({
      'GET /api/casebook/learned': () => ({ body: now }),
      'PUT /api/casebook/learned': (sent: object) => {
        now = { ...learned, ...sent, moved: [{ ...learned.moved[0], held: 'held' in sent }] }
        return { body: now }
      },
    })
    const { page } = await show(CasebookPage, { part: 'learned' })
    await settle()
    const row = () => page.get('[data-testid="moved-heel"]')
    expect(row().text()).toContain('4.0 % → 16 %')
    expect(row().text()).toContain('4.0 of 11')
    await row().get('button').trigger('click')
    await settle()
    expect(row().text()).toContain('held as shipped')
    expect(asked.at(-1)?.sent).toEqual({ held: ['heel'] })
    await page.get('input[type="checkbox"]').setValue(false)
    await settle()
    expect(asked.at(-1)?.sent).toEqual({ use: false })
  })
  it('shows where the eye is wrong more often, and holds a look still beside a cause', async () => {
    const eye = {
      look: 'knee',
      answers: 18,
      false_yes: { files: 0.03, here: 0.12 },
      false_no: null,
      held: false,
    }
    const body = { ...learned, moved: [{ ...learned.moved[0], held: true }], looks: [eye] }
    const asked = serveAll({
      'GET /api/casebook/learned': { body },
      'PUT /api/casebook/learned': { body },
    })
    const { page } = await show(CasebookPage, { part: 'learned' })
    await settle()
    const row = page.get('[data-testid="moved-knee"]')
    expect(row.text()).toMatch(/yes where it is not:\s3.0 % → 12 %/)
    expect(row.text()).not.toContain('no where it is')
    expect(row.text()).toContain('18 answers')
    await row.get('button').trigger('click')
    await settle()
    expect(asked.at(-1)?.sent).toEqual({ held: ['heel', 'knee'] })
  })
  it("adds a colleague's casebook, says why one was not, and puts it away", async () => {
    const theirs = { id: 'c1', name: 'Range', outcomes: 26, students: 25, known: true }
    let now: object = learned
    const asked = serveAll({
      'GET /api/casebook/learned': () => ({ body: now }),
      'POST /api/casebook/colleagues': () => ({
        body: (now = { ...learned, colleagues: [theirs] }),
      }),
      'DELETE /api/casebook/colleagues/c1': () => ({ body: (now = learned) }),
      'PUT /api/casebook/learned': () => ({ body: now }),
    })
    const { page } = await show(CasebookPage, { part: 'learned' })
    await settle()
    const input = page.get<HTMLInputElement>('input[type="file"]')
    const choose = async (text: string) => {
      const file = { name: 'Range.json', text: () => Promise.resolve(text) }
      Object.defineProperty(input.element, 'files', { value: [file], configurable: true })
      await input.trigger('change')
      await settle()
    }
    await choose('no json')
    expect(page.get('[role="alert"]').text()).toContain('This file is not what a casebook saved.')
    expect(page.find('[data-testid="colleague"]').exists()).toBe(false)
    await choose('{"format": "firm-footing-learned"}')
    expect(page.find('[role="alert"]').exists()).toBe(false)
    const row = page.get('[data-testid="colleague"]')
    expect(row.text()).toContain('Range: 26 outcomes of 25 students')
    expect(asked.at(-1)?.sent).toEqual({ format: 'firm-footing-learned' })
    await page.findAll('input[type="checkbox"]').at(-1)?.setValue(false)
    await settle()
    expect(asked.at(-1)?.sent).toEqual({ pooled: false })
    await row.get('button').trigger('click')
    await settle()
    expect(page.find('[data-testid="colleague"]').exists()).toBe(false)
  })
  it('says how many outcomes are missing before anything moves', async () => {
    const said = ['3 outcomes.', 'Nothing moves.', '3 of 3 decisions were the heel.']
    const body = { ...learned, outcomes: 3, moved: [], said }
    serveAll({ 'GET /api/casebook/learned': { body } })
    const { page } = await show(CasebookPage, { part: 'learned' })
    await settle()
    expect(page.text()).toContain('Nothing moves before 10 are known: 7 more.')
    expect(page.text()).toContain('3 of 3 decisions were the heel.')
  })
  it('is begun anew from the settings, once that was asked twice', async () => {
    const since = '2026-12-01T10:00:00Z'
    const asked = serveAll({
      'GET /api/casebook/learned': { body: learned },
      'PUT /api/casebook/learned': { body: { ...learned, since } },
    })
    const { page } = await show(SettingsPage)
    await settle()
    const press = (words: string) =>
      page
        .findAll('button')
        .find((b) => b.text() === words)
        ?.trigger('click')
    await press('Begin anew from today')
    expect(asked.some((a) => a.call.startsWith('PUT /api/casebook'))).toBe(false)
    await press('Begin anew')
    await settle()
    expect(asked.find((a) => a.call.startsWith('PUT /api/casebook'))?.sent).toEqual({ anew: true })
    expect(page.text()).toContain('teach nothing.')
  })
  it('names everything that says what became of a decision', () => {
    expect(fateWords({ fate: 'partly', known_by: ['trace', 'follow_up'] })).toBe(
      'partly, by pressure and what came back',
    )
    expect(fateWords({ fate: null, known_by: [] })).toBe('not known yet')
  })
})
