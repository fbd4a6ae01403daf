"""Why this cause and not that one? Against the definition, by other means."""

import math

import pytest

from firm_footing.core.case import Case
from firm_footing.core.diagnosis.between import between
from firm_footing.core.inference.inference import infer
from firm_footing.core.knowledge import Knowledge
from tests.core.test_against_enumeration import CASE

ONE, OTHER = "trail_heel_pops", "toes_in_downswing"


def log2_odds(case: Case, knowledge: Knowledge) -> float:
    """Summed over the sets of causes instead of the configurations."""
    inference = infer(case, knowledge)
    index = knowledge.cause_index
    sums = {True: 0.0, False: 0.0}
    for members, p in zip(inference.space.members, inference.now.cause_set, strict=True):
        has_one, has_other = members[index[ONE]] > 0, members[index[OTHER]] > 0
        if has_one != has_other:
            sums[bool(has_one)] += float(p)
    return math.log2(sums[True] / sums[False])


def test_bits_are_what_the_odds_of_one_against_the_other_lose(knowledge: Knowledge) -> None:
    found = between(infer(CASE, knowledge), ONE, OTHER)
    bits = {w.evidence: w.bits for w in found.evidence}
    full = log2_odds(CASE, knowledge)
    assert 1 / (1 + 2**-full) == pytest.approx(found.probability)
    for dropped in ("trail_heel_up_early", "hands_out_first"):
        rest = tuple(r for r in CASE.readings if r.check != dropped)
        less = log2_odds(CASE.model_copy(update={"readings": rest}), knowledge)
        assert bits[dropped] == pytest.approx(full - less, abs=1e-9)


def test_seen_from_the_other_side_it_is_the_same(knowledge: Knowledge) -> None:
    inference = infer(CASE, knowledge)
    there, back = between(inference, ONE, OTHER), between(inference, OTHER, ONE)
    assert there.probability + back.probability == pytest.approx(1.0)
    assert {w.evidence: -w.bits for w in there.evidence} == pytest.approx(
        {w.evidence: w.bits for w in back.evidence}
    )
    assert [x.id for x in there.checks] == [x.id for x in back.checks]


def test_looks_that_separate_point_to_just_one_of_the_two(knowledge: Knowledge) -> None:
    for look in between(infer(CASE, knowledge), ONE, OTHER).checks[:3]:
        strengths = knowledge.points(knowledge.check[look.id], "thrown")
        assert strengths.get(ONE) != strengths.get(OTHER)
