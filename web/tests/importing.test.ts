// A table of balls: seen before it is kept, put right, taken in once.
import { DOMWrapper } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'
import ImportDialog from '@/lesson/shots/ImportDialog.vue'
import { textOf } from '@/lesson/shots/tableText'
import { furnish, lesson, listOf, problem, serve, settle, show } from './mounting'

const PREVIEW = 'POST /api/lessons/L/table/preview'
const TAKE = 'POST /api/lessons/L/table'
const column = (
  heading: string,
  field: string | null,
  unit = '',
  positive: string | null = null,
) => ({
  heading,
  field,
  unit,
  positive,
})
const fields = [
  { id: 'carry', name: 'Carry', units: ['m', 'yd'], positive: [] },
  { id: 'start_deg', name: 'Start direction', units: ['deg'], positive: ['right', 'left'] },
]
const bad = [{ line: 3, heading: 'Carry', cell: 'nothing', reason: 'not a number' }]
const preview = (more = {}) => ({
  columns: [
    column('Carry', 'carry', 'yd'),
    column('Start', 'start_deg', 'deg', 'right'),
    column('Note', null),
  ],
  remembered: false,
  fields,
  samples: [
    ['140', '-3', 'x'],
    ['150', '2', ''],
  ],
  balls: 2,
  already: 0,
  first: [],
  bad,
  doubtful: [],
  ...more,
})
const TABLE = 'Carry,Start,Note\n140,-3,x\n'
const body = () => new DOMWrapper(document.body)
const text = () => document.querySelector('.dialog')?.textContent.replace(/\s+/g, ' ') ?? ''

async function opened(): Promise<ReturnType<typeof show>> {
  const shown = await show(ImportDialog, { modelValue: false, lessonId: 'L', blockId: 'B' })
  await shown.give({ modelValue: true })
  await settle()
  return shown
}
async function choose(content = TABLE): Promise<void> {
  const input = document.querySelector<HTMLInputElement>('input[type=file]')
  const file = new File([content], 'bay.csv', { type: 'text/csv' })
  file.arrayBuffer ??= () =>
    Promise.resolve(new TextEncoder().encode(content).buffer as ArrayBuffer)
  Object.defineProperty(input, 'files', { value: [file], configurable: true })
  input?.dispatchEvent(new Event('change'))
  await settle()
}

beforeEach(() => {
  document.body.innerHTML = ''
  furnish()
})

describe('bringing in balls', () => {
  it('shows what the columns hold, the first rows and what cannot be taken', async () => {
    const asked = serve({ [PREVIEW]: { body: preview() } })
    await opened()
    expect(text()).toContain('Nothing is kept until you say so')
    await choose()
    expect(asked).toEqual([
      { call: PREVIEW, sent: { text: TABLE, columns: null, block_id: 'B', keep_doubtful: false } },
    ])
    expect(text()).toContain('2 balls would be taken in.')
    expect(text()).toContain('row 3, Carry “nothing”: not a number')
    expect(body().findAll('[data-testid=column]')).toHaveLength(3)
    expect(body().findAll('.out')).toHaveLength(1)
    expect(text()).toContain('was guessed')
  })
  it('names what can hardly be true, and leaves it out unless it is wanted', async () => {
    const doubtful = [{ line: 2, heading: 'Ball speed', cell: '98', reason: '98 m/s: too fast' }]
    const asked = serve({ [PREVIEW]: { body: preview({ doubtful }) } })
    await opened()
    await choose()
    expect(text()).toContain('1 value can hardly be true: left out. Is the unit right?')
    expect(text()).toContain('row 2, Ball speed “98”: 98 m/s: too fast')
    await body().find('.keep input').setValue(true)
    await settle()
    expect(asked.at(-1)?.sent).toMatchObject({ keep_doubtful: true })
    expect(text()).toContain('taken in all the same')
  })
  it('asks again when a column is put right, and takes in what was agreed', async () => {
    const asked = serve({
      [PREVIEW]: (sent) => ({
        body: preview({ columns: (sent as { columns: unknown }).columns ?? preview().columns }),
      }),
      [TAKE]: { body: { lesson: lesson(), added: 2, already: 0, bad, doubtful: [] } },
    })
    const { page } = await opened()
    await choose()
    await body().find('[aria-label="Unit of Carry"]').setValue('m')
    await settle()
    await body().find('[aria-label="Side of Start"]').setValue('left')
    await settle()
    await body().find('[aria-label="Start holds"]').setValue('')
    await settle()
    const agreed = (asked.at(-1)?.sent as { columns: object[] }).columns
    expect(agreed[0]).toEqual(column('Carry', 'carry', 'm'))
    expect(agreed[1]).toEqual(column('Start', null, '', null))
    const take = body().findAll('.buttons button').at(-1)
    expect(take?.text()).toBe('Take in 2 balls')
    await take?.trigger('click')
    await settle()
    expect(asked.at(-1)).toEqual({
      call: TAKE,
      sent: { text: TABLE, columns: agreed, block_id: 'B', keep_doubtful: false },
    })
    expect(page.emitted('taken')).toHaveLength(1)
    expect(text()).toContain('2 balls taken in.')
    expect(text()).toContain('Not taken in:')
    expect(text()).toContain('row 3, Carry “nothing”: not a number')
  })
  it('offers nothing to take where all is there already', async () => {
    serve({ [PREVIEW]: { body: preview({ remembered: true, already: 2, bad: [] }) } })
    await opened()
    await choose()
    expect(text()).toContain('as you agreed last time')
    expect(text()).toContain('2 balls are in the lesson already')
    expect(body().findAll('.buttons button').at(-1)?.attributes('disabled')).toBeDefined()
  })
  it('does not offer a field twice', async () => {
    serve({ [PREVIEW]: { body: preview() } })
    const { page } = await opened()
    await choose()
    expect(listOf(page, 'Note holds').words).toEqual(['left out'])
  })
  it('says what is wrong with a file, and with a refused import, and keeps the table', async () => {
    serve({ [PREVIEW]: { status: 409, body: problem('No row of headings was found.') } })
    await opened()
    await choose('just words')
    expect(text()).toContain('No row of headings was found. Nothing was changed.')
    serve({
      [PREVIEW]: { body: preview() },
      [TAKE]: { status: 409, body: problem('The block is gone.') },
    })
    await choose()
    await body().findAll('.buttons button').at(-1)?.trigger('click')
    await settle()
    expect(text()).toContain('The block is gone.')
    expect(body().findAll('[data-testid=column]')).toHaveLength(3)
  })
  it('is empty when it is opened again', async () => {
    serve({ [PREVIEW]: { body: preview() } })
    const { give } = await opened()
    await choose()
    await give({ modelValue: false })
    await give({ modelValue: true })
    await settle()
    expect(body().findAll('[data-testid=column]')).toHaveLength(0)
  })
})

describe('the text of a file', () => {
  const latin = new Uint8Array([0x53, 0x70, 0x69, 0x6e, 0x20, 0xb0]) // 'Spin °' as old Windows wrote it
  it('is read whatever wrote it', () => {
    expect(textOf(new TextEncoder().encode('Carry °'))).toBe('Carry °')
    expect(textOf(latin)).toBe('Spin °')
    expect(textOf(new Uint8Array([0xff, 0xfe, 0x43, 0x00]))).toBe('C')
    expect(textOf(new Uint8Array([0xfe, 0xff, 0x00, 0x43]))).toBe('C')
  })
})
