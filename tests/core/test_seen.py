"""Seen is seen: what a look that shows a cause does, alone, with fitting balls, with sound ones."""

import math

import numpy as np
import pytest

from firm_footing.core.case import Block, Case, Reading, Shot
from firm_footing.core.diagnosis.diagnosis import Diagnosis, RankedCause, diagnose
from firm_footing.core.estimation.expected import setting_of
from firm_footing.core.inference.inference import infer
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.physics.forward import LOW_POINT, PARTS, play
from firm_footing.files.knowledge_files import load_knowledge
from firm_footing.simulators.measure import draw_student
from firm_footing.simulators.noting import direction_word
from tests.core.swings import SEEN, swing

SHOWING = [(c.id, c.shows) for c in load_knowledge().checks if c.shows]
FRAME = Block(club="7i", expected_carry_m=135.0, surface="turf")
CLEAN = Shot(
    start="straight",
    curve="straight",
    contact="clean",
    heel_toe_mm=0,
    divot_start_cm=1,
    carry_m=134,
)
SHORT_OF_HALF = {
    "heels_at_address": 0.44,
    "square_lead_foot": 0.44,
    "early_lead_rush": 0.35,  # of an ordinary player, thrown out
    "chest_rush": 0.25,  # its balls are those of five others, whose hands come out as well
}
"""They hardly move the ball, or as others do: even a grave case stays under one half."""


def case(*readings: Reading, block: Block | None = None) -> Case:
    return Case(handedness="right", blocks=(block,) if block else (), readings=readings)


def of(found: Diagnosis, cause: str) -> RankedCause:
    return next(c for c in found.causes if c.id == cause)


def made_by(cause: str, knowledge: Knowledge) -> Block:
    """Six balls alike, as a clear case of this cause sends them and as they would be noted."""
    sides = knowledge.cause[cause].sides
    effect = np.array(knowledge.effects[cause, None, sides[0].id if sides else None])
    parts = np.zeros((1, len(PARTS)))
    parts[0, : len(effect)] = 1.4 * effect
    parts[0, LOW_POINT] += 2.5
    setting = setting_of(FRAME, knowledge)
    flown = play(parts, setting)
    low, strike = float(parts[0, LOW_POINT]), float(parts[0, 3])
    shot = Shot(
        start=direction_word(float(flown.launch.direction_deg[0]), knowledge.numbers.shape),
        curve=direction_word(float(flown.curve_deg[0]), knowledge.numbers.shape),
        contact="fat" if low < -3 else "clean",
        heel_toe_mm=max(strike, -24.0),
        divot_start_cm=round(low - 6),
        carry_m=round(float(flown.flight.carry_m[0])),
    )
    return FRAME.model_copy(update={"shots": (shot,) * 6})


@pytest.mark.parametrize(("check", "cause"), SHOWING)
def test_one_yes_puts_the_cause_that_was_seen_first(
    knowledge: Knowledge, check: str, cause: str
) -> None:
    if check == "hips_back_away":
        pytest.skip("points to hanging back as well, which is far commoner: second, marked seen")
    found = diagnose(case(Reading(check=check, answer="yes")), knowledge)
    assert found.causes[0].id == cause
    assert found.causes[0].seen == "yes"
    assert found.start_with == cause
    assert "unlikely" not in found.causes[0].word


@pytest.mark.parametrize(("check", "cause"), SHOWING)
def test_six_sound_balls_leave_it_seen_and_hardly_behind_them(
    knowledge: Knowledge, check: str, cause: str
) -> None:
    six = FRAME.model_copy(update={"shots": (CLEAN,) * 6})
    found = of(diagnose(case(Reading(check=check, answer="yes"), block=six), knowledge), cause)
    assert found.seen == "yes"
    assert found.probability < 0.1
    assert found.word == "seen_hardly_behind"


@pytest.mark.parametrize(("check", "cause"), SHOWING)
def test_six_fitting_balls_raise_what_was_seen(
    knowledge: Knowledge, check: str, cause: str
) -> None:
    yes = Reading(check=check, answer="yes")
    six = made_by(cause, knowledge)
    sound = FRAME.model_copy(update={"shots": (CLEAN,) * 6})
    fitting, alone, with_sound = (
        of(diagnose(case(yes, block=block), knowledge), cause) for block in (six, None, sound)
    )
    if cause == "over_effort":  # widens the scatter; balls alike say the opposite
        return
    assert fitting.probability > 2 * with_sound.probability
    if check == "sitting_in_heels":  # a feel, wrong one time in four
        return
    assert fitting.probability > alone.probability
    assert fitting.probability >= SHORT_OF_HALF.get(cause, 0.5)


@pytest.mark.parametrize("answers", [(250, 250), (300, 50), (0, 400)])
def test_answers_that_contradict_each_other_saturate(
    knowledge: Knowledge, answers: tuple[int, int]
) -> None:
    yes, no = (Reading(check="trail_heel_up_early", answer=a) for a in ("yes", "no"))
    found = diagnose(case(*[yes] * answers[0], *[no] * answers[1]), knowledge)
    assert all(0 <= c.root <= c.probability + 1e-12 <= 1 + 1e-9 for c in found.causes)
    assert math.isfinite(sum(c.probability for c in found.causes))
    often = of(diagnose(case(*[yes] * 300), knowledge), "trail_heel_pops").probability
    twice = of(diagnose(case(*[yes] * 2), knowledge), "trail_heel_pops").probability
    assert often == pytest.approx(twice, abs=0.1)


@pytest.mark.parametrize("sign", ["late", "retreat", "never_left"])
def test_ten_copies_of_a_trace_say_what_one_says(knowledge: Knowledge, sign: str) -> None:
    one = Case(handedness="right", traces=(swing(changed=SEEN[sign]),))
    ten = one.model_copy(update={"traces": one.traces * 10})
    first, again = (diagnose(c, knowledge) for c in (one, ten))
    assert {c.id: c.root for c in again.causes} == pytest.approx(
        {c.id: c.root for c in first.causes}, abs=1e-9
    )


def test_what_a_mat_does_not_show_takes_nothing_from_what_it_shows(knowledge: Knowledge) -> None:
    """One typed yes beside eight typed no, all read off the mat."""
    group = next(g for g in knowledge.numbers.dependent_checks.groups if g.id == "one_trace")
    yes = Reading(check="lead_peak_then_retreat", answer="yes", source="mat")
    others = [c for c in group.checks if c not in (yes.check, "lead_rush_early")][:8]
    no = [Reading(check=c, answer="no", source="mat") for c in others]
    alone = of(diagnose(case(yes), knowledge), "backs_up").probability
    beside = of(diagnose(case(yes, *no), knowledge), "backs_up").probability
    assert beside > 0.85 * alone


def test_a_sticker_seen_mirrored_does_not_outvote_what_was_seen(knowledge: Knowledge) -> None:
    """Six heel strikes noted as toe strikes, against three looks that agree."""
    seen = [
        Reading(check=c, answer="yes")
        for c in ("trail_heel_up_early", "trail_foot_does_not_roll", "path_diverges_late")
    ]
    ball = Shot(start="pull", curve="push", heel_toe_mm=14, carry_m=124)
    block = FRAME.model_copy(update={"shots": (ball,) * 6})
    assert diagnose(case(*seen, block=block), knowledge).start_with == "trail_heel_pops"


def test_a_line_of_evidence_has_the_sign_that_it_has_alone(knowledge: Knowledge) -> None:
    """A heel strike is never said to speak against a cause that makes heel strikes."""
    ball = Shot(start="pull", curve="straight", heel_toe_mm=-16)
    block = FRAME.model_copy(update={"shots": (ball,) * 8})
    yes = Reading(check="trail_knee_at_ball", answer="yes")
    found = diagnose(case(yes, block=block), knowledge)
    for cause in found.causes:
        assert all(e.bits > 0 and e.single_cause_log2_lr > 0 for e in cause.speaks_for)
        assert all(e.bits < 0 and e.single_cause_log2_lr < 0 for e in cause.speaks_against)
        assert all(e.bits < 0 < e.single_cause_log2_lr for e in cause.better_explained)
        if knowledge.effects[cause.id, None, None][3] < -4:
            against = [e.evidence for e in cause.speaks_against]
            assert "pattern.heel_toe_mm" not in against
    better = [
        e for c in found.causes for e in c.better_explained if e.evidence == "pattern.heel_toe_mm"
    ]
    assert "trail_knee_fires" in {e.by for e in better}


def test_of_two_causes_only_the_likelier_explains_a_thing_better(knowledge: Knowledge) -> None:
    """And it accounts for more of it: else what is said of two causes would not go together."""
    lines = 0
    for seed in range(30):
        _, drawn, _ = draw_student(seed, knowledge)
        found = diagnose(drawn, knowledge)
        likely = {cause.id: cause.probability for cause in found.causes}
        for cause in found.causes:
            for line in cause.better_explained:
                assert line.by is not None
                assert likely[line.by] > cause.probability
                number = line.evidence.removeprefix("pattern.")
                whole = found.attribution.deviation.get(number)
                if whole is not None:
                    of = found.attribution.causes
                    assert of[line.by][number] / whole > of[cause.id][number] / whole
                lines += 1
    assert lines > 20


def test_where_the_size_does_not_fit_it_is_said(knowledge: Knowledge) -> None:
    ball = Shot(start="straight", curve="straight", contact="clean", heel_toe_mm=-1, carry_m=134)
    block = FRAME.model_copy(update={"shots": (ball,) * 8})
    found = diagnose(
        case(Reading(check="trail_knee_at_ball", answer="yes"), block=block), knowledge
    )
    knee = of(found, "trail_knee_fires")
    said = {e.evidence: e.text for e in knee.speaks_against}
    assert said["pattern.heel_toe_mm"].endswith("this cause alone makes about 14 mm to the heel")


def test_nothing_that_was_not_noted_is_evidence(knowledge: Knowledge) -> None:
    """Contact in words says something of the low point, and is called by its words."""
    block = FRAME.model_copy(
        update={"shots": (Shot(contact="clean"),) * 4 + (Shot(contact="fat"),) * 3}
    )
    inference = infer(case(block=block), knowledge)
    assert inference.pattern.low_point_cm is None
    names = [p.id for p in inference.pieces]
    assert "pattern.contact" in names
    assert not {"pattern.low_point_cm", "pattern.path_deg", "pattern.carry_lost_pct"} & set(names)
    said = [e.text for c in diagnose(case(block=block), knowledge).causes for e in c.speaks_for]
    assert "4 clean, 3 fat" in said


@pytest.mark.parametrize(("hand", "side"), [("right", "right"), ("left", "left")])
def test_a_prediction_that_looks_worse_comes_with_what_mends_the_rest(
    knowledge: Knowledge, hand: str, side: str
) -> None:
    """A slicer whose path is mended and whose face is not slices more."""
    ball = Shot(start="pull", curve="far_push", contact="clean", divot_direction_deg=-9)
    block = FRAME.model_copy(update={"shots": (ball,) * 8})
    readings = (
        Reading(check="trail_foot_slid_back", answer="yes"),
        Reading(check="hands_out_first", answer="yes"),
    )
    slicer = Case.model_validate({"handedness": hand, "blocks": (block,), "readings": readings})
    found = diagnose(slicer, knowledge)
    assert found.start_with == "trail_side_shove"
    assert found.ball_next is not None
    assert found.ball_next.worse
    assert f"curve {side}" in found.ball_next.sentence
    assert "looks worse than the miss" in found.ball_next.sentence
    assert "what is left of the curve" in found.ball_next.sentence.partition("worse")[2]
