"""When does the evidence carry a decision? The table is the specification."""

from dataclasses import replace
from typing import Literal

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from firm_footing.core.case import Block, Case, Reading, Shot
from firm_footing.core.conclusions.attribution import explains_nothing
from firm_footing.core.conclusions.decision_status import LEVELS, badge_of, kind_of
from firm_footing.core.conclusions.next_check import NextCheck, decision_flips
from firm_footing.core.diagnosis.diagnosis import diagnose
from firm_footing.core.inference.inference import infer
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.text.decision import in_words
from firm_footing.core.text.words import cause_word, percent
from tests.core.by_cause import starts_by_cause

SLICE = Shot(start="pull", curve="push", contact="clean", heel_toe_mm=-12)
CLEAN = Shot(start="straight", curve="straight", contact="clean", heel_toe_mm=0)
SIX = Block(shots=(SLICE,) * 6)

# first root, its lead over the second, spoken to -> kind
TABLE = [
    (0.60, 0.30, True, "settled"),
    (0.60, 0.30, False, "nearly"),
    (0.50, 0.20, True, "settled"),
    (0.49, 0.20, True, "nearly"),
    (0.60, 0.16, True, "open"),
    (0.42, 0.22, True, "nearly"),
    (0.60, 0.10, True, "open"),
    (0.30, 0.25, True, "open"),
    (0.19, 0.15, True, "not_enough"),
]


@pytest.mark.parametrize(("lead", "ahead", "spoken", "kind"), TABLE)
def test_where_a_decision_stands(
    knowledge: Knowledge, lead: float, ahead: float, spoken: bool, kind: str
) -> None:
    assert kind_of(lead, ahead, spoken, knowledge.numbers.decision) == kind


share = st.floats(0, 1)
STRENGTH = {"unlikely": 0, "less_likely": 1, "possible": 2, "likely": 3, "very_likely": 4}


@given(
    lead=share, next_lead=share, spoken=st.booleans(), thin=st.booleans(), balls=st.integers(0, 9)
)
def test_verdict_badge_and_word_are_one_scale(
    knowledge: Knowledge, lead: float, next_lead: float, spoken: bool, thin: bool, balls: int
) -> None:
    """Whatever the numbers are: what is said above, beside and under them fits."""
    n = knowledge.numbers
    lead, next_lead = max(lead, next_lead), min(lead, next_lead)
    kind = "not_enough" if thin else kind_of(lead, lead - next_lead, spoken, n.decision)
    badge = badge_of(kind)
    first, second = (
        cause_word(p, p, None, balls, n, thin=kind == "not_enough") for p in (lead, next_lead)
    )
    strength = STRENGTH.get(first, 2)
    if badge == "start":
        assert strength >= STRENGTH["likely"]
    if badge == "first":
        assert strength >= STRENGTH["possible"]
        assert STRENGTH.get(second, 2) <= strength
    if kind in ("open", "not_enough"):
        assert badge is None
    if kind == "not_enough":
        assert strength <= STRENGTH["possible"]
    if kind == "open":
        assert strength >= STRENGTH["possible"]
    for p in (lead, next_lead):
        assert percent(p) not in ("0 %", "100 %")


@given(data=st.data())
@settings(max_examples=40, deadline=None)
def test_what_is_said_of_a_case_fits_together(knowledge: Knowledge, data: st.DataObject) -> None:
    """Random answers and balls: the headline's causes have words that bear it."""
    checks = data.draw(
        st.lists(st.sampled_from(knowledge.checks), max_size=6, unique_by=lambda c: c.id)
    )
    readings = [
        Reading(check=c.id, answer=data.draw(st.sampled_from(["yes", "no", "partly"])))
        for c in checks
    ]
    block = data.draw(st.sampled_from([None, SIX, Block(shots=(CLEAN,) * 6)]))
    found = diagnose(case_of(*readings, block=block), knowledge)
    decision_status, (first, second) = found.decision_status, found.causes[:2]
    if decision_status.headline.startswith("Open between"):
        assert {first.word, second.word} <= {"possible", "likely", "very_likely", "follows"}
    if decision_status.badge == "start":
        assert first.word in ("likely", "very_likely")
        assert decision_status.headline.startswith("Start with")
    if block is not None and found.start_with is not None and block.shots[0] == SLICE:
        seen = first.seen in ("yes", "partly")
        assert (
            seen
            or not explains_nothing(first.id, found.attribution, knowledge.numbers.spoken)
            or not decision_status.badge
        )
        assert decision_status.unexplaining == (
            first.seen is not None
            and explains_nothing(first.id, found.attribution, knowledge.numbers.spoken)
        )
    if decision_status.ask_first is not None:
        assert decision_status.ask_first == found.next_checks[0].id
        question = knowledge.check[decision_status.ask_first].question
        assert decision_status.kind == "settled" or question in decision_status.reason
    others = [c.question for c in knowledge.checks if c.id != decision_status.ask_first]
    said = f"{decision_status.reason} {found.unexplained or ''}"
    assert not any(question in said for question in others)


@given(lead=share, ahead=share, more=share, further=share, spoken=st.booleans())
def test_the_verdict_rises_with_the_lead_and_never_falls(
    knowledge: Knowledge, lead: float, ahead: float, more: float, further: float, spoken: bool
) -> None:
    d = knowledge.numbers.decision
    before = kind_of(lead, ahead, spoken, d)
    for after in (
        kind_of(max(lead, more), max(ahead, further), spoken, d),
        kind_of(lead, ahead, True, d),
    ):
        assert LEVELS.index(after) >= LEVELS.index(before)


def case_of(*readings: Reading, block: Block | None = SIX) -> Case:
    return Case(handedness="right", blocks=(block,) if block else (), readings=readings)


@settings(max_examples=25, deadline=None)
@given(data=st.data())
def test_more_evidence_for_the_leader_never_lowers_the_verdict(
    knowledge: Knowledge, data: st.DataObject
) -> None:
    """A look that shows the leader is answered yes, or fitting balls are hit."""
    showing = [c for c in knowledge.checks if c.shows]
    asked = data.draw(st.lists(st.sampled_from(showing), max_size=4, unique_by=lambda c: c.id))
    readings = [
        Reading(check=c.id, answer=data.draw(st.sampled_from(["yes", "no", "partly"])))
        for c in asked
    ]
    before = diagnose(case_of(*readings), knowledge)
    leader = before.causes[0].id
    open_looks = [c for c in showing if c.shows == leader and c not in asked]
    if not open_looks:
        return
    more = Reading(check=open_looks[0].id, answer="yes")
    after = diagnose(case_of(*readings, more), knowledge)
    assert after.causes[0].id == leader
    assert LEVELS.index(after.decision_status.kind) >= LEVELS.index(before.decision_status.kind)


def test_what_is_missing_is_counted(knowledge: Knowledge) -> None:
    few = case_of(
        Reading(check="grip_weak", answer="yes"),
        Reading(check="aim_off_line", answer="no"),
        block=Block(shots=(SLICE,) * 4),
    )
    found = diagnose(few, knowledge).decision_status
    assert found.kind == "not_enough"
    assert (found.balls_missing, found.answers_missing) == (1, 1)
    assert found.reason.startswith(
        "4 balls and 2 answers. Not enough yet: 1 more ball or 1 more answer"
    )
    more = few.model_copy(update={"blocks": (Block(shots=(SLICE,) * 5),)})
    enough = diagnose(more, knowledge).decision_status
    assert (enough.balls_missing, enough.answers_missing) == (0, 0)


def test_balls_alone_never_settle_it(knowledge: Knowledge) -> None:
    """However far ahead: a look or a trial has to speak to the first cause."""
    open_face = Shot(contact="clean", heel_toe_mm=0, path_deg=-1.0, face_deg=4.0, low_point_cm=2.0)
    found = diagnose(case_of(block=Block(shots=(open_face,) * 10)), knowledge)
    assert found.causes[0].root > 0.5
    assert found.decision_status.kind == "nearly"
    assert not found.decision_status.spoken_to
    assert "No look and no trial has spoken to it yet" in found.decision_status.reason


def test_an_upstream_cause_that_nobody_asked_about_never_starts(knowledge: Knowledge) -> None:
    """Effort brings about the heel and the knee; both were seen, effort was not asked about."""
    seen = [
        Reading(check=c, answer="yes")
        for c in ("trail_heel_up_early", "trail_knee_at_ball", "hands_out_first")
    ]
    found = diagnose(case_of(*seen), knowledge)
    effort = next(c for c in found.causes if c.id == "over_effort")
    assert found.start_with not in (None, "over_effort")
    assert effort.root < effort.probability
    asked = diagnose(case_of(*seen, Reading(check="full_effort", answer="yes")), knowledge)
    now = next(c for c in asked.causes if c.id == "over_effort")
    assert now.root == pytest.approx(now.probability)


def test_with_nothing_that_speaks_for_any_there_is_no_start(knowledge: Knowledge) -> None:
    none = diagnose(case_of(block=None), knowledge)
    assert none.start_with is None
    assert none.drills == ()
    assert none.decision_status.kind == "not_enough"
    no_only = diagnose(case_of(Reading(check="grip_weak", answer="no"), block=None), knowledge)
    assert no_only.start_with is None


def test_a_first_that_nothing_points_to_says_nothing_of_what_was_seen(
    knowledge: Knowledge,
) -> None:
    """A cause further down may have been seen, so the words are of the first alone."""
    seen = diagnose(case_of(Reading(check="grip_weak", answer="yes")), knowledge).decision_status
    said = in_words(replace(seen, kind="not_enough", start_with=None), knowledge)
    assert said.headline == "Nothing stands out yet."
    assert said.detail == "No ball and no look points to the first of the list."


def test_balls_that_hardly_miss_leave_nothing_to_be_behind(knowledge: Knowledge) -> None:
    found = diagnose(case_of(block=Block(shots=(CLEAN,) * 6)), knowledge)
    assert found.decision_status.no_miss
    assert found.decision_status.kind == "not_enough"
    assert "Most of these balls are sound" in found.decision_status.headline


def test_a_set_up_matter_that_was_seen_comes_before_the_feet(knowledge: Knowledge) -> None:
    feet = Reading(check="trail_heel_up_early", answer="yes")
    grip = Reading(check="grip_weak", answer="yes")
    both = infer(case_of(feet, grip), knowledge)
    index = knowledge.cause_index
    members = both.space.members
    together = members[:, index["weak_grip"]] * members[:, index["trail_heel_pops"]] > 0
    starts = starts_by_cause(both)[together]
    assert not starts[:, index["trail_heel_pops"]].any()
    assert starts[:, index["weak_grip"]].all()


@pytest.mark.parametrize("readings", [[], ["yes"], ["no"], ["yes", "no"]])
def test_the_sentence_names_no_cause_twice(knowledge: Knowledge, readings: list[str]) -> None:
    said = [
        Reading(check=c, answer=a)  # type: ignore[arg-type]
        for c, a in zip(("trail_heel_up_early", "grip_weak"), readings, strict=False)
    ]
    reason = diagnose(case_of(*said), knowledge).decision_status.reason
    for cause in knowledge.causes:
        assert reason.lower().count(f"“{cause.name.lower()}”") <= 1


def test_what_a_look_could_turn_is_what_happens_when_it_is_answered_so(
    knowledge: Knowledge,
) -> None:
    """The tried-out answer against the diagnosis with that answer given, dependent looks too."""
    case = case_of(
        Reading(check="wobbly_finish", answer="yes"),
        Reading(check="shaft_steep_down", answer="yes"),
    )
    before = diagnose(case, knowledge)
    inference = infer(case, knowledge)
    first = before.causes[0].id
    flips = []
    for look in before.next_checks[::3]:
        (flip,) = decision_flips(inference, [look])
        after = {
            given: diagnose(
                case.model_copy(update={"readings": (*case.readings, answered(look, given))}),
                knowledge,
            )
            .causes[0]
            .id
            for given in ("yes", "no")
        }
        if flip.answer is None:
            assert set(after.values()) == {first}
        else:
            assert after[flip.answer] == flip.then_first != first
        roots = inference.root_with(answered(look, "yes"))
        again = infer(
            case.model_copy(update={"readings": (*case.readings, answered(look, "yes"))}), knowledge
        )
        np.testing.assert_allclose(roots, again.root, atol=1e-9)
        flips.append(flip.answer)
    assert {None, "yes"} <= set(flips)  # both kinds were met


def answered(look: NextCheck, given: Literal["yes", "no"]) -> Reading:
    return Reading(check=look.id, answer=given, source=look.source)
