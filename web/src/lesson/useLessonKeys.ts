// The keyboard of the lesson screen: everything a finger can do.
import { onMounted, onUnmounted, type Ref } from 'vue'
import { useRouter } from 'vue-router'
import type { Shot } from '@/api/client'
import { useKnowledge } from '@/api/knowledge'
import { act, type Actions } from '@/lesson/keys'
import { expectedCarryM } from '@/lesson/shots/expectedCarry'
import type { BallEntry } from '@/lesson/shots/useBallEntry'
import { BESIDE_THE_DECISION, STAGES, type Stage } from '@/lesson/stages'
import type { OpenLesson } from '@/lesson/useLesson'
import type { useSettings } from '@/ui/settings'
import { leftToRight } from '@/ui/frame'
import { toMetres } from '@/ui/units'

interface Parts {
  open: OpenLesson
  entry: BallEntry
  settings: ReturnType<typeof useSettings>
  chosenCause: Ref<string | null>
  showKeys: Ref<boolean>
  blockId: Ref<string | null>
  stage: Ref<Stage>
}

export function useLessonKeys(parts: Parts) {
  const router = useRouter()
  const known = useKnowledge()
  const { open, entry, settings, chosenCause, showKeys, blockId, stage } = parts
  const current = (): Shot =>
    entry.shots.value.find((s) => s.id === entry.currentId.value)?.observed ?? {}

  function carry(by: number): void {
    const blocks = open.lesson.value?.blocks ?? []
    const block = blocks.find((b) => b.id === blockId.value)
    if (!block || !known.knowledge) return
    const now = current().carry_m
    const from =
      now ??
      expectedCarryM(block.club, blocks, known.knowledge, open.diagnosis.value?.usual_carry_m)
    const step = now == null ? 0 : toMetres(by, settings.distance)
    entry.adjust({ carry_m: Math.max(0, from + step) })
  }
  const actions: Actions = {
    start: (start) => {
      entry.set({ start })
    },
    curve: (curve) => {
      entry.set({ curve })
    },
    shape: entry.shape,
    contact: (contact) => {
      entry.set({ contact })
    },
    strike: (mm) => {
      entry.set({ heel_toe_mm: mm })
    },
    divot: (by) => {
      const now = current().divot_start_cm
      entry.adjust({ divot_start_cm: now == null ? 0 : now + by })
    },
    carry,
    answer: open.answerAsked,
    repetition: (result) => {
      const drill = open.lesson.value?.drill
      if (drill) open.tapRepetition(drill, result)
    },
    stage: (by) => {
      const next = STAGES[STAGES.findIndex((s) => s.id === stage.value) + by]
      const id = open.lesson.value?.id
      if (next && id) void router.push({ name: 'lesson', params: { id, stage: next.id } })
    },
    next: entry.next,
    step: entry.step,
    remove: entry.remove,
    undo: open.undo,
    redo: open.redo,
    help: () => {
      showKeys.value = !showKeys.value
    },
    escape: () => {
      if (showKeys.value) showKeys.value = false
      else if (chosenCause.value) chosenCause.value = ''
      else entry.next()
    },
  }

  function onKey(event: KeyboardEvent): void {
    const hand = open.lesson.value?.student.handedness
    if (hand === undefined || !isFree(event)) return
    const single = event.key.length === 1 && !event.ctrlKey && !event.metaKey
    if (single && !settings.keys && event.key !== '?') return
    const reach = {
      balls: stage.value === 'shots',
      answers: BESIDE_THE_DECISION.includes(stage.value),
      repetitions: stage.value === 'drill',
    }
    if (act(event, leftToRight(hand), actions, reach)) event.preventDefault()
  }
  /** A button or a stage that was touched lets go of the keyboard: Enter means the next ball, not it again. */
  function onClick(event: MouseEvent): void {
    const touched = event.detail > 0
    const pressed = (event.target as HTMLElement).closest<HTMLElement>('main button, header a')
    if (touched) pressed?.blur()
  }
  onMounted(() => {
    window.addEventListener('keydown', onKey)
    window.addEventListener('click', onClick)
  })
  onUnmounted(() => {
    window.removeEventListener('keydown', onKey)
    window.removeEventListener('click', onClick)
  })
}

/** Not while something is typed, chosen from a list, or a control is about to be pressed. */
function isFree(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement | null
  if (target === null) return true
  if (target.closest('input, textarea, select, [role="listbox"], .v-overlay-container'))
    return false
  const pressable = target.closest('button, a, [role="button"]') !== null
  return !(pressable && (event.key === 'Enter' || event.key === ' '))
}
