// Blocks begun from a stage: the balls are then logged on the shots.
import { newId } from '@/sync/page'
import { useRouter } from 'vue-router'
import type { Lesson, Shape } from '@/api/client'
import type { OpenLesson } from '@/lesson/useLesson'

export function useBlocks(open: OpenLesson, lesson: () => Lesson, shown: (id: string) => void) {
  const router = useRouter()
  const baseline = () => lesson().blocks.find((b) => b.kind === 'baseline')
  const baselineClub = () => baseline()?.club ?? '7i'
  /** As the baseline was hit, so that the two can be compared; another club has its own carry. */
  function asBaseline(club = baselineClub()): Shape['BlockIn'] {
    const { surface = null, teed = null, expected_carry_m = null } = baseline() ?? {}
    return club === baselineClub() ? { club, surface, teed, expected_carry_m } : { club, surface }
  }

  function go(id: string): void {
    shown(id)
    void router.push({ name: 'lesson', params: { id: lesson().id, stage: 'shots' } })
  }
  /** Balls with a drill in force, in the block that has some already or in a new one. */
  function hitWith(drill: string): void {
    const there = lesson().blocks.find((b) => b.kind === 'trial' && b.drill === drill)
    const id = there?.id ?? newId()
    if (!there) open.putBlock(id, { kind: 'trial', drill, ...asBaseline() })
    go(id)
  }
  /** Balls of the retest, with this club or the baseline's. */
  function retest(club = baselineClub(), ownTargets = false): void {
    const there = lesson().blocks.find(
      (b) => b.kind === 'retest' && b.club === club && b.own_targets === ownTargets,
    )
    const id = there?.id ?? newId()
    if (!there) open.putBlock(id, { kind: 'retest', own_targets: ownTargets, ...asBaseline(club) })
    go(id)
  }
  return { hitWith, retest }
}
