// Logging a ball by up to three touches, any of which may be skipped.
//
//   touch ──► the open ball gets it ──► touching what is filled, or Enter, begins the next ball
import { newId } from '@/sync/page'
import { computed, ref, watch } from 'vue'
import type { LoggedShot, Shot } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import type { OpenLesson, Touched } from '@/lesson/useLesson'
import type { Touch } from '@/drawing/marks'
import { toWord } from '@/ui/frame'

export type Part = 'flight' | 'divot' | 'strike' | 'contact'

const PARTS: Record<Part, readonly (keyof Shot)[]> = {
  flight: ['start', 'curve', 'start_deg', 'curve_deg', 'carry_m', 'side_m'],
  divot: ['divot_start_cm', 'divot_length_cm', 'divot_direction_deg', 'brush_start_cm'],
  strike: ['heel_toe_mm', 'low_high_mm'],
  contact: ['contact'],
}

/** So soon after the tap where a ball started, the next tap is where it landed. */
const SOON_MS = 3000

export function useBallEntry(open: OpenLesson, blockId: () => string | null) {
  const known = useKnowledge()
  /** The ball touches go to; null: the next touch begins a new one. */
  const openId = ref<string | null>(null)
  /** An earlier ball chosen to be changed. */
  const chosenId = ref<string | null>(null)

  const shots = computed(
    () => open.lesson.value?.blocks.find((b) => b.id === blockId())?.shots ?? [],
  )
  const currentId = computed(() => chosenId.value ?? openId.value)
  const newest = computed(() => currentId.value ?? shots.value.at(-1)?.id ?? null)

  // a ball is open in the block it was begun in, and in no other
  watch(blockId, () => {
    next()
  })

  // one that another device took out is changed no more
  watch(shots, (now) => {
    if (chosenId.value !== null && !now.some((s) => s.id === chosenId.value)) chosenId.value = null
  })

  /** The tap that gave a ball its start, for as long as the next tap is its landing. */
  let begun: { id: string | null; startDeg: number; at: number } | null = null

  function find(id: string | null): LoggedShot | undefined {
    return shots.value.find((s) => s.id === id)
  }

  function fill(part: Part, values: Shot, touched: Touched = {}): void {
    const block = blockId()
    if (block === null) return
    begun = null
    let ball = find(currentId.value)
    if (ball && chosenId.value === null && isFilled(ball, part)) ball = undefined
    const id = ball?.id ?? newId()
    if (chosenId.value === null) openId.value = id
    const observed = { ...without(ball?.observed ?? {}, part), ...values }
    open.putShot(id, block, observed, { ...keptTouches(ball?.touched ?? {}, part), ...touched })
  }

  function complete(id: string, values: Shot, touched: Touched): void {
    const [block, ball] = [blockId(), find(id)]
    if (block === null || ball === undefined) return
    open.putShot(id, block, { ...ball.observed, ...values }, { ...ball.touched, ...touched })
  }

  /**
   * A single value by keyboard. What an open ball was noted with is not written over: the next ball
   * begins, unless that one was chosen to be changed.
   */
  function set(values: Shot): void {
    const ball = find(currentId.value)
    const names = Object.keys(values) as (keyof Shot)[]
    const noted = ball !== undefined && names.some((name) => ball.observed[name] != null)
    if (noted && chosenId.value === null) openId.value = null
    adjust(values)
  }

  /** A single value of the ball that is open or chosen, a little more or less. */
  function adjust(values: Shot): void {
    const block = blockId()
    if (block === null) return
    begun = null
    const ball = find(currentId.value)
    const id = ball?.id ?? newId()
    if (chosenId.value === null) openId.value = id
    open.putShot(id, block, { ...(ball?.observed ?? {}), ...values }, ball?.touched ?? {})
  }

  /** A drag is a whole flight. Two taps soon after each other are one: where it started, landed. */
  function flight(f: Touch): void {
    const now = Date.now()
    const landed = begun !== null && begun.id === currentId.value && now - begun.at <= SOON_MS
    if (f.tapM !== null && begun !== null && landed) {
      const whole = { ...begun, curveDeg: f.startDeg - begun.startDeg, carryM: f.tapM }
      const id = currentId.value
      begun = null
      log(whole, id)
      return
    }
    log(f, null)
    begun = f.tapM === null ? null : { id: currentId.value, startDeg: f.startDeg, at: now }
  }
  /** onto : the ball that it completes; null for the ball that touches go to */
  function log(
    f: { startDeg: number; curveDeg: number | null; carryM: number | null },
    onto: string | null,
  ): void {
    const values: Shot = { start: toWord(f.startDeg, known.all.noting) }
    const touched: Touched = { start_deg: f.startDeg }
    if (f.curveDeg !== null && f.carryM !== null) {
      values.curve = toWord(f.curveDeg, known.all.noting)
      values.carry_m = Number(f.carryM.toFixed(2))
      touched.curve_deg = f.curveDeg
    }
    if (onto === null) fill('flight', values, touched)
    else complete(onto, values, touched)
  }
  function divot(d: {
    startCm: number
    lengthCm: number | null
    directionDeg: number | null
  }): void {
    const values: Shot = { divot_start_cm: d.startCm }
    if (d.lengthCm !== null) values.divot_length_cm = d.lengthCm
    if (d.directionDeg !== null) values.divot_direction_deg = d.directionDeg
    fill('divot', values)
  }
  function strike(s: { heelToeMm: number; lowHighMm: number }): void {
    fill('strike', { heel_toe_mm: s.heelToeMm, low_high_mm: s.lowHighMm })
  }
  function contact(word: NonNullable<Shot['contact']>): void {
    fill('contact', { contact: word })
  }

  /** A whole flight in a word. */
  function shape(noted: Shot): void {
    fill('flight', noted)
  }

  function next(): void {
    begun = null
    openId.value = null
    chosenId.value = null
  }
  function choose(id: string | null): void {
    chosenId.value = chosenId.value === id ? null : id
    openId.value = null
  }
  function step(by: 1 | -1): void {
    const at = shots.value.findIndex((s) => s.id === newest.value)
    const to = shots.value[at + by]
    if (to) {
      chosenId.value = to.id
      openId.value = null
    } else if (by === 1) next()
  }
  function remove(): void {
    const id = newest.value
    if (id === null) return
    next()
    open.deleteShot(id)
  }

  const state = { openId, chosenId, currentId, newest, shots }
  return {
    ...state,
    set,
    adjust,
    flight,
    shape,
    divot,
    strike,
    contact,
    next,
    choose,
    step,
    remove,
  }
}

export type BallEntry = ReturnType<typeof useBallEntry>

function isFilled(ball: LoggedShot, part: Part): boolean {
  return PARTS[part].some((name) => ball.observed[name] != null)
}

function without(observed: Shot, part: Part): Shot {
  const names = new Set<string>(PARTS[part])
  return Object.fromEntries(Object.entries(observed).filter(([name]) => !names.has(name)))
}

function keptTouches(touched: Touched, part: Part): Touched {
  return part === 'flight' ? {} : touched
}
