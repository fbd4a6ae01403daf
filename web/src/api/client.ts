// One typed client, one error shape.
import createClient from 'openapi-fetch'
import type { components, paths } from '@/api/schema'

export type Shape = components['schemas']
export type Lesson = Shape['LessonOut']
export type ChangedLesson = Shape['ChangedLesson']
export type Block = Shape['BlockOut']
export type LoggedShot = Shape['ShotOut']
export type Shot = Partial<Shape['Shot']>
export type Direction = NonNullable<Shape['Shot']['start']>
export type Answer = Shape['AnswerOut']
export type AnswerWord = Answer['answer']
export type Source = Answer['source']
export type Diagnosis = Shape['DiagnosisOut']
export type CauseRank = Shape['CauseRank']
export type Knowledge = Shape['KnowledgeOut']
export type Student = Shape['StudentOut']
export type Handedness = Student['handedness']

export const client = createClient<paths>({ baseUrl: globalThis.location?.origin ?? '' })

/**
 * A fetch for changes that ask for what follows: the answer's first line is the ranking, and `heard`
 * gets it while the rest is on its way.
 */
export function hearingFirst(heard: (found: Diagnosis) => void): typeof fetch {
  return async (...request) => {
    const response = await fetch(...request)
    if (!response.ok || response.body === null) return response
    const parts = response.body.pipeThrough(new TextDecoderStream()).getReader()
    let text = ''
    let first = false
    for (let part = await parts.read(); !part.done; part = await parts.read()) {
      text += part.value
      if (first || !text.includes('\n')) continue
      first = true
      const found = rankingOf(text.slice(0, text.indexOf('\n')))
      if (found) heard(found)
    }
    return new Response(text, { status: response.status, headers: response.headers })
  }
}

function rankingOf(line: string): Diagnosis | null {
  const begins = '{"diagnosis":'
  if (!line.startsWith(begins)) return null
  return JSON.parse(line.slice(begins.length, line.lastIndexOf(','))) as Diagnosis
}

/** What went wrong, as the server tells it: what happened, what was kept, what to do. */
export class ApiError extends Error {
  constructor(
    readonly shape: Shape['ErrorShape'],
    readonly status: number,
  ) {
    super(shape.message)
  }
  get hint(): string {
    return this.shape.hint
  }
}

const UNREACHABLE: Shape['ErrorShape'] = {
  code: 'unreachable',
  message: 'The application does not answer.',
  hint: 'What you entered is kept here and will be sent when it answers again.',
  where: 'network',
}

interface Answered<T> {
  data?: T
  error?: unknown
  response: Response
}

/** The data of a call, or an ApiError; status 0 means nobody answered. */
export async function ask<T>(call: Promise<Answered<T>>): Promise<T> {
  let answered: Answered<T>
  try {
    answered = await call
  } catch {
    throw new ApiError(UNREACHABLE, 0)
  }
  const { data, error, response } = answered
  if (response.ok) return data as T
  if (response.status >= 502 && response.status <= 504) throw new ApiError(UNREACHABLE, 0)
  throw new ApiError(toShape(error), response.status)
}

function toShape(error: unknown): Shape['ErrorShape'] {
  if (typeof error === 'object' && error !== null && 'message' in error && 'hint' in error) {
    return error as Shape['ErrorShape']
  }
  return {
    code: 'server',
    message: 'The application failed to answer.',
    hint: 'Nothing was changed. Try again; if it goes on, start the application anew.',
    where: 'server',
  }
}
