// What the lessons taught, and what is done with it.
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { ask, client, type Shape } from '@/api/client'
import { jsonObject } from '@/api/jsonFile'
import { useAttempt } from '@/api/useAttempt'

const LEARNED = ['learned']
const FORMAT = 'firm-footing-learned'
const NOT_ONE = 'This file is not what a casebook saved.'
const HINT = 'Nothing was added. Choose a file that “Save what was learned” made.'
const AGAIN_MS = 1500

export function useLearned() {
  const queries = useQueryClient()
  const { busy, problem, attempt } = useAttempt()
  let turn: Promise<unknown> = Promise.resolve()
  const { data, error, refetch } = useQuery({
    queryKey: LEARNED,
    queryFn: () => ask(client.GET('/api/casebook/learned')),
    // asked again while lessons are still being studied
    refetchInterval: (query) => (query.state.data?.waiting ? AGAIN_MS : false),
  })
  /** One after the other; no button is switched off meanwhile, for that takes the keyboard's place. */
  function change(asked: () => Promise<Shape['LearnedOut']>): Promise<void> {
    const made = turn.then(() => make(asked))
    turn = made
    return made
  }
  async function make(asked: () => Promise<Shape['LearnedOut']>): Promise<void> {
    const found = await attempt(asked)
    if (found) queries.setQueryData(LEARNED, found)
    // what any lesson's causes come to may be another now
    await queries.invalidateQueries({ queryKey: ['lesson'] })
  }
  const choose = (body: Shape['LearnedChange']) =>
    change(() => ask(client.PUT('/api/casebook/learned', { body })))
  /** What a colleague's casebook saved. */
  const add = (file: File) =>
    change(async () => {
      const body = jsonObject<Shape['Learned']>(await file.text(), FORMAT, NOT_ONE, HINT)
      const query = { name: file.name.replace(/\.json$/i, '').trim() || 'A colleague' }
      return ask(client.POST('/api/casebook/colleagues', { body, params: { query } }))
    })
  const putAway = (id: string) =>
    change(() =>
      ask(
        client.DELETE('/api/casebook/colleagues/{colleague_id}', {
          params: { path: { colleague_id: id } },
        }),
      ),
    )
  /** Hold a cause or a look still, or let it move. */
  function hold(name: string, yes: boolean): void {
    const { moved = [], looks = [] } = data.value ?? {}
    const named = [
      ...moved.map((m) => ({ name: m.cause, held: m.held })),
      ...looks.map((l) => ({ name: l.look, held: l.held })),
    ]
    const held = named.flatMap((one) => (one.held && one.name !== name ? [one.name] : []))
    void choose({ held: yes ? [...held, name] : held })
  }
  return { learned: data, error, refetch, choose, hold, add, putAway, busy, problem }
}
