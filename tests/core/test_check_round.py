"""A round of looks and the gain of single looks, against direct enumeration of every answer."""

from itertools import product

import numpy as np
import pytest

from firm_footing.core.case import Block, Case, Reading, Shot
from firm_footing.core.conclusions.check_round import round_of_checks
from firm_footing.core.diagnosis.diagnosis import diagnose
from firm_footing.core.inference.inference import Inference, infer
from firm_footing.core.knowledge import Knowledge
from tests.core.sub_knowledge import cut_down, real_files, without_discounts
from tests.core.test_against_enumeration import rate

SHOT = Shot(start="pull", curve="push", heel_toe_mm=-12, divot_start_cm=-4)
CASE = Case(
    handedness="right",
    blocks=(Block(shots=(SHOT,) * 6),),
    readings=(Reading(check="grip_weak", answer="no"),),
)


def entropy(p: np.ndarray) -> float:
    p = p[p > 0]
    return float(-(p * np.log2(p)).sum())


def gain_by_asking(
    inference: Inference, checks: list[tuple[str, str]], knowledge: Knowledge
) -> float:
    """Bits about where to start, by diagnosing the case anew with every combination of answers."""
    start = starts_of(inference, knowledge)

    def decided(w: Inference) -> np.ndarray:
        return np.bincount(start, weights=w.now.cause_set, minlength=len(knowledge.causes) + 1)

    expected, whole = 0.0, 0.0
    for answers in product(("yes", "no"), repeat=len(checks)):
        chance, case = 1.0, inference.case
        for (look, source), answer in zip(checks, answers, strict=True):
            asked = case.model_copy(
                update={
                    "readings": (
                        *case.readings,
                        Reading.model_validate({"check": look, "answer": answer, "source": source}),
                    )
                }
            )
            chance *= chance_of(case, look, source, answer, knowledge)
            case = asked
        whole += chance
        expected += chance * entropy(decided(infer(case, knowledge)))
    assert whole == pytest.approx(1.0)
    return entropy(decided(inference)) - expected


def starts_of(inference: Inference, k: Knowledge) -> list[int]:
    """The start of every set, from the rules: backed first, from no other, then the likeliest."""
    pointed = {c for check in inference.counted for c in k.check[check].all_pointers()}
    backed = {c for c in k.cause if c in pointed or inference.balls.points[k.cause_index[c]] > 0.05}
    found = []
    for members in inference.space.members:
        chosen = [c.id for c, m in zip(k.causes, members, strict=True) if m > 0]
        left = [c for c in chosen if c in backed] or chosen
        roots = k.roots_of(left)
        index = [k.cause_index[c] for c in roots]
        likeliest = max(index, key=lambda i: inference.root[i], default=len(k.causes))
        found.append(likeliest)
    return found


def chance_of(case: Case, look: str, source: str, answer: str, knowledge: Knowledge) -> float:
    """P(answer) from noisy-OR written out over the causes, configuration by configuration."""
    inference = infer(case, knowledge)
    check, numbers = knowledge.check[look], knowledge.numbers
    base, hypotheses = inference.bases[look], inference.space.hypotheses
    levels = numbers.delivery.severity_levels
    absent = np.full(len(hypotheses.stuck), 1 - base)
    for mode in ("stuck", "thrown"):
        here = hypotheses.stuck if mode == "stuck" else ~hypotheses.stuck
        for cause, alone in knowledge.points(check, mode).items():
            each = rate(max(alone, base), base, levels)
            absent[here] *= np.exp(-each * hypotheses.severity[here, knowledge.cause_index[cause]])
    error = numbers.reading_error.of(source, check.read_as)  # type: ignore[arg-type]
    yes = (1 - absent) * (1 - error) + absent * error
    return float(inference.now.hypothesis @ (yes if answer == "yes" else 1 - yes))


def test_the_gain_of_a_look_is_what_its_answers_leave_on_average(knowledge: Knowledge) -> None:
    inference = infer(CASE, knowledge)
    checks = diagnose(CASE, knowledge).next_checks
    for look in (checks[0], checks[7], checks[-1]):
        asked = gain_by_asking(inference, [(look.id, look.source)], knowledge)
        # single precision in the ordering of looks; far below what tells two looks apart
        assert look.gain_bits == pytest.approx(asked, abs=1e-5)


def test_the_gain_of_a_round_is_what_all_its_answers_leave_on_average() -> None:
    """With looks that do not depend on each other, as a discount has no joint probability."""
    files = real_files()
    without_discounts(files)
    knowledge = cut_down({c["id"] for c in files["causes"]}, files)
    inference = infer(CASE, knowledge)
    found = round_of_checks(inference, 110)
    assert len(found.checks) >= 2
    asked = gain_by_asking(inference, [(k.id, k.source) for k in found.checks], knowledge)
    # light configurations are left out of a round
    assert found.gain_bits == pytest.approx(asked, rel=0.05)


@pytest.mark.parametrize("seconds", [60, 120, 180, 300])
def test_a_round_fits_its_time_and_groups_by_standing_place(
    knowledge: Knowledge, seconds: int
) -> None:
    found = round_of_checks(infer(CASE, knowledge), seconds)
    views = [knowledge.check[look.id].view for look in found.checks]
    setup = knowledge.numbers.decision.setup_seconds
    assert found.seconds <= seconds
    assert found.seconds == sum(k.seconds for k in found.checks) + setup * len(set(views))
    assert views == sorted(views, key=views.index)
    assert "grip_weak" not in [look.id for look in found.checks]


def test_more_time_never_tells_less(knowledge: Knowledge) -> None:
    inference = infer(CASE, knowledge)
    gains = [round_of_checks(inference, s).gain_bits for s in (20, 60, 120, 240)]
    assert gains == sorted(gains)
    assert gains[0] == 0.0  # too short for any look


def test_looks_without_their_means_at_hand_are_left_out(knowledge: Knowledge) -> None:
    found = round_of_checks(infer(CASE, knowledge), 300, ("look", "feel"))
    assert found.checks
    assert {look.source for look in found.checks} <= {"look", "feel"}


def test_a_look_counts_less_beside_answers_of_its_own_group(knowledge: Knowledge) -> None:
    """The finish is one look at one thing: an answer there discounts the other looks at it."""
    seen = Reading(check="wobbly_finish", answer="yes")
    case = CASE.model_copy(update={"readings": (*CASE.readings, seen)})
    files = real_files()
    without_discounts(files)
    free = cut_down({c["id"] for c in files["causes"]}, files)
    here = {c.id: c.gain_bits for c in diagnose(case, knowledge).next_checks}
    undiscounted = {c.id: c.gain_bits for c in diagnose(case, free).next_checks}
    half_counted = 1 / (1 + knowledge.numbers.dependent_checks.discount)
    assert here["finish_falls_to_toes"] == pytest.approx(
        half_counted * undiscounted["finish_falls_to_toes"]
    )
    assert here["trail_heel_up_early"] == pytest.approx(undiscounted["trail_heel_up_early"])
    together = round_of_checks(infer(case, knowledge), 600)
    apart = round_of_checks(infer(case, free), 600)
    finish = {"finish_falls_to_toes", "finish_falls_back", "trail_foot_slid_back"}
    assert together.gain_bits < apart.gain_bits or not finish & {k.id for k in apart.checks}
