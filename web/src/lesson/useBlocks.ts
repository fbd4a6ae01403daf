// Blocks begun from a stage: the balls are then logged on the shots.
import { useRouter } from 'vue-router'
import type { Lesson } from '@/api/client'
import type { OpenLesson } from '@/lesson/useLesson'

export function useBlocks(open: OpenLesson, lesson: () => Lesson, shown: (id: string) => void) {
  const router = useRouter()
  const baselineClub = () => lesson().blocks.find((b) => b.kind === 'baseline')?.club ?? '7i'

  function go(id: string): void {
    shown(id)
    void router.push({ name: 'lesson', params: { id: lesson().id, stage: 'shots' } })
  }
  /** Balls with a drill in force, in the block that has some already or in a new one. */
  function hitWith(drill: string): void {
    const there = lesson().blocks.find((b) => b.kind === 'trial' && b.drill === drill)
    const id = there?.id ?? crypto.randomUUID()
    if (!there) open.putBlock(id, { kind: 'trial', drill, club: baselineClub() })
    go(id)
  }
  /** Balls of the retest, with this club or the baseline's. */
  function retest(club = baselineClub(), ownTargets = false): void {
    const there = lesson().blocks.find(
      (b) => b.kind === 'retest' && b.club === club && b.own_targets === ownTargets,
    )
    const id = there?.id ?? crypto.randomUUID()
    if (!there) open.putBlock(id, { kind: 'retest', club, own_targets: ownTargets })
    go(id)
  }
  return { hitWith, retest, baselineClub }
}
