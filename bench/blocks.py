"""Does the ranking use what more balls tell, and do intervals hold? `python -m bench.blocks`.

Blocks of 5, 10, 20 and 40 balls; of half and double the usual scatter; with a wood. The same
students throughout, who differ only in what they hit.
"""

import argparse
from collections.abc import Iterator, Sequence
from concurrent.futures import ProcessPoolExecutor
from typing import Final, NamedTuple

import numpy as np

from firm_footing.core.estimation.inverse import read_delivery
from firm_footing.core.knowledge import DIMENSIONS
from firm_footing.core.patterns.chance import change_of_estimates
from firm_footing.core.patterns.pattern import read_pattern
from firm_footing.files.knowledge_files import load_knowledge
from firm_footing.simulators.measure import (
    TEN_IRONS,
    Baseline,
    StudentRanked,
    draw_student,
    run,
    summarise,
)
from firm_footing.simulators.student import hit_block

BALLS: Final = (5, 10, 20, 40)
WOOD: Final = Baseline(club="3w", carry_m=180.0)
BLOCKS: Final = {
    "7 iron": TEN_IRONS,
    "half the scatter": TEN_IRONS._replace(wide=0.5),
    "double the scatter": TEN_IRONS._replace(wide=2.0),
    "3 wood": WOOD,
}
RANDOM: Final = "eight at random"
READ: Final = DIMENSIONS[:4]
TWO_SIDED_95: Final = 1.96


class Read(NamedTuple):
    """Of one student's block.

    inside : of path, face to path, low point and strike, whether the truth lies in its interval
    moved : whether the path of a second block, of the same swing, is said to have moved
    """

    inside: tuple[bool, ...]
    moved: bool


def _read(task: tuple[int, Baseline]) -> Read:
    seed, baseline = task
    knowledge = load_knowledge()
    student, case, rng = draw_student(seed, knowledge, baseline=baseline)
    again = hit_block(student, baseline.balls, baseline.club, baseline.carry_m, knowledge, rng)
    found = read_delivery(case.blocks, knowledge, case.handicap)
    sd = np.sqrt(np.diag(found.covariance))[: len(READ)]
    off = np.abs(found.mean - np.append(student.delivery, 0.0))[: len(READ)]
    before, after = (
        read_pattern(blocks, knowledge, case.handicap).path_deg for blocks in (case.blocks, [again])
    )
    moved = False
    if before is not None and after is not None:
        balls = (baseline.balls, baseline.balls)
        change = change_of_estimates((before.value, before.se), (after.value, after.se), balls)
        moved = change.p_value <= knowledge.numbers.chance.level
    return Read(tuple((off < TWO_SIDED_95 * sd).tolist()), moved)


def coverage(students: int, seed: int, baseline: Baseline) -> Iterator[Read]:
    """Of as many students, on all cores."""
    tasks = [(seed * 1_000_000 + i, baseline) for i in range(students)]
    with ProcessPoolExecutor() as pool:
        yield from pool.map(_read, tasks, chunksize=20)


def ranked(students: int, seed: int, baseline: Baseline) -> list[StudentRanked]:
    """The same students, looked at eight times at random."""
    return list(run(students, seed, RANDOM, baseline=baseline))


def gained(found: Sequence[StudentRanked], fewer: Sequence[StudentRanked] | None) -> str:
    """What more balls add to the log score of the same students, with its standard error."""
    if fewer is None:
        return ""
    each = [a.log_score - b.log_score for a, b in zip(found, fewer, strict=True)]
    return f"{np.mean(each):+.3f} ± {np.std(each) / len(each) ** 0.5:.3f}"


def section(students: int, seed: int) -> str:
    """The section of docs/MEASUREMENTS.md."""
    rows = ["| block | balls | true start first | a true cause first "
            "| log score | more than with fewer | calibration | "
            + " | ".join(f"{name} in its 95 % interval" for name in READ)
            + " | path said to have moved |"]  # fmt: skip
    rows.append("|" + "---|" * (rows[0].count("|") - 1))
    for name, block in BLOCKS.items():
        fewer = None
        for balls in BALLS:
            baseline = block._replace(balls=balls)
            students_ranked = ranked(students, seed, baseline)
            found = summarise(students_ranked)
            read = list(coverage(students, seed, baseline))
            inside = np.mean([r.inside for r in read], axis=0)
            cells = [
                name, str(balls), f"{100 * found.start:.1f} %", f"{100 * found.first:.1f} %",
                f"{np.mean([s.log_score for s in students_ranked]):.2f}",
                gained(students_ranked, fewer), f"{found.calibration_error:.3f}",
                *(f"{100 * share:.0f} %" for share in inside),
                f"{100 * np.mean([r.moved for r in read]):.0f} %",
            ]  # fmt: skip
            rows.append(f"| {' | '.join(cells)} |")
            fewer = students_ranked
    return f"""
## More balls, other scatter, a wood

`python -m bench.blocks --students {students}`

The same {students} students, eight looks at random; what they hit differs. A block's intervals are
of its middle, with what is usual as the prior (wanted: 93 to 97 %). *Path said to have moved*
compares two blocks of one unchanged swing (at most 10 %). The log score is of what is said of every
cause (nats; 0 is the best there is); what it gains over the row before is of the same students.

{chr(10).join(rows)}
"""


def main() -> None:
    """Print the section."""
    options = argparse.ArgumentParser(description=__doc__)
    options.add_argument("--seed", type=int, default=1)
    options.add_argument("--students", type=int, default=600)
    chosen = options.parse_args()
    print(section(chosen.students, chosen.seed))


if __name__ == "__main__":
    main()
