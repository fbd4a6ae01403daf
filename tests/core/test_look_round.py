"""A round of looks and the gain of single looks, against direct enumeration of every answer."""

from itertools import product

import numpy as np
import pytest

from firm_footing.core.case import Block, Case, Reading, Shot
from firm_footing.core.conclusions.check_round import round_of_looks
from firm_footing.core.diagnosis.diagnosis import diagnose
from firm_footing.core.inference.inference import Weighing, weigh
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


def gain_by_asking(weighing: Weighing, looks: list[tuple[str, str]], knowledge: Knowledge) -> float:
    """Bits about where to start, by diagnosing the case anew with every combination of answers."""
    start = starts_of(weighing, knowledge)

    def decided(w: Weighing) -> np.ndarray:
        return np.bincount(start, weights=w.now.cause_set, minlength=len(knowledge.causes) + 1)

    expected, whole = 0.0, 0.0
    for answers in product(("yes", "no"), repeat=len(looks)):
        chance, case = 1.0, weighing.case
        for (look, source), answer in zip(looks, answers, strict=True):
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
        expected += chance * entropy(decided(weigh(case, knowledge)))
    assert whole == pytest.approx(1.0)
    return entropy(decided(weighing)) - expected


def starts_of(weighing: Weighing, k: Knowledge) -> list[int]:
    """The start of every set, from the rules: backed first, from no other, then the likeliest."""
    pointed = {c for check in weighing.counted for c in k.check[check].all_pointers()}
    backed = {c for c in k.cause if c in pointed or weighing.balls.points[k.cause_index[c]] > 0.05}
    found = []
    for members in weighing.stories.members:
        chosen = [c.id for c, m in zip(k.causes, members, strict=True) if m > 0]
        left = [c for c in chosen if c in backed] or chosen
        roots = [c for c in left if not any(u in left for u in k.upstream[c])]
        index = [k.cause_index[c] for c in roots]
        likeliest = max(index, key=lambda i: weighing.root[i], default=len(k.causes))
        found.append(likeliest)
    return found


def chance_of(case: Case, look: str, source: str, answer: str, knowledge: Knowledge) -> float:
    """P(answer) from noisy-OR written out over the causes, story by story."""
    weighing = weigh(case, knowledge)
    check, numbers = knowledge.check[look], knowledge.numbers
    base, hypotheses = weighing.bases[look], weighing.stories.hypotheses
    levels = numbers.delivery.severity_levels
    absent = np.full(len(hypotheses.stuck), 1 - base)
    for mode in ("stuck", "thrown"):
        here = hypotheses.stuck if mode == "stuck" else ~hypotheses.stuck
        for cause, alone in knowledge.points(check, mode).items():
            each = rate(max(alone, base), base, levels)
            absent[here] *= np.exp(-each * hypotheses.severity[here, knowledge.cause_index[cause]])
    error = numbers.reading_error.of(source, check.read_as)  # type: ignore[arg-type]
    yes = (1 - absent) * (1 - error) + absent * error
    return float(weighing.now.hypothesis @ (yes if answer == "yes" else 1 - yes))


def test_the_gain_of_a_look_is_what_its_answers_leave_on_average(knowledge: Knowledge) -> None:
    weighing = weigh(CASE, knowledge)
    looks = diagnose(CASE, knowledge).next_checks
    for look in (looks[0], looks[7], looks[-1]):
        asked = gain_by_asking(weighing, [(look.id, look.source)], knowledge)
        # single precision in the ordering of looks; far below what tells two looks apart
        assert look.gain_bits == pytest.approx(asked, abs=1e-5)


def test_the_gain_of_a_round_is_what_all_its_answers_leave_on_average() -> None:
    """With looks that do not depend on each other, as a discount has no joint probability."""
    files = real_files()
    without_discounts(files)
    knowledge = cut_down({c["id"] for c in files["causes"]}, files)
    weighing = weigh(CASE, knowledge)
    found = round_of_looks(weighing, 110)
    assert len(found.looks) >= 2
    asked = gain_by_asking(weighing, [(k.id, k.source) for k in found.looks], knowledge)
    # light stories are left out of a round
    assert found.gain_bits == pytest.approx(asked, rel=0.05)


@pytest.mark.parametrize("seconds", [60, 120, 180, 300])
def test_a_round_fits_its_time_and_groups_by_standing_place(
    knowledge: Knowledge, seconds: int
) -> None:
    found = round_of_looks(weigh(CASE, knowledge), seconds)
    views = [knowledge.check[look.id].view for look in found.looks]
    setup = knowledge.numbers.decision.setup_seconds
    assert found.seconds <= seconds
    assert found.seconds == sum(k.seconds for k in found.looks) + setup * len(set(views))
    assert views == sorted(views, key=views.index)
    assert "grip_weak" not in [look.id for look in found.looks]


def test_more_time_never_tells_less(knowledge: Knowledge) -> None:
    weighing = weigh(CASE, knowledge)
    gains = [round_of_looks(weighing, s).gain_bits for s in (20, 60, 120, 240)]
    assert gains == sorted(gains)
    assert gains[0] == 0.0  # too short for any look


def test_looks_without_their_means_at_hand_are_left_out(knowledge: Knowledge) -> None:
    found = round_of_looks(weigh(CASE, knowledge), 300, ("look", "feel"))
    assert found.looks
    assert {look.source for look in found.looks} <= {"look", "feel"}


def test_a_look_counts_less_beside_answers_of_its_own_group(knowledge: Knowledge) -> None:
    """The finish is one look at one thing: an answer there discounts the other looks at it."""
    seen = Reading(check="wobbly_finish", answer="yes")
    case = CASE.model_copy(update={"readings": (*CASE.readings, seen)})
    files = real_files()
    without_discounts(files)
    free = cut_down({c["id"] for c in files["causes"]}, files)
    here = {c.id: c.gain_bits for c in diagnose(case, knowledge).next_checks}
    undiscounted = {c.id: c.gain_bits for c in diagnose(case, free).next_checks}
    half_counted = 1 / (1 + knowledge.numbers.dependent_looks.discount)
    assert here["finish_falls_to_toes"] == pytest.approx(
        half_counted * undiscounted["finish_falls_to_toes"]
    )
    assert here["trail_heel_up_early"] == pytest.approx(undiscounted["trail_heel_up_early"])
    together = round_of_looks(weigh(case, knowledge), 600)
    apart = round_of_looks(weigh(case, free), 600)
    finish = {"finish_falls_to_toes", "finish_falls_back", "trail_foot_slid_back"}
    assert together.gain_bits < apart.gain_bits or not finish & {k.id for k in apart.looks}
