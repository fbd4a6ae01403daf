// What an instructor has chosen, who they are, and whose the other devices are.
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { useKnowledge } from '@/api/knowledge'
import InstructorList from '@/settings/InstructorList.vue'
import OtherDevices from '@/settings/OtherDevices.vue'
import SettingsPage from '@/settings/SettingsPage.vue'
import { useSettings } from '@/ui/settings'
import { useProfile } from '@/ui/useProfile'
import { furnish, knowledge, serve, settle, show, using } from './mounting'

beforeEach(() => {
  document.body.innerHTML = ''
  furnish()
})
const SCHOOL = {
  pressure: 'recentre',
  heel_toe: 'undecided',
  lead_foot: 'undecided',
  start: 'ground_up',
  trail_hip: 'undecided',
  head: 'undecided',
}
const ona = {
  id: 'ona',
  name: 'Ona Field',
  place: 'Gorse Quay',
  school: SCHOOL,
  sides: 'lead_trail',
}
const bo = { ...ona, id: 'bo', name: 'Bo Tarn' }
const both = { body: { mine: ona, all: [ona, bo] } }

describe('the settings', () => {
  it('are kept in the browser, with the school of new lessons', async () => {
    serve({ 'GET /api/knowledge': { body: knowledge } })
    const { page } = await show(SettingsPage)
    await useKnowledge().load()
    await settle()
    const press = (words: string) =>
      page
        .findAll('button')
        .find((b) => b.text() === words)
        ?.trigger('click')
    await press('Metres')
    await press('Left, right')
    const settings = useSettings()
    settings.school = { ...settings.school, heel_toe: 'heels' }
    await settle()
    const said = 'Heel and toe, heels: Back. Its drills come first: Mirror.'
    expect(page.text().replace(/\s+/g, ' ')).toContain(said)
    const kept = JSON.parse(localStorage.getItem('firm-footing-settings') ?? '{}')
    expect(kept).toMatchObject({
      distance: 'm',
      sides: 'left_right',
      school: { heel_toe: 'heels' },
    })
  })
})

describe('the profile', () => {
  const followed = () =>
    using(() => {
      useProfile()
      return useSettings()
    })

  it('comes from the server, and changes go there once they stand', async () => {
    const mine = { ...ona, sides: 'left_right' }
    const asked = serve({
      'GET /api/instructors': { body: { mine, all: [mine] } },
      'PUT /api/instructors/mine': (sent) => ({ body: { ...mine, ...(sent as object) } }),
    })
    const { used: settings, leave } = await followed()
    await settle()
    expect(settings).toMatchObject({ by: 'Ona Field', place: 'Gorse Quay', sides: 'left_right' })
    settings.place = 'Bay'
    await settle()
    settings.place = 'Bay 3'
    await vi.waitFor(() => {
      expect(asked.filter((a) => a.call.startsWith('PUT'))).toHaveLength(1)
    })
    expect(asked.find((a) => a.call.startsWith('PUT'))?.sent).toMatchObject({ place: 'Bay 3' })
    await settle()
    expect(localStorage.getItem('firm-footing-profile-unsent')).toBeNull()
    leave()
  })

  it('typed without a connection is not written over by the older one, and goes when it returns', async () => {
    let connected = false
    const asked = serve({
      'GET /api/instructors': { body: { mine: ona, all: [ona] } },
      'PUT /api/instructors/mine': (sent) =>
        connected ? { body: { ...ona, ...(sent as object) } } : { status: 503, body: {} },
    })
    const first = await followed()
    await settle()
    first.used.by = 'Ona Field-Brandt'
    await vi.waitFor(() => {
      expect(asked.some((a) => a.call.startsWith('PUT'))).toBe(true)
    })
    await settle()
    first.leave()
    const { used: settings, leave } = await followed()
    await settle()
    expect(settings.by).toBe('Ona Field-Brandt')
    connected = true
    window.dispatchEvent(new Event('online'))
    await settle()
    expect(asked.filter((a) => a.call.startsWith('PUT')).at(-1)?.sent).toMatchObject({
      name: 'Ona Field-Brandt',
    })
    expect(localStorage.getItem('firm-footing-profile-unsent')).toBeNull()
    leave()
  })

  it('is given to a server that knows nobody', async () => {
    localStorage.setItem('firm-footing-settings', JSON.stringify({ by: 'Bo Tarn' }))
    const asked = serve({
      'GET /api/instructors': { body: { mine: null, all: [] } },
      'PUT /api/instructors/mine': { body: bo },
    })
    const { leave } = await followed()
    await settle()
    expect(asked.find((a) => a.call.startsWith('PUT'))?.sent).toMatchObject({ name: 'Bo Tarn' })
    leave()
  })
})

describe('the instructors', () => {
  it('are added, chosen for this machine, and deleted, and a refusal is said', async () => {
    const message = 'Bo Tarn works at this machine.'
    const asked = serve({
      'GET /api/instructors': both,
      'POST /api/instructors': { status: 201, body: bo },
      'PUT /api/instructors/bo/here': { status: 204, body: null },
      'DELETE /api/instructors/bo': {
        status: 409,
        body: { code: 'refused', message, hint: 'Choose somebody else.', where: '' },
      },
    })
    const { page } = await show(InstructorList)
    await settle()
    await page.get('input').setValue('  Bo Tarn ')
    await page.get('form').trigger('submit')
    await settle()
    expect(asked.find((a) => a.call.startsWith('POST'))?.sent).toEqual({ name: 'Bo Tarn' })
    const chosen = page.findAll('button').find((b) => b.text() === 'Bo Tarn')
    await chosen?.trigger('click')
    await settle()
    expect(asked.map((a) => a.call)).toContain('PUT /api/instructors/bo/here')
    await page.get('[aria-label="Delete Bo Tarn"]').trigger('click')
    expect(asked.some((a) => a.call.startsWith('DELETE'))).toBe(false)
    await page
      .findAll('button')
      .find((b) => b.text() === 'Delete Bo Tarn')
      ?.trigger('click')
    await settle()
    expect(page.get('[role=alert]').text()).toContain(message)
  })

  it('own devices: a code is for one of them, and a device goes to another', async () => {
    const device = {
      id: 'd',
      name: 'Tablet',
      instructor_id: null,
      paired_at: '2026-11-20T10:00:00Z',
    }
    const asked = serve({
      'GET /api/instructors': both,
      'GET /api/pairing': {
        body: { address: 'http://a', encrypted: false, here: true, devices: [device] },
      },
      'POST /api/pairing/offer': { body: { code: '123456', seconds: 300, picture: '' } },
      'PATCH /api/devices/d': { status: 204, body: null },
    })
    const { page, leave } = await show(OtherDevices)
    await settle()
    const [next, owner] = page.findAllComponents({ name: 'ChooseOne' })
    expect(owner?.props('on')).toBe('ona')
    owner?.vm.$emit('chosen', 'bo')
    next?.vm.$emit('chosen', 'bo')
    await settle()
    await page
      .findAll('button')
      .find((b) => b.text() === 'Show a code')
      ?.trigger('click')
    await settle()
    expect(asked.find((a) => a.call === 'PATCH /api/devices/d')?.sent).toEqual({
      instructor_id: 'bo',
    })
    expect(asked.find((a) => a.call.endsWith('offer'))?.sent).toEqual({ instructor_id: 'bo' })
    expect(page.get('[data-testid=code]').text()).toBe('123456')
    next?.vm.$emit('chosen', 'ona')
    await settle()
    expect(page.find('[data-testid=code]').exists()).toBe(false)
    leave()
  })
})
