// The day, a student, a new student: what is shown, asked for, and said when it fails.
import { DOMWrapper, type VueWrapper } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'
import { useKnowledge } from '@/api/knowledge'
import DayPage from '@/day/DayPage.vue'
import LessonList from '@/day/LessonList.vue'
import StudentForm from '@/day/StudentForm.vue'
import StudentPage from '@/day/StudentPage.vue'
import LostPage from '@/ui/LostPage.vue'
import SettingsMenu from '@/ui/SettingsMenu.vue'
import StateMessage from '@/ui/StateMessage.vue'
import { furnish, knowledge, lesson, problem, serve, settle, show, student } from './mounting'

const brief = (more = {}) => ({
  id: 'L',
  student_id: 'S',
  student_name: 'Perrin Vale',
  started_at: new Date().toISOString(),
  complaint: 'It starts left.',
  finished: false,
  balls: 9,
  answers: 3,
  decided: null,
  next: { stage: 'decide', words: 'Decide on one cause.', done: false },
  ...more,
})
const day = (more = {}) => ({
  body: { students: [student], lessons: [brief()], booked: [], ...more },
})
const button = (page: VueWrapper, words: string) => {
  const found = page.findAll('button').find((b) => b.text().includes(words))
  if (!found) throw new Error(`no button says ${words}: ${page.text()}`)
  return found
}

beforeEach(() => {
  document.body.innerHTML = ''
  furnish()
})

describe('the day', () => {
  it('shows everyone and the newest lessons, and begins one', async () => {
    const asked = serve({
      'GET /api/day': day(),
      'POST /api/students/S/lessons': { status: 201, body: lesson() },
    })
    const { page, went } = await show(DayPage)
    expect(page.text()).toContain('right-handed · handicap 18')
    expect(page.text()).toContain('It starts left.')
    const today = page.get('[aria-labelledby=today]')
    expect(today.text()).toContain('Decide on one cause.')
    expect(today.get('a').attributes('href')).toBe('/lessons/L/decide')
    await page.find('[aria-label="New lesson with Perrin Vale"]').trigger('click')
    await settle()
    expect(asked.at(-1)?.call).toBe('POST /api/students/S/lessons')
    expect(went()).toBe('/lessons/L/listen')
  })
  it('lists who comes and what each needs, and begins the lesson that was agreed', async () => {
    const at = new Date(Date.now() + 3600_000).toISOString()
    const coming = {
      lesson_id: 'L',
      student_id: 'S',
      student_name: 'Perrin Vale',
      handedness: 'right',
      at,
      cause: 'heel',
      asked: false,
      drill: null,
    }
    const asked = serve({
      'GET /api/day': day({ booked: [coming] }),
      'GET /api/due': { body: [] },
      'POST /api/lessons/L/reopen': { body: { id: 'N' } },
    })
    useKnowledge().knowledge = knowledge
    const { page, went } = await show(DayPage)
    const list = page.get('[data-testid="booked"]')
    expect(list.text()).toContain('Perrin Vale')
    expect(list.text()).toContain('ask how it went, heel leaves early')
    expect(list.get('a[download]').attributes('href')).toBe('/api/booked.ics')
    await list.get('[aria-label="Begin the lesson with Perrin Vale"]').trigger('click')
    await settle()
    expect(asked.some((a) => a.call === 'POST /api/lessons/L/reopen')).toBe(true)
    expect(went()).toContain('/listen')
  })
  it('says a plus handicap, a junior and that limits are flagged', async () => {
    const people = [
      { ...student, handicap: -2, handedness: 'left' },
      { ...student, id: 'T', handicap: null, age_group: 'junior', limits: ['knee_pain'] },
    ]
    serve({ 'GET /api/day': day({ students: people }) })
    const { page } = await show(DayPage)
    expect(page.text()).toContain('left-handed · handicap +2')
    expect(page.text()).toContain('right-handed · junior · limits flagged')
  })
  it('finds a student by what is typed, and keeps the archived ones apart', async () => {
    const people = [
      { ...student, name: 'Perrin Vale' },
      { ...student, id: 'T', name: 'Åse Lind-Vester' },
      { ...student, id: 'U', name: 'Corin Abbot', archived: true },
    ]
    serve({ 'GET /api/day': day({ students: people }) })
    const { page } = await show(DayPage)
    const names = () => page.findAll('.students .strong').map((n) => n.text())
    expect(names()).toEqual(['Perrin Vale', 'Åse Lind-Vester'])
    const find = async (text: string) => {
      await page.find('input[type=search]').setValue(text)
      return names()
    }
    expect(await find('vest å')).toEqual(['Åse Lind-Vester'])
    expect(await find('abb')).toEqual(['Corin Abbot'])
    expect(await find('nobody')).toEqual([])
    expect(page.text()).toContain('Nobody is called that.')
    expect(await find('')).toHaveLength(2)
    await button(page, 'Show 1 archived').trigger('click')
    expect(names()).toHaveLength(3)
  })
  it('is empty at first and says what to do', async () => {
    serve({ 'GET /api/day': day({ students: [], lessons: [] }) })
    const { page } = await show(DayPage)
    expect(page.text()).toContain('Nobody is here yet.')
    await button(page, 'New student').trigger('click')
    expect(page.find('[aria-label="New student"]').exists()).toBe(true)
    expect(page.text()).not.toContain('Nobody is here yet.')
  })
  it('says that the application does not answer, and tries again', async () => {
    serve({ 'GET /api/day': { status: 503, body: {} } })
    const { page } = await show(DayPage)
    expect(page.text()).toContain('The application does not answer.')
    serve({ 'GET /api/day': day() })
    await button(page, 'Try again').trigger('click')
    await settle()
    expect(page.text()).toContain('Perrin Vale')
  })
  it('opens a case file, and says when it is none', async () => {
    const asked = serve({
      'GET /api/day': day(),
      'POST /api/cases': { status: 201, body: lesson() },
    })
    const { page, went } = await show(DayPage)
    const chooser = page.find<HTMLInputElement>('[aria-label="Case file"]')
    const choose = async (name: string, content: string) => {
      const file = { name, text: () => Promise.resolve(content) }
      Object.defineProperty(chooser.element, 'files', { value: [file], configurable: true })
      await chooser.trigger('change')
      await settle()
    }
    for (const content of ['no json', '[1]', '"text"']) {
      await choose('x.json', content)
      expect(page.find('[role=alert]').text()).toContain('This file is not a case file.')
    }
    expect(asked.filter((a) => a.call === 'POST /api/cases')).toHaveLength(0)
    await choose('oda.case.json', '{"format": "firm-footing-case"}')
    expect(asked.at(-1)).toEqual({ call: 'POST /api/cases', sent: { format: 'firm-footing-case' } })
    expect(went()).toBe('/lessons/L/shots')
  })
})

describe('lessons in a list', () => {
  it('says when, how far and what was decided', async () => {
    const yesterday = new Date(Date.now() - 24 * 3600 * 1000).toISOString()
    const lessons = [
      brief(),
      brief({ id: 'M', started_at: yesterday, decided: 'heel', balls: 1, stage: 'drill' }),
      brief({ id: 'N', finished: true, started_at: '2025-03-04T10:00:00Z' }),
    ]
    const { page } = await show(LessonList, { lessons, knowledge })
    const rows = page.findAll('li').map((l) => l.text())
    expect(rows[0]).toContain('Today')
    expect(rows[0]).toContain('open')
    expect(rows[1]).toContain('Yesterday')
    expect(rows[1]).toContain('at drill')
    expect(rows[1]?.toLowerCase()).toContain('heel leaves early')
    expect(rows[2]).toContain('finished')
    expect(rows[2]).toContain('2025')
    expect(page.findAll('a').map((a) => a.attributes('href'))).toEqual([
      '/lessons/L/shots',
      '/lessons/M/drill',
      '/lessons/N/shots',
    ])
  })
  it('says that there is none', async () => {
    const { page } = await show(LessonList, { lessons: [] })
    expect(page.text()).toBe('No lesson yet.')
  })
})

describe('a student', () => {
  const answers = (more = {}) => ({
    'GET /api/students/S': { body: { ...student, about: 'Rows.', limits: ['knee_pain'] } },
    'GET /api/students/S/lessons': { body: [brief(), brief({ id: 'M' })] },
    ...more,
  })
  it('is shown with what to respect, and a lesson begins', async () => {
    serve(answers({ 'POST /api/students/S/lessons': { status: 201, body: lesson() } }))
    const { page, went } = await show(StudentPage, { id: 'S' })
    useKnowledge().knowledge = knowledge
    await settle()
    expect(page.find('h1').text()).toBe('Perrin Vale')
    expect(page.text()).toContain('Rows.')
    expect(page.text()).toContain('Respect: knee pain')
    await button(page, 'New lesson').trigger('click')
    await settle()
    expect(went()).toBe('/lessons/L/listen')
  })
  it('is deleted only when it is said twice', async () => {
    const asked = serve(answers({ 'DELETE /api/students/S': { status: 204, body: null } }))
    const { page, went } = await show(StudentPage, { id: 'S' })
    await button(page, 'Delete this student').trigger('click')
    expect(page.text()).toContain('with all 2 lessons? This cannot be undone.')
    await button(page, 'Keep').trigger('click')
    expect(asked.some((a) => a.call.startsWith('DELETE'))).toBe(false)
    await button(page, 'Delete this student').trigger('click')
    await button(page, 'Delete for good').trigger('click')
    await settle()
    expect(asked.at(-1)?.call).toBe('DELETE /api/students/S')
    expect(went()).toBe('/')
  })
  it('stays, with a sentence, when it cannot be deleted', async () => {
    serve(answers({ 'DELETE /api/students/S': { status: 409, body: problem('It is in use.') } }))
    const { page } = await show(StudentPage, { id: 'S' })
    await button(page, 'Delete this student').trigger('click')
    await button(page, 'Delete for good').trigger('click')
    await settle()
    expect(page.find('[role=alert]').text()).toContain('It is in use. Nothing was changed.')
    expect(page.find('h1').text()).toBe('Perrin Vale')
  })
  it('that is not there is said', async () => {
    serve({ 'GET /api/students/S': { status: 404, body: problem('There is no student.') } })
    const { page } = await show(StudentPage, { id: 'S' })
    expect(page.text()).toContain('There is no student.')
  })
})

describe('a new student', () => {
  const field = (page: VueWrapper, label: string) => {
    const found = page
      .findAll('.v-field')
      .find((f) => f.text().includes(label))
      ?.find('input')
    if (!found) throw new Error(`no field is called ${label}`)
    return found
  }
  it('needs a name and a hand, and takes a handicap', async () => {
    const asked = serve({ 'POST /api/students': { status: 201, body: student } })
    const { page } = await show(StudentForm)
    await page.find('form').trigger('submit')
    await settle()
    expect(asked).toHaveLength(0)
    await field(page, 'Name').setValue('Perrin Vale')
    await field(page, 'Handicap').setValue('70')
    await page.find('form').trigger('submit')
    await settle()
    expect(asked).toHaveLength(0)
    await field(page, 'Handicap').setValue('18')
    await button(page, 'Left-handed').trigger('click')
    await button(page, 'Junior').trigger('click')
    expect(page.text()).toContain('A guardian agrees')
    await page.find('form').trigger('submit')
    await settle()
    expect(asked[0]?.sent).toEqual({
      name: 'Perrin Vale',
      handedness: 'left',
      handicap: 18,
      id: expect.any(String) as string,
      age_group: 'junior',
      limits: [],
      limit_details: {},
      about: '',
      guardian_agreed: false,
    })
    expect(page.emitted('saved')).toEqual([[student]])
  })
  it('changes one that is known, handicap as it is written at the club', async () => {
    const known = {
      ...student,
      handicap: -2,
      limits: ['knee_pain'],
      limit_details: { knee_pain: { side: 'left', since: null } },
    }
    const asked = serve({ 'PATCH /api/students/S': { body: known } })
    const { page } = await show(StudentForm, { student: known })
    expect(field(page, 'Handicap').element).toHaveProperty('value', '+2')
    await page.find('input[type=date]').setValue('2026-03-01')
    await field(page, 'Name').setValue('Perrin V.')
    await field(page, 'Handicap').setValue('12,4')
    await page.find('form').trigger('submit')
    await settle()
    expect(asked[0]?.sent).toMatchObject({
      name: 'Perrin V.',
      handicap: 12.4,
      limit_details: { knee_pain: { side: 'left', since: '2026-03-01' } },
    })
    expect(asked[0]?.sent).not.toHaveProperty('guardian_agreed')
  })
  it('says what another device changed meanwhile, and saves again knowing it', async () => {
    const told = {
      ...problem('This was changed on another device since you read it.'),
      code: 'conflict',
      where: 'about',
      theirs: 'had a hip replaced',
      mine: 'tennis',
    }
    const asked = serve({ 'PATCH /api/students/S': { status: 409, body: told } })
    const { page } = await show(StudentForm, { student })
    await field(page, 'About').setValue('tennis')
    await page.find('form').trigger('submit')
    await settle()
    expect(page.get('.problem').text()).toContain('to “had a hip replaced”. Save again')
    await page.find('form').trigger('submit')
    await settle()
    expect(asked[1]?.sent).toEqual({ about: 'tennis', was: { about: 'had a hip replaced' } })
  })
  it('keeps what was typed when it is refused', async () => {
    serve({ 'POST /api/students': { status: 422, body: problem('The name is too long.') } })
    const { page } = await show(StudentForm)
    await field(page, 'Name').setValue('Perrin Vale')
    await page.find('form').trigger('submit')
    await settle()
    expect(page.find('.problem').text()).toContain('The name is too long.')
    expect(field(page, 'Name').element.value).toBe('Perrin Vale')
    expect(page.emitted('saved')).toBeUndefined()
  })
  it('can be given up', async () => {
    const { page } = await show(StudentForm)
    await button(page, 'Cancel').trigger('click')
    expect(page.emitted('cancelled')).toHaveLength(1)
  })
})

describe('small pages', () => {
  it('the settings are kept in the browser', async () => {
    const { page } = await show(SettingsMenu)
    await page.find('[aria-label=Settings]').trigger('click')
    await settle()
    const menu = new DOMWrapper(document.body)
    const press = async (words: string) => {
      await menu
        .findAll('button')
        .find((b) => b.text() === words)
        ?.trigger('click')
      await settle()
    }
    await press('Metres')
    await press('Left, right')
    await press('Bay')
    const kept = JSON.parse(localStorage.getItem('firm-footing-settings') ?? '{}') as object
    expect(kept).toMatchObject({ distance: 'm', sides: 'left_right', mode: 'bay' })
  })
  it('an address that leads nowhere says so and leads back', async () => {
    const { page } = await show(LostPage)
    expect(page.text()).toContain('There is no such page.')
    expect(page.findAll('a').some((a) => a.attributes('href') === '/')).toBe(true)
  })
  it.each([
    ['error', true],
    ['empty', false],
    ['loading', false],
  ])('%s: can be tried again: %s', async (kind, again) => {
    const { page } = await show(StateMessage, { kind, title: 'So it is', hint: 'Do this.' })
    expect(page.text()).toContain('So it is')
    expect(page.findAll('button').some((b) => b.text() === 'Try again')).toBe(again)
    if (again) {
      await button(page, 'Try again').trigger('click')
      expect(page.emitted('retry')).toHaveLength(1)
    }
  })
})
