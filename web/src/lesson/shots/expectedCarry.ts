// What carry the range of a block is drawn for.
import type { Block, Knowledge } from '@/api/client'

/**
 * The carry that a club is expected to have in this lesson: the first that was typed for it, in any
 * of its blocks, else what is usual with the club at this student's handicap. Balls never change it, so that a touch at one
 * place of the range is the same carry at the first ball and at the last, in the retest too.
 */
export function expectedCarryM(
  club: string,
  blocks: readonly Pick<Block, 'club' | 'expected_carry_m'>[],
  knowledge: Knowledge,
  usualM: Readonly<Record<string, number>> = knowledge.usual_carry_m,
): number {
  const typed = blocks.find((b) => b.club === club && b.expected_carry_m !== null)
  return typed?.expected_carry_m ?? usualM[club] ?? knowledge.noting.carry_m
}
