"""What must hold for any lesson, whatever was seen."""

from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from firm_footing.core.case import Block, Case, CaseFile, Reading, Shot, from_file, to_file
from firm_footing.core.conclusions.next_check import information_gain
from firm_footing.core.diagnosis.diagnosis import diagnose
from firm_footing.core.diagnosis.ranking import ranking_of
from firm_footing.core.frame import (
    from_metres,
    mirror_deg,
    to_metres,
    to_neutral_word,
    to_real_word,
)
from firm_footing.core.inference.enumeration import enumerate_space, severities_told
from firm_footing.core.inference.prior import prior_view, set_prior
from firm_footing.core.knowledge import DIMENSIONS, Knowledge, build_knowledge
from firm_footing.files.knowledge_files import load_knowledge
from tests.core.sub_knowledge import real_files

CHECKS = [c.id for c in load_knowledge().checks]
DIRECTIONS = ["far_pull", "pull", "straight", "push", "far_push"]
WORDS = st.sampled_from(DIRECTIONS)
SHOTS: Any = st.builds(
    Shot,
    start=st.none() | WORDS,
    curve=st.none() | WORDS,
    contact=st.sampled_from([None, "clean", "fat", "thin", "top", "hosel", "toe"]),
    heel_toe_mm=st.none() | st.floats(-40, 40),
    divot_start_cm=st.none() | st.floats(-20, 15),
    divot_direction_deg=st.none() | st.floats(-15, 15),
    carry_m=st.none() | st.floats(20, 160),
    path_deg=st.none() | st.floats(-12, 12),
)
READINGS = st.lists(
    st.builds(
        Reading,
        check=st.sampled_from(CHECKS),
        answer=st.sampled_from(["yes", "partly", "no", "unknown"]),
        source=st.sampled_from([None, "film", "feel", "mat", "look"]),
    ),
    max_size=8,
)
CASES = st.builds(
    lambda hand, handicap, shots, readings: Case(
        handedness=hand,
        handicap=handicap,
        blocks=(Block(expected_carry_m=140, shots=tuple(shots)),),
        readings=tuple(readings),
    ),
    st.sampled_from(["right", "left"]),
    st.none() | st.floats(-5, 40),
    st.lists(SHOTS, max_size=9),
    READINGS,
)


def told(case: Case, knowledge: Knowledge) -> dict[str, float]:
    return {c.id: c.probability for c in diagnose(case, knowledge).causes}


@given(CASES)
@settings(max_examples=40)
def test_probabilities_are_probabilities(case: Case) -> None:
    knowledge = load_knowledge()
    found = diagnose(case, knowledge)
    for cause in found.causes:
        assert 0 <= cause.root <= cause.probability + 1e-12 <= 1 + 1e-9
    assert len(found.causes) == len(knowledge.causes)
    assert all(check.gain_bits >= 0 for check in found.next_checks)
    assert not {c.id for c in found.next_checks} & {
        r.check for r in case.readings if r.answer != "unknown"
    }
    ranking_of(found, knowledge)


@given(CASES, st.randoms())
@settings(max_examples=25)
def test_the_order_of_evidence_is_irrelevant(case: Case, random: Any) -> None:
    shots, readings = list(case.blocks[0].shots), list(case.readings)
    random.shuffle(shots)
    random.shuffle(readings)
    block = case.blocks[0].model_copy(update={"shots": tuple(shots)})
    other = case.model_copy(update={"blocks": (block,), "readings": tuple(readings)})
    knowledge = load_knowledge()
    assert told(other, knowledge) == pytest.approx(told(case, knowledge), abs=1e-6)


@given(CASES)
@settings(max_examples=25)
def test_mirroring_the_student_changes_nothing(case: Case) -> None:
    """The same lesson, written down by an onlooker of a golfer of the other hand."""
    file = to_file(case).model_dump(exclude_none=True)
    other = to_file(
        case.model_copy(update={"handedness": "left" if case.handedness == "right" else "right"})
    ).model_dump(exclude_none=True)
    for mine, theirs in zip(file["blocks"][0]["shots"], other["blocks"][0]["shots"], strict=True):
        assert mine.get("path_deg", 0) == -theirs.get("path_deg", 0)
    knowledge = load_knowledge()
    a = told(from_file(CaseFile.model_validate(file)), knowledge)
    b = told(from_file(CaseFile.model_validate(other)), knowledge)
    assert a == pytest.approx(b, abs=1e-12)


@given(CASES)
@settings(max_examples=60)
def test_a_case_file_reads_back_the_same(case: Case) -> None:
    grouped = {r.check: None for r in case.readings}
    in_order = tuple(r for name in grouped for r in case.readings if r.check == name)
    case = case.model_copy(update={"readings": in_order})
    text = to_file(case, with_limits=True).model_dump_json(exclude_none=True)
    assert from_file(CaseFile.model_validate_json(text)) == case


@given(st.floats(-90, 90), st.sampled_from(["right", "left"]), st.sampled_from(DIRECTIONS))
def test_mirroring_twice_is_identity(deg: float, hand: Any, word: Any) -> None:
    assert mirror_deg(mirror_deg(deg, hand), hand) == deg
    assert to_neutral_word(to_real_word(word, hand), hand) == word


@given(st.floats(0, 400), st.sampled_from(["yd", "m"]))
def test_units_round_trip(value: float, unit: Any) -> None:
    assert from_metres(to_metres(value, unit), unit) == pytest.approx(value)


@given(st.data())
def test_information_is_never_negative_and_nothing_when_independent(data: Any) -> None:
    size = data.draw(st.integers(2, 12))
    rng = np.random.default_rng(data.draw(st.integers(0, 10_000)))
    configuration = rng.dirichlet(np.ones(size))
    decision = rng.integers(0, 3, size=size)
    facts = np.column_stack([rng.random(size), np.full(size, 0.3)])
    of_decision = np.bincount(decision, weights=configuration, minlength=3)
    fact = np.array([(facts * configuration[:, None])[decision == d].sum(axis=0) for d in range(3)])
    gains = information_gain(fact, of_decision, np.full((2, 2), 0.05))
    assert (gains >= 0).all()
    assert gains[1] == pytest.approx(0.0, abs=1e-12)
    assert gains[0] == pytest.approx(_by_hand(configuration, decision, facts[:, 0], 0.05), abs=1e-9)


def _by_hand(configuration: Any, decision: Any, fact: Any, error: float) -> float:
    """Mutual information from the joint table, summed term by term."""
    yes = fact * (1 - error) + (1 - fact) * error
    total = 0.0
    for answer in (yes, 1 - yes):
        p_answer = float(configuration @ answer)
        for d in set(decision.tolist()):
            here = decision == d
            joint = float((configuration * answer)[here].sum())
            if joint > 0:
                total += joint * np.log2(joint / (p_answer * float(configuration[here].sum())))
    return total


def test_without_links_the_number_of_causes_is_the_stated_one() -> None:
    files = real_files()
    files["numbers"]["prior"]["link_strength"] = 0.0
    knowledge = build_knowledge(files)
    space = enumerate_space(knowledge)
    schools = prior_view(knowledge, knowledge.schools.usual)
    prior = set_prior(space, schools)
    by_size = np.bincount(space.sizes, weights=prior)
    assert by_size == pytest.approx(knowledge.numbers.prior.causes_present)
    in_set = np.exp(space.log_prior_in_set(0.3))
    assert in_set @ prior[space.hypotheses.set_of] == pytest.approx(1.0)
    alone = prior[space.sizes == 1]
    weights = np.array(schools.weights)
    share = knowledge.numbers.prior.causes_present[1]
    assert alone[::-1] == pytest.approx(share * weights[::-1] / weights.sum())


def test_an_upstream_cause_makes_its_downstream_one_likelier(knowledge: Knowledge) -> None:
    space = enumerate_space(knowledge)
    prior = set_prior(space, prior_view(knowledge, knowledge.schools.usual))
    for cause in knowledge.causes:
        for other in cause.upstream_of:
            up = space.members[:, knowledge.cause_index[cause.id]] > 0
            down = space.members[:, knowledge.cause_index[other]] > 0
            given_up = prior[up & down].sum() / prior[up].sum()
            given_none = prior[~up & down].sum() / prior[~up].sum()
            assert given_up > 1.5 * given_none, (cause.id, other)


def test_effects_have_one_value_for_each_dimension(knowledge: Knowledge) -> None:
    assert all(len(row) == len(DIMENSIONS) for row in knowledge.effects.values())


@pytest.mark.parametrize("levels", [1, 2, 3])
def test_half_of_the_severities_of_three_causes_keep_every_pair(levels: int) -> None:
    """Every severity of one cause meets every severity of another equally often."""
    for causes in (1, 2, 3):
        numbers = severities_told(causes, levels)
        digits = numbers // levels ** np.arange(causes)[:, None] % levels
        assert len(numbers) == levels ** min(causes, 2)
        for one in range(causes):
            for other in range(one):
                met = set(zip(digits[one].tolist(), digits[other].tolist(), strict=True))
                assert len(met) == levels**2
