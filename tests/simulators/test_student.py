"""Does the simulated student do what its causes say, on average over many?"""

from collections import Counter

import numpy as np
import pytest
from bench.knower import Belief, Knower, delivery_known, prior_of_sets

from firm_footing.core.case import Case
from firm_footing.core.diagnosis.diagnosis import diagnose
from firm_footing.core.knowledge import Knowledge
from firm_footing.simulators.measure import (
    StudentRanked,
    draw_student,
    log_score,
    looks_at_random,
    outcome,
    summarise,
)
from firm_footing.simulators.student import (
    CANNOT_TELL,
    NORMAL,
    SEVERITY_SHAPE,
    answer,
    draw_causes,
    draw_mode,
    hit_block,
    make_student,
    push_of,
)

MANY = 1500


@pytest.mark.parametrize("cause", ["hang_back", "trail_heel_pops", "weak_grip", "jumps_early"])
def test_mean_deliveries_follow_the_table_of_effects(knowledge: Knowledge, cause: str) -> None:
    rng = np.random.default_rng(1)
    people = [make_student([cause], 25, "thrown", knowledge, rng).delivery for _ in range(MANY)]
    sound = [make_student([], 25, "thrown", knowledge, rng).delivery for _ in range(MANY)]
    shift = np.mean(people, axis=0) - np.mean(sound, axis=0)
    expected = np.array(knowledge.cause[cause].effect_in("thrown", None).row())
    spread = np.array(knowledge.numbers.delivery.person_sd.row()) + 0.5 * np.abs(expected)
    assert (np.abs(shift - expected) < 5 * spread / np.sqrt(MANY) + 0.35).all()


def test_signs_are_as_common_as_stated(knowledge: Knowledge) -> None:
    """Yes-answers without a cause: the base rate, read with the source's error."""
    rng = np.random.default_rng(2)
    check = knowledge.check["seat_leaves_line"]
    sound = [make_student([], 18, "thrown", knowledge, rng) for _ in range(MANY)]
    said = [answer(s, check.id, knowledge, rng).answer for s in sound]
    error = knowledge.numbers.reading_error.of("film", check.read_as)
    base = check.base_rate(18)
    expected = (1 - CANNOT_TELL) * (base * (1 - error) + (1 - base) * error)
    assert said.count("yes") / MANY == pytest.approx(expected, abs=0.04)
    ill = [make_student(["toes_in_downswing"], 18, "thrown", knowledge, rng) for _ in range(MANY)]
    seen = [answer(s, check.id, knowledge, rng).answer for s in ill]
    assert seen.count("yes") > 4 * said.count("yes")


def test_causes_come_as_often_as_the_prior_says(knowledge: Knowledge) -> None:
    rng = np.random.default_rng(3)
    drawn = [draw_causes(knowledge, rng) for _ in range(MANY)]
    none = knowledge.numbers.prior.causes_present[0]
    assert sum(not d for d in drawn) / MANY == pytest.approx(none, abs=0.02)
    linked = [d for d in drawn if "over_effort" in d and len(d) > 1]
    added = set(knowledge.cause["over_effort"].upstream_of)
    assert sum(bool(added & set(d)) for d in linked) > len(linked) / 2
    good = [draw_mode(0, knowledge, rng) for _ in range(MANY)]
    assert good.count("stuck") / MANY == pytest.approx(0.7, abs=0.05)


def test_a_block_is_noted_as_an_instructor_would(knowledge: Knowledge) -> None:
    rng = np.random.default_rng(4)
    student = make_student(["hang_back"], 25, "thrown", knowledge, rng)
    irons = hit_block(student, 40, "7i", 130.0, knowledge, rng)
    assert {"fat", "thin"} <= {s.contact for s in irons.shots}
    assert all(s.start is not None and s.start_deg is None for s in irons.shots)
    assert all((s.divot_start_cm is None) == (s.contact in ("thin", "hosel")) for s in irons.shots)
    driver = hit_block(student, 10, "d", 180.0, knowledge, rng)
    assert all(s.divot_start_cm is None for s in driver.shots)


def test_the_same_seed_is_the_same_student(knowledge: Knowledge) -> None:
    (one, case, _), (other, again, _) = (draw_student(7, knowledge) for _ in range(2))
    assert case == again
    assert one.causes == other.causes
    assert 1 <= len(one.causes) <= 2


def test_the_summary_counts_what_it_says() -> None:
    told = StudentRanked(True, False, True, ((0.9, True), (0.1, False), (0.85, False)), 8, -2.0)
    missed = StudentRanked(False, False, True, ((0.3, True), (0.3, False), (0.3, False)), 6, -3.0)
    found = summarise([told, missed])
    assert (found.first, found.start, found.in_three, found.looks) == (0.5, 0.0, 1.0, 7.0)
    assert found.sure == 2
    assert found.sure_and_true == 0.5
    by_hand = (1 * 0.1 + 1 * 0.1 + 1 * 0.85 + 3 * abs(0.3 - 1 / 3)) / 6
    assert found.calibration_error == pytest.approx(by_hand)


def test_the_log_score_is_of_what_was_given_to_what_is_true() -> None:
    assert log_score([(1.0, True), (0.0, False)]) == 0
    assert log_score([(0.5, True), (0.75, False)]) == pytest.approx(np.log(0.5) + np.log(0.25))
    assert log_score([(0.0, True)]) == pytest.approx(np.log(1e-9))  # and not without end


def test_an_outcome_is_judged_by_the_hidden_truth(knowledge: Knowledge) -> None:
    found = diagnose(Case(handedness="right"), knowledge)
    first = found.causes[0].id
    judged = outcome(found, [first], knowledge, 0)
    assert (judged.first, judged.start, judged.in_three) == (True, True, True)
    above = next((c for c in knowledge.upstream[first]), "hang_back")
    brought_about = outcome(found, [above, first], knowledge, 0)
    assert (brought_about.first, brought_about.start) == (True, not knowledge.upstream[first])
    assert not outcome(found, [], knowledge, 0).in_three


@pytest.mark.parametrize("stated", [0.9, 0.6, 0.4])
def test_over_all_severities_a_sign_is_as_common_as_the_trade_says(stated: float) -> None:
    rng = np.random.default_rng(5)
    base = NORMAL.inv_cdf(0.12)
    severity = rng.gamma(SEVERITY_SHAPE, 1 / SEVERITY_SHAPE, size=20_000)
    seen = base + push_of(stated, base) * severity + rng.normal(size=20_000) > 0
    assert seen.mean() == pytest.approx(stated, abs=0.012)  # three standard errors and a little


def test_who_knows_the_stand_in_draws_sets_as_it_does(knowledge: Knowledge) -> None:
    """The knower's prior of one and two causes against as many draws."""
    rng = np.random.default_rng(6)
    drawn = [draw_causes(knowledge, rng) for _ in range(30_000)]
    few = [tuple(sorted(d)) for d in drawn if 1 <= len(d) <= 2]
    expected = {tuple(sorted(names)): share for names, share in prior_of_sets(knowledge).items()}
    assert sum(expected.values()) == pytest.approx(1.0)
    counted = Counter(few)
    for names in sorted(expected, key=lambda n: -expected[n])[:25]:
        error = (expected[names] * len(few)) ** 0.5
        assert abs(counted[names] - expected[names] * len(few)) < 4.5 * error
    assert set(counted) <= set(expected)


def test_who_knows_everything_is_calibrated(knowledge: Knowledge) -> None:
    """Given the delivery itself, what is said comes true as often as it is said."""
    knower = Knower(knowledge)
    said, true = [], []
    for seed in range(60):
        student, case, rng = draw_student(seed, knowledge)
        belief = Belief(knower, delivery_known(student, knowledge), case.handicap or 0.0)
        for look in looks_at_random(knowledge, rng):
            belief.take(answer(student, look, knowledge, rng))
        said += belief.present.tolist()
        true += [c in student.causes for c in knowledge.cause]
    surely = np.array(said) > 0.3
    wrong = np.array(said)[surely] - np.array(true)[surely]
    assert surely.sum() > 40
    assert abs(wrong.mean()) < 3 * 0.5 / surely.sum() ** 0.5
