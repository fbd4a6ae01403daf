// Days as they are said, and the target of every ball.
import { beforeEach, describe, expect, it } from 'vitest'
import TargetLine from '@/lesson/shots/TargetLine.vue'
import { dayWord, recentWord, timeWord } from '@/ui/dates'
import { block, furnish, serve, settle, show } from './mounting'

beforeEach(() => {
  document.body.innerHTML = ''
  furnish()
})
const NOW = new Date(2026, 10, 26, 9, 30)

describe('a day', () => {
  it.each([
    ['2026-11-24', '24 Nov'],
    ['2025-11-24', '24 Nov 2025'],
    [new Date(2026, 0, 1, 0, 5).toISOString(), '1 Jan'],
  ])('%s is said %s', (iso, words) => {
    expect(dayWord(iso, NOW, ['en-GB'])).toBe(words)
  })
  it.each([
    [new Date(2026, 10, 26, 0, 1), 'Today'],
    [new Date(2026, 10, 26, 23, 59), 'Today'],
    [new Date(2026, 10, 25, 23, 59), 'Yesterday'],
    [new Date(2026, 10, 24, 23, 59), '24 Nov'],
    [new Date(2026, 10, 27, 0, 1), '27 Nov'],
  ])('%s is %s', (date, words) => {
    expect(recentWord(date.toISOString(), NOW, ['en-GB'])).toBe(words)
  })
})

describe('who reads it', () => {
  it('says days and times in the form of their own language', () => {
    expect(dayWord('2026-11-24', NOW, ['en-US'])).toBe('Nov 24')
    expect(dayWord('2026-11-24', NOW, ['de'])).toBe('24. Nov.')
    expect(timeWord(NOW, ['en-GB'])).toBe('09:30')
    expect(timeWord(NOW, ['en-US'])).toMatch(/^09:30\sAM$/)
  })
})

describe('a target of its own', () => {
  const targets = [
    { bearing_deg: -12, carry_pct: 85 },
    { bearing_deg: 0, carry_pct: 100 },
  ]
  it.each([
    [0, 'right', 'm', 137.16, '12° left, 117 m'],
    [0, 'left', 'yd', 137.16, '12° right, 128 yd'],
    [1, 'right', 'yd', null, 'middle, 100 % of the usual carry'],
  ])('ball %i of a %s-hander in %s', async (ball, hand, unit, expected_carry_m, words) => {
    serve({ 'GET /api/targets': { body: targets } })
    const hit = block([], { own_targets: true, expected_carry_m })
    const { page } = await show(TargetLine, { block: hit, ball, hand, unit })
    await settle()
    expect(page.get('[data-testid="target"] strong').text()).toBe(words)
  })
})
