import { describe, expect, it } from 'vitest'
import { ApiError } from '@/api/client'
import { useAsked } from '@/api/useAsked'

const shape = { code: 'unreachable', message: 'No connection.', hint: 'Try again.', where: '' }

describe('a question put again', () => {
  it('keeps the answer to the newest question, whichever arrives last', async () => {
    const { found, put } = useAsked<string>()
    let late: (answer: string) => void = () => undefined
    const first = put(new Promise<string>((resolve) => (late = resolve)))
    await put(Promise.resolve('new'))
    late('old')
    await first
    expect(found.value).toBe('new')
  })
  it('keeps the last answer beside what went wrong, and forgets both when told', async () => {
    const { found, problem, put } = useAsked<string>()
    await put(Promise.resolve('kept'))
    await put(Promise.reject(new ApiError(shape, 0)))
    expect(found.value).toBe('kept')
    expect(problem.value?.message).toBe('No connection.')
    await put(Promise.resolve('again'))
    expect(problem.value).toBeNull()
    await put(null)
    expect(found.value).toBeNull()
  })
  it('is not disturbed by the failure of a question that was overtaken', async () => {
    const { problem, put } = useAsked<string>()
    let fail: (error: Error) => void = () => undefined
    const first = put(new Promise<string>((_, reject) => (fail = reject)))
    await put(Promise.resolve('new'))
    fail(new ApiError(shape, 0))
    await first
    expect(problem.value).toBeNull()
  })
})
