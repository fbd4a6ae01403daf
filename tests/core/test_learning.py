"""What a casebook teaches: counts against pyAgrum, and its guards."""

from collections.abc import Sequence
from dataclasses import replace

import numpy as np
import pytest

from firm_footing.core.case import Block, Case, Reading, School, Shot
from firm_footing.core.case.past import DecisionOutcome
from firm_footing.core.inference.enumeration import enumerate_space
from firm_footing.core.inference.history_likelihood import log_ratio_of_fate
from firm_footing.core.inference.inference import infer as infer_case
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.casebook import Fate, KnownBy
from firm_footing.core.learning.counts import LessonSeen, counted, lesson_seen
from firm_footing.core.learning.learned import Learned, _beyond_chance, learn
from firm_footing.core.text.learned import what_moved
from tests.core.bayesian_oracle import infer, oracle_of
from tests.core.sub_knowledge import cut_down, real_files, without_discounts

THREE = {"late_shift", "hang_back", "weak_grip"}
HANDICAP = 10.0


def fate(cause: str, said: Fate, *by: KnownBy) -> DecisionOutcome:
    return DecisionOutcome(decided=cause, fate=said, known_by=by or ("retest",))


def test_expected_counts_are_those_of_a_general_network() -> None:
    """Three causes, twenty lessons: pyAgrum, the fate as evidence on the cause's own node."""
    files = real_files()
    without_discounts(files)
    files["schools"]["heel_or_knee"]["default"] = "heel_first"
    knowledge = cut_down(THREE, files)
    rng = np.random.default_rng(3)
    lessons, theirs = [], np.zeros(3)
    for i in range(20):
        asked = rng.choice([c.id for c in knowledge.checks], 3, replace=False)
        readings = {
            str(n): [Reading(check=str(n), answer=str(rng.choice(["yes", "no"])), source="film")]  # type: ignore[arg-type]
            for n in asked
        }
        decided = str(rng.choice(sorted(THREE)))
        outcome = fate(decided, "confirmed" if rng.random() < 0.6 else "rejected")
        case = Case(
            handedness="right", handicap=HANDICAP, school=School(heel_or_knee="heel_first"),
            readings=tuple(r for given in readings.values() for r in given),
        )  # fmt: skip
        lessons.append(lesson_seen(case, outcome, str(i), str(i), knowledge))
        network, evidence = oracle_of(knowledge, readings, HANDICAP)
        evidence[decided] = [1.0, float(np.exp(log_ratio_of_fate(outcome, knowledge.casebook)))]
        engine = infer(network, evidence)
        theirs += [engine.posterior(c.id)[1] for c in knowledge.causes]
    found = counted(lessons, enumerate_space(knowledge), {})
    np.testing.assert_allclose(found.expected, theirs, atol=1e-6)


def test_a_person_who_comes_often_counts_once(knowledge: Knowledge) -> None:
    alone = book(knowledge, ["late_shift"], person="one")
    space = enumerate_space(knowledge)
    found, once = (counted(some, space, {}).expected for some in (alone * 3, alone))
    np.testing.assert_allclose(found, once, atol=1e-12)


SIGN = {"late_shift": "shift_starts_after_top", "early_release": "angle_lost_early",
        "weak_grip": "grip_weak", "toes_in_downswing": "seat_leaves_line"}  # fmt: skip


def book(
    knowledge: Knowledge,
    causes: Sequence[str],
    *by: KnownBy,
    said: Fate = "confirmed",
    person: str | None = None,
) -> list[LessonSeen]:
    """Lessons in which a sign of a cause was seen and the cause decided on."""
    found = []
    for i, cause in enumerate(causes):
        shots = tuple(Shot(contact="fat", carry_m=120.0 + i % 7) for _ in range(6))
        fat = Block(shots=shots, expected_carry_m=135.0)
        reading = Reading(check=SIGN[cause], answer="yes", source="film")
        case = Case(handedness="right", blocks=(fat,), readings=(reading,))
        found.append(
            lesson_seen(
                case, fate(cause, said, *by), person or f"{cause} {i}", f"{cause} {i:04}", knowledge
            )
        )
    return found


def test_what_comes_often_becomes_commoner_within_its_limit(knowledge: Knowledge) -> None:
    a_third = ["early_release", "late_shift", "weak_grip"] * 5
    few = learn(book(knowledge, a_third), knowledge)
    many = learn(book(knowledge, ["early_release"] * 80), knowledge)
    assert 1.15 < few.causes["early_release"].factor < many.causes["early_release"].factor
    assert few.causes["over_effort"].factor == 1.0  # fewer than expected, by no more than chance
    assert many.causes["early_release"].here > 2 * many.causes["early_release"].shipped
    most = knowledge.casebook.most_factor
    for found in many.causes.values():
        assert 1 / most - 1e-9 <= found.factor <= most + 1e-9
    said = list(what_moved(many, knowledge))
    assert said[0] == "80 outcomes of 80 students known, all by more than your own word."
    assert said[1].startswith("Wrist angle thrown away early: 5.6 % of students by the files,")
    assert "80 of 80 decisions were “wrist angle thrown away early”; 80 of 80 measured" in said[-1]


def test_a_lesson_teaches_once(knowledge: Knowledge) -> None:
    """Told twice at a time, or again after what was learned from it before."""
    lessons = book(knowledge, ["early_release"] * 14)
    once = learn(lessons, knowledge)
    assert len(once.lessons) == once.outcomes == 14
    assert learn([*lessons, *lessons[:5]], knowledge) == once
    again = learn(lessons[:9], knowledge, before=once)
    assert again.model_dump(exclude={"causes"}) == once.model_dump(exclude={"causes"})
    more = learn([*lessons, *book(knowledge, ["weak_grip"])], knowledge, before=once)
    assert more.outcomes == more.everything.lessons == 15
    of_nobody = [replace(one, person=one.order) for one in lessons]
    assert learn([*of_nobody, *of_nobody], knowledge).outcomes == 28
    old = once.model_copy(update={"lessons": ()})  # of before lessons were marked
    assert learn(lessons[:1], knowledge, before=old).outcomes == 15


def test_how_common_a_cause_is_said_to_be_is_what_a_ranking_begins_with(
    knowledge: Knowledge,
) -> None:
    """Before anything is seen: as shipped without, and as told with, what was learned."""
    learned = learn(book(knowledge, ["early_release"] * 20), knowledge)
    told = learned.causes
    assert told["early_release"].here > 1.5 * told["early_release"].shipped
    for factors, said in (
        ((), [told[c.id].shipped for c in knowledge.causes]),
        (learned.how_common, [told[c.id].here for c in knowledge.causes]),
    ):
        begun = infer_case(Case(handedness="right", how_common=factors), knowledge)
        np.testing.assert_allclose(begun.now.present, said, rtol=1e-9)


def test_before_enough_fates_are_known_nothing_moves(knowledge: Knowledge) -> None:
    found = learn(book(knowledge, ["early_release"] * 9), knowledge)
    assert {c.factor for c in found.causes.values()} == {1.0}
    assert found.how_common == ()
    assert "Nothing moves before 10 outcomes are known." in what_moved(found, knowledge)
    assert list(what_moved(learn([], knowledge), knowledge)) == [
        "No outcome is known yet, and nothing is learned."
    ]


def test_a_favourite_confirmed_by_word_moves_at_most_a_fifth(knowledge: Knowledge) -> None:
    causes = ["early_release"] * 40
    word, retest = (learn(book(knowledge, causes, by), knowledge) for by in ("word", "retest"))  # type: ignore[arg-type]
    moved = [np.log(f.causes["early_release"].factor) for f in (word, retest)]
    assert 0 < moved[0] <= 0.2 * moved[1] + 1e-9
    assert list(what_moved(word, knowledge))[-1].endswith("0 of 0 measured outcomes agreed.")


def test_the_order_of_lessons_is_nothing_and_they_can_come_in_parts(knowledge: Knowledge) -> None:
    causes = ["late_shift", "early_release", "weak_grip", "early_release"] * 6
    lessons = book(knowledge, causes)
    whole, back = learn(lessons, knowledge), learn(lessons[::-1], knowledge)
    assert whole == back
    part = learn(lessons[12:], knowledge, learn(lessons[:12], knowledge))
    assert part.outcomes == whole.outcomes
    assert part.decisions == whole.decisions
    for name, found in part.causes.items():
        assert found.factor == pytest.approx(whole.causes[name].factor, rel=0.12)
    assert Learned.model_validate_json(whole.model_dump_json()) == whole


def test_what_chance_would_do_moves_nothing(knowledge: Knowledge) -> None:
    """Counts as the files expect them, off by one standard deviation of plain chance."""
    numbers = knowledge.casebook
    shipped = np.array([0.05, 0.1, 0.2, 0.15])
    count, rest = 100.0, np.zeros(4)
    alone = np.array([1.0, -1.0, 1.0, -1.0]) * np.sqrt(count * 0.3 * shipped * (1 - shipped))
    near = _beyond_chance(count * shipped + alone, rest, shipped, count, numbers)
    assert near.max() < 0.1
    far = _beyond_chance(count * shipped + 4 * alone, rest, shipped, count, numbers)
    assert far.min() > 0.5
    same = _beyond_chance(3 * count * shipped, rest, shipped, count, numbers)
    assert same.max() == 0.0  # all of them alike are none
