"""How often an instructor's eye is wrong: in a ranking, in the next look, learned from lessons."""

import numpy as np
import pytest

from firm_footing.core.case import Case, Reading
from firm_footing.core.case.past import DecisionOutcome, Eye
from firm_footing.core.conclusions.next_check import next_checks, start_of_each_set
from firm_footing.core.inference.answers import error_rates, log_ratio_of
from firm_footing.core.inference.check_likelihood import fact_probability
from firm_footing.core.inference.enumeration import enumerate_space
from firm_footing.core.inference.inference import infer
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.learning.counts import LessonSeen, lesson_seen, likelihood_from
from firm_footing.core.learning.eye import BINS, EyeTally, SeenAgain, eye_of, tallied
from firm_footing.core.learning.learned import learn
from firm_footing.core.text.learned import what_moved
from firm_footing.simulators.measure import draw_student
from firm_footing.simulators.student import answer

KNEE = "trail_knee_at_ball"
CALLS: Eye = ((KNEE, 4.0, 0.5),)


def case_of(*readings: Reading, eye: Eye = ()) -> Case:
    return Case(handedness="right", handicap=15.0, readings=readings, eye=eye)


@pytest.mark.parametrize("word", ["yes", "no"])
def test_an_answer_says_what_this_eye_s_answers_are_worth(knowledge: Knowledge, word: str) -> None:
    reading = Reading(check=KNEE, answer=word, source="look")  # type: ignore[arg-type]
    found = infer(case_of(reading, eye=CALLS), knowledge)
    fact = fact_probability(found.space, KNEE, found.bases[KNEE])
    error = knowledge.numbers.reading_error.of("look", "in_a_frame")
    yes = min(0.45, 4 * error) * (1 - fact) + (1 - 0.5 * error) * fact
    said = np.log(yes if word == "yes" else 1 - yes)
    (piece,) = found.pieces
    np.testing.assert_allclose(np.ptp(piece.log_likelihood - said), 0.0, atol=1e-12)


def test_what_was_measured_is_not_the_eye_s(knowledge: Knowledge) -> None:
    check, numbers = knowledge.check[KNEE], knowledge.numbers
    filmed = [Reading(check=KNEE, answer="yes", source="film", share=0.9, film=0)]
    assert log_ratio_of(filmed, check, numbers, CALLS) == log_ratio_of(filmed, check, numbers)
    for read in (
        Reading(check=KNEE, answer="yes", source="mat"),  # off an instrument
        Reading(check=KNEE, answer="yes", source="look", share=0.9, measured=True),  # with a tape
    ):
        assert log_ratio_of([read], check, numbers, CALLS) == log_ratio_of([read], check, numbers)
        case = case_of(read)
        assert lesson_seen(case, fate(), "one", "one", knowledge).answers == ()
    other = knowledge.check["seat_leaves_line"]
    assert error_rates(other, "look", CALLS, numbers) == error_rates(other, "look", (), numbers)


def test_the_next_look_tells_less_to_an_eye_that_calls_it_anyway(knowledge: Knowledge) -> None:
    """Mutual information from the joint table of answer and start, summed term by term."""
    found = infer(case_of(eye=CALLS), knowledge)
    (knee,) = (c for c in next_checks(found) if c.id == KNEE)
    wrong = error_rates(knowledge.check[KNEE], knee.source, CALLS, knowledge.numbers)
    fact = fact_probability(found.space, KNEE, found.bases[KNEE])
    yes = wrong.false_yes * (1 - fact) + (1 - wrong.false_no) * fact
    of_set = start_of_each_set(found.space, found.starts, found.root)
    start = of_set[found.space.hypotheses.set_of]
    joint = np.array(
        [
            np.bincount(start, found.now.hypothesis * said, len(knowledge.causes) + 1)
            for said in (yes, 1 - yes)
        ]
    )
    apart = joint.sum(axis=0) * joint.sum(axis=1, keepdims=True)
    some = joint > 0
    bits = (joint[some] * np.log2(joint[some] / apart[some])).sum()
    assert knee.gain_bits == pytest.approx(bits, rel=1e-4)
    plain = next(c for c in next_checks(infer(case_of(), knowledge)) if c.id == KNEE)
    assert knee.gain_bits < plain.gain_bits


def fate(said: str = "confirmed", cause: str = "late_shift") -> DecisionOutcome:
    return DecisionOutcome(decided=cause, fate=said, known_by=("retest",))  # type: ignore[arg-type]


def test_an_answer_is_held_against_the_rest_of_its_lesson(knowledge: Knowledge) -> None:
    """By the diagnosis without it; the sights of a set are those of its causes at their usual."""
    heel = Reading(check="trail_heel_up_early", answer="yes", source="film")
    knee = Reading(check=KNEE, answer="yes", source="look")
    lesson = lesson_seen(case_of(heel, knee), fate(), "one", "one", knowledge)
    space = enumerate_space(knowledge)
    prior = infer(case_of(), knowledge).prior
    (tally,) = (t for t in tallied([(lesson.likelihood * prior, lesson.answers)], space, (), ())
                if t.check == KNEE)  # fmt: skip
    rest = infer(case_of(heel), knowledge)
    so = float(rest.now.hypothesis @ fact_probability(space, KNEE, rest.bases[KNEE]))
    assert sum(tally.yes) == 1
    assert tally.yes.index(1) / BINS == pytest.approx(so - 0.5 / BINS, abs=0.06)
    with_it = infer(case_of(heel, knee), knowledge)
    both = float(with_it.now.hypothesis @ fact_probability(space, KNEE, rest.bases[KNEE]))
    assert both > so + 0.2  # itself, it would bear itself out


@pytest.mark.parametrize(("false_yes", "false_no"), [(0.03, 0.03), (0.12, 0.03), (0.03, 0.12)])
def test_rates_are_found_and_chance_moves_nothing(
    knowledge: Knowledge, false_yes: float, false_no: float
) -> None:
    """Answers drawn by known rates, of a look that the files have wrong 3 times in 100."""
    files = knowledge.numbers.reading_error.of("film", knowledge.check[KNEE].read_as)
    assert files == 0.03
    rng = np.random.default_rng(5)
    tally = EyeTally(check=KNEE, source="film")
    for rest in rng.beta(1, 1.5, 4000):
        so = rng.random() < rest
        yes = rng.random() < (1 - false_no if so else false_yes)
        tally = tally.with_answer(bool(yes), float(rest))
    found = eye_of([tally], knowledge).of(KNEE)
    for factor, rate in zip(found, (false_yes, false_no), strict=True):
        if rate == files:
            assert factor == pytest.approx(1.0, abs=0.35)
        else:
            assert 2.0 < factor <= 4.0 + 1e-9
    few = EyeTally(check=KNEE, source="film", yes=(2, *(0,) * (BINS - 1)), no=(12,) * BINS)
    assert eye_of([few], knowledge).of(KNEE)[0] < 1.5


def test_an_eye_that_says_yes_too_easily_is_found_at_all_looks_at_once(
    knowledge: Knowledge,
) -> None:
    """Fifteen answers to each look are too few by themselves."""
    rng = np.random.default_rng(8)
    tallies = []
    for check in knowledge.checks:
        tally = EyeTally(check=check.id, source=check.sources[0])
        error = error_rates(check, check.sources[0], (), knowledge.numbers).false_yes
        for rest in rng.beta(1, 5, 15):
            so = rng.random() < rest
            yes = rng.random() < (1 - error if so else min(0.45, 3 * error))
            tally = tally.with_answer(bool(yes), float(rest))
        tallies.append(tally)
    found = eye_of(tallies, knowledge)
    assert 2.0 < found.overall[0] < 4.0
    assert found.overall[1] == pytest.approx(1.0, abs=0.3)
    called = EyeTally(check=KNEE, source="film", yes=(30, *(0,) * (BINS - 1)))
    alone = eye_of([called], knowledge)  # one look says little of all the others
    assert alone.overall == (1.0, 1.0)
    assert alone.of(KNEE)[0] > 2.0
    assert len(found.own) < 5


def test_lessons_are_judged_again_by_the_eye_that_was_found(knowledge: Knowledge) -> None:
    heel = Reading(check="trail_heel_up_early", answer="no", source="film")
    knee = Reading(check=KNEE, answer="yes", source="film")
    lesson = lesson_seen(case_of(heel, knee), fate(), "one", "one", knowledge)
    bare = likelihood_from(infer(case_of(heel, knee), knowledge))
    wanted = likelihood_from(infer(case_of(heel, knee, eye=CALLS), knowledge))
    again = SeenAgain(enumerate_space(knowledge), CALLS)
    found = again.likelihood(bare, lesson.answers)
    off, before = np.abs(np.log(found / wanted)).max(), np.abs(np.log(bare / wanted)).max()
    assert off < 0.25 < 0.8 < before


def lessons_of(knowledge: Knowledge, count: int, calls: float) -> list[LessonSeen]:
    """Four looks at each student and the knee, which is called though it is not there so often.

    Where it is called, the knee is decided on; four fates of five are right.
    """
    found = []
    looks = [c.id for c in knowledge.checks if c.view != "belief" and c.id != KNEE]
    for seed in range(count):
        student, _, _ = draw_student(seed, knowledge)
        rng = np.random.default_rng([seed, 9])
        asked = [KNEE, *rng.choice(looks, 4, replace=False)]
        readings = [answer(student, str(n), knowledge, rng) for n in asked]
        if readings[0].answer == "no" and rng.random() < calls:
            readings[0] = readings[0].model_copy(update={"answer": "yes"})
        cause = "trail_knee_fires" if readings[0].answer == "yes" else "late_shift"
        right = (cause in student.causes) == (rng.random() < 0.8)
        outcome = fate("confirmed" if right else "rejected", cause)
        found.append(lesson_seen(case_of(*readings), outcome, str(seed), str(seed), knowledge))
    return found


def test_an_eye_that_calls_knees_too_often_is_found_and_told(knowledge: Knowledge) -> None:
    calls = learn(lessons_of(knowledge, 90, 0.4), knowledge)
    false_yes = {check: yes for check, yes, _ in calls.eye}
    assert false_yes[KNEE] > 2.5
    said = [s for s in what_moved(calls, knowledge) if s.startswith("Trail knee at the ball")]
    assert len(said) == 1
    assert "your eye sees it where it is not" in said[0]
    assert "(by the files 3 %)" in said[0]
    plain = learn(lessons_of(knowledge, 90, 0.0), knowledge)
    assert KNEE not in {check for check, _, _ in plain.eye}
    few = learn(lessons_of(knowledge, 8, 0.9), knowledge)
    assert few.eye == ()
