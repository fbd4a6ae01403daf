"""What do the pressure traces answer by themselves?

Only traces of swings made without a drill count toward the diagnosis. An answer given by hand from
the mat or plate replaces what the traces say of that check.
"""

from collections.abc import Iterator

from firm_footing.core.case import Case, Reading
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.soft_threshold import in_a_word
from firm_footing.core.patterns import Pattern
from firm_footing.core.pressure.recorded import TraceError
from firm_footing.core.pressure.trace import TraceRead, read_trace, with_contact


def read_traces(
    case: Case, pattern: Pattern, knowledge: Knowledge
) -> Iterator[tuple[int, TraceRead]]:
    """Every trace that can be read, with its index, seen beside the baseline's balls."""
    for i, trace in enumerate(case.traces):
        try:
            read = read_trace(
                trace,
                case.school.pressure,
                knowledge,
                drill_in_force(case, i),
                case.school.heel_toe,
            )
        except TraceError:
            continue
        yield i, with_contact(read, pattern, knowledge)


def answers_of_traces(
    case: Case, pattern: Pattern, knowledge: Knowledge
) -> dict[str, list[Reading]]:
    """Check to what the traces that count answer."""
    found: dict[str, list[Reading]] = {}
    for i, read in read_traces(case, pattern, knowledge):
        if not counts(case, i):
            continue
        for check, share in read.judged.answers.items():
            word = in_a_word(share) or "partly"
            said = Reading(check=check, answer=word, source="mat", share=share, trace=i)
            found.setdefault(check, []).append(said)
    return found


def is_clear(readings: list[Reading]) -> bool:
    """Whether a check needs no more looking at: answered by hand, or clearly measured."""
    return any(r.by_hand or r.answer != "partly" for r in readings)


def drill_in_force(case: Case, index: int) -> str | None:
    """The drill a trace was recorded with, None without one."""
    block = case.traces[index].block
    return None if block is None or case.blocks[block].kind != "trial" else case.blocks[block].drill


def counts_as_retest(case: Case, index: int) -> bool:
    """Whether a trace was made in a retest, without a drill."""
    block = case.traces[index].block
    return block is not None and case.blocks[block].kind == "retest"


def counts(case: Case, index: int) -> bool:
    """Whether a trace counts toward the diagnosis: made without a drill, before any change."""
    block = case.traces[index].block
    return block is None or case.blocks[block].kind == "baseline"
