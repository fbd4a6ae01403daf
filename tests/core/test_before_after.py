"""Baseline and retest beside each other, the measure that decides, and the sentences."""

from typing import Any

import numpy as np
import pytest

from firm_footing.core.case import Block, Case, Shot
from firm_footing.core.coaching.before_after import Comparison, compare
from firm_footing.core.coaching.measures import series_of
from firm_footing.core.frame import Handedness
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.patterns.chance import values_of
from firm_footing.core.text.retest import RetestWords, retest_words


def block(kind: str, starts: list[float], heel: float, club: str = "7i") -> Block:
    rng = np.random.default_rng(len(starts))
    shots = tuple(
        Shot(start_deg=s, curve_deg=1.0, heel_toe_mm=heel + float(rng.normal(0, 4)), carry_m=120)
        for s in starts
    )
    return Block.model_validate({"kind": kind, "club": club, "shots": shots})


def met(kind: str, *contacts: str | None, surface: str = "turf", **noted: Any) -> Block:
    """Balls noted by a word of contact."""
    shots = [{"contact": contact, **noted} for contact in contacts]
    return Block.model_validate({"kind": kind, "surface": surface, "shots": shots})


def compared(
    known: Knowledge, *blocks: Block, hand: Handedness = "right", primary: str | None = None,
    predicted: dict[str, float] | None = None, first: Case | None = None,
) -> Comparison:  # fmt: skip
    case = Case(handedness=hand, blocks=blocks)
    found = compare(case, primary, predicted or {}, known, first=first)
    assert found is not None
    return found


def words(found: Comparison, known: Knowledge, hand: Handedness = "right") -> RetestWords:
    return retest_words(found, hand, known)


BEFORE = [-5.0, -4, -6, -3, -5, -7, -4, -5]
FORWARD = {"low_point_cm": 7.0}


def test_the_same_club_is_compared_and_the_primary_decides(knowledge: Knowledge) -> None:
    after = block("retest", [0.0, 1, -1, 0.5, 0], -2)
    blocks = (block("baseline", BEFORE, -14), block("retest", [9.0] * 4, 0, "d"), after)
    found = compared(knowledge, *blocks, primary="start_deg", predicted={"start_deg": 4.0})
    assert (found.club, found.primary, found.fixed) == ("7i", "start_deg", True)
    start = found.deciding
    assert start.series.before == tuple(BEFORE)
    assert start.moved is not None
    assert start.moved.by == pytest.approx(np.mean([0, 1, -1, 0.5, 0]) - np.mean(BEFORE))
    assert start.predicted == pytest.approx(np.mean(BEFORE) + 4)
    assert found.result is not None
    assert found.result.state == "real"
    assert [m.name for m in found.measures] == list(knowledge.measure)


@pytest.mark.parametrize("surface", ["turf", "mat"])
def test_contact_counts_from_words_alone(surface: str, knowledge: Knowledge) -> None:
    """Four of five fat, then five clean; three fat and three thin, then five clean."""
    clean = met("retest", *["clean"] * 5, surface=surface)
    fat = met("baseline", "fat", "fat", "clean", "fat", "fat", surface=surface)
    found = compared(knowledge, fat, clean, predicted=FORWARD)
    assert found.primary == "ground_first"
    assert words(found, knowledge).headline == (
        "Better, and more than chance: met the ground first: 4 of 5 before, 0 of 5 now."
    )
    both = met("baseline", *["fat", "thin"] * 3, surface=surface)
    found = compared(knowledge, both, clean, predicted=FORWARD)
    assert found.primary == "any_miss"
    assert words(found, knowledge).headline.startswith("Better, and more than chance: missed in")


def test_the_measure_that_decides_is_as_sure_as_the_verdict(knowledge: Knowledge) -> None:
    """Though it would not be among all that are looked at: five of ten fat, then none of seven."""
    rng = np.random.default_rng(2)

    def hit(kind: str, *contacts: str) -> Block:
        seen = [
            {"contact": c, "heel_toe_mm": float(mm), "start_deg": float(deg), "carry_m": float(m)}
            for c, mm, deg, m in zip(
                contacts, rng.normal(0, 8, 10), rng.normal(0, 3, 10), rng.normal(130, 9, 10),
                strict=False,
            )
        ]  # fmt: skip
        return Block.model_validate({"kind": kind, "shots": seen})

    blocks = hit("baseline", *["fat", "clean"] * 5), hit("retest", *["clean"] * 7)
    found = compared(knowledge, *blocks, primary="ground_first")
    assert found.result is not None
    assert found.result.state == "real"
    assert found.deciding.sure
    other = compared(knowledge, *blocks, primary="start_deg")
    assert not next(m for m in other.measures if m.name == "ground_first").sure
    assert not other.deciding.sure


def test_a_low_point_by_words_counts_and_says_that_it_is_about(knowledge: Knowledge) -> None:
    found = compared(knowledge, met("baseline", *["fat"] * 6), met("retest", *["clean"] * 6))
    low = next(m for m in found.measures if m.name == "low_point_cm")
    assert low.series.by_word
    assert low.moved is not None
    assert low.sure
    by_low = compared(
        knowledge, met("baseline", *["fat"] * 6), met("retest", *["clean"] * 6),
        primary="low_point_cm",
    )  # fmt: skip
    assert "low point about 6 cm behind the ball before" in words(by_low, knowledge).headline
    assert "low point" not in " ".join(words(found, knowledge).more)  # its words are told already


def test_what_was_noted_on_one_side_only_is_not_compared(knowledge: Knowledge) -> None:
    """Marks before and words after: the marks' heel strikes are no change when they are gone."""
    marked = met("baseline", *["clean"] * 6, heel_toe_mm=-14.0)
    series = series_of([marked], [met("retest", *["clean"] * 6)], knowledge)["heel_or_hosel"]
    assert (sum(series.before), sum(series.after)) == (0, 0)
    again = met("retest", *["clean"] * 6, heel_toe_mm=-2.0)
    series = series_of([marked], [again], knowledge)["heel_or_hosel"]
    assert (sum(series.before), sum(series.after)) == (6, 0)


@pytest.mark.parametrize(
    ("name", "counts", "does_not"),
    [
        ("ground_first", {"contact": "fat"}, {"contact": "thin"}),
        ("ground_first", {"divot_start_cm": -4.0}, {"brush_start_cm": 1.0}),
        (
            "ground_first",
            {"contact": "thin", "divot_start_cm": -5.0},
            {"contact": "clean", "divot_start_cm": -5.0},
        ),
        ("thin_or_topped", {"contact": "top"}, {"contact": "clean"}),
        ("heel_or_hosel", {"contact": "heel"}, {"contact": "toe"}),
        ("heel_or_hosel", {"heel_toe_mm": -11.0}, {"heel_toe_mm": -9.0}),
        ("off_the_toe", {"heel_toe_mm": 11.0}, {"heel_toe_mm": -11.0}),
        ("off_line", {"start": "pull"}, {"start": "straight"}),
        ("curved", {"curve_deg": 4.5}, {"curve_deg": -3.5}),
        ("any_miss", {"curve": "far_push"}, {"curve": "straight"}),
    ],
)
def test_which_balls_count(
    name: str, counts: dict[str, Any], does_not: dict[str, Any], knowledge: Knowledge
) -> None:
    def series(noted: dict[str, Any]) -> tuple[float, ...]:
        return series_of([Block(shots=(Shot(**noted),) * 2)], (), knowledge)[name].before

    assert series(counts) == (1.0, 1.0)
    assert series(does_not) == (0.0, 0.0)


def test_a_clean_word_rules_a_divot_out_only_where_both_sides_have_words(
    knowledge: Knowledge,
) -> None:
    """Else the same divots would count after and not before."""
    early = {"divot_start_cm": -5.0}
    said, marked = met("baseline", *["clean"] * 6, **early), met("retest", *[None] * 6, **early)
    series = series_of([said], [marked], knowledge)["ground_first"]
    assert (sum(series.before), sum(series.after)) == (6, 6)
    series = series_of([said], [met("retest", *["clean"] * 6, **early)], knowledge)["ground_first"]
    assert (sum(series.before), sum(series.after)) == (0, 0)


def test_short_is_short_of_the_longest_of_both_blocks(knowledge: Knowledge) -> None:
    before = Block(shots=tuple(Shot(carry_m=m) for m in (100.0, 120, 118)))
    after = Block(shots=(Shot(carry_m=140.0), Shot(carry_m=130.0)))
    found = series_of([before], [after], knowledge)["short"]
    assert (found.before, found.after) == ((1.0, 1.0, 1.0), (0.0, 0.0))


def test_proposed_is_what_the_student_misses_by_and_the_cause_moves(knowledge: Knowledge) -> None:
    """Start scatters least and is sound; strike is off, and the prediction moves it."""
    before = block("baseline", [0.4, 0.2, -0.3, 0.1, 0, 0.2, -0.1, 0.3], -14)
    moves = {"start_deg": 3.0, "heel_toe_mm": 12.0}
    assert compared(knowledge, before, predicted=moves).primary == "heel_toe_mm"
    # missed by both, and only one of them moved
    both = block("baseline", BEFORE, -14)
    assert compared(knowledge, both, predicted={"start_deg": 4.0}).primary in (
        "start_deg", "off_line"
    )  # fmt: skip
    assert compared(knowledge, both, predicted={"heel_toe_mm": 14.0}).primary == "heel_toe_mm"
    assert compare(Case(handedness="right"), None, {}, knowledge) is None


def test_the_proposal_does_not_hang_on_what_came_after(knowledge: Knowledge) -> None:
    before, moves = block("baseline", BEFORE, -14), {"start_deg": 4.0}
    alone = compared(knowledge, before, predicted=moves).primary
    for after in (block("retest", [-6.0, 5, 0, 1], 9), met("retest", "fat", "fat", "fat")):
        assert compared(knowledge, before, after, predicted=moves).primary == alone


def test_words_count_by_their_middle_and_shanks_by_their_strike_alone(
    knowledge: Knowledge,
) -> None:
    shots = (Shot(start="pull", curve="push"), Shot(start="far_push", contact="hosel"))
    found = values_of([Block(shots=shots)], knowledge.numbers)
    assert found["start_deg"] == (-4.0,)
    assert found["curve_deg"] == (4.0,)


@pytest.mark.parametrize(("hand", "side"), [("right", "left"), ("left", "right")])
def test_what_became_of_it_is_said(hand: Handedness, side: str, knowledge: Knowledge) -> None:
    def said(primary: str, after: Block) -> RetestWords:
        blocks = (block("baseline", BEFORE, -14), after)
        return words(compared(knowledge, *blocks, hand=hand, primary=primary), knowledge, hand)

    mended = block("retest", [0.0, 1, -1, 0.5, 0, 0], -2)
    start = said("start_deg", mended)
    assert start.headline == f"Better, and more than chance: start 5° {side} before, straight now."
    assert start.more[0].startswith("Better too: ")
    assert "strike 18 mm to the heel before, in the middle now." in start.more[0]
    same = said("start_deg", block("retest", [-6.0, -4, -5.5], -14))
    assert "start 5° " + side + " before and now" in same.headline
    assert said("start_deg", block("retest", [0.0, 1], -2)).headline.startswith(
        "1 more ball before"
    )
    ready = words(compared(knowledge, block("baseline", BEFORE, -14), hand=hand), knowledge, hand)
    assert ready.headline.startswith("Ready. Decided by ")
    assert ready.headline.endswith(" before.")
    begun = block("baseline", BEFORE, -14)
    shots = [s.model_copy(update={"carry_m": 120.0 + i}) for i, s in enumerate(begun.shots)]
    far = begun.model_copy(update={"shots": tuple(shots)})
    carry = words(compared(knowledge, far, hand=hand, primary="carry_m"), knowledge, hand)
    assert carry.headline == "Ready. Decided by carry."  # no metres for one who reads yards


def test_what_did_not_hold_is_said_of_all_balls(knowledge: Knowledge) -> None:
    again = met("retest", *["clean"] * 4, *["fat"] * 4)
    blocks = (met("baseline", *["fat"] * 8, "clean", "clean"), again)
    found = compared(knowledge, *blocks, primary="ground_first")
    told = words(found, knowledge)
    assert told.headline == (
        "Better by more than chance after 3 balls, but not over all 8: "
        "met the ground first: 8 of 10 before, 4 of 8 now."
    )
    assert not found.deciding.sure
    assert told.to_student.startswith("On the way: met the ground first")


def test_an_improvement_comes_first_then_what_is_open_then_what_got_worse(
    knowledge: Knowledge,
) -> None:
    """Strike is better for certain, the start that decides is not, and the toe is found now."""
    after = block("retest", [-4.6, -5.2, -4.4, -5.6, -5, -4.9, -5.1, -5.3], 19)
    blocks = (block("baseline", BEFORE, -19), after)
    found = compared(knowledge, *blocks, primary="start_deg", predicted={"start_deg": 4.0})
    told = words(found, knowledge)
    assert told.headline.startswith("Better, and more than chance: off the heel or hosel: 8 of 8")
    assert "start" in told.more[0]
    assert told.more[-1].startswith("Worse: off the toe: 0 of 8 before")


def test_the_first_lesson_stands_beside_this_one(knowledge: Knowledge) -> None:
    """Strike went to the middle between the lessons; within this one nothing changed."""
    first = Case(handedness="right", blocks=(block("baseline", [-1.0] * 8, -13),))
    here = (block("baseline", [-1.0, 0, -2, -1], -1), block("retest", [-1.0, -2, 0, -1, -1], 0))
    found = compared(knowledge, *here, primary="start_deg", first=first)
    told = words(found, knowledge)
    assert told.since_first.startswith("Since the first lesson better, and more than chance: ")
    assert "strike 17 mm to the heel before, in the middle now." in told.since_first
    assert words(compared(knowledge, *here), knowledge).since_first == ""


def test_a_measure_chosen_late_is_said_to_be(knowledge: Knowledge) -> None:
    blocks = (block("baseline", BEFORE, -14), block("retest", [0.0, 1, -1], -2))
    found = compared(knowledge, *blocks, primary="heel_toe_mm")
    told = retest_words(found, "right", knowledge, "start_deg")
    assert told.chosen_late == (
        "Decided by strike since after the first ball; start was fixed before it."
    )
    assert (
        "was chosen after the first ball" in retest_words(found, "right", knowledge, "").to_student
    )
