"""How long does a diagnosis take, alone and against a general Bayesian-network library?"""

import subprocess
import sys
import tempfile
import time
from collections.abc import Callable, Iterator
from pathlib import Path
from statistics import median

import numpy as np
from tests.core.bayesian_oracle import infer, oracle_of
from tests.core.sub_knowledge import cut_down, real_files, without_discounts
from tests.core.test_against_bayesian_network import as_they_stand

from bench.lessons import full_lesson, write_case_files
from firm_footing.core.case import Case
from firm_footing.core.diagnosis.diagnosis import diagnose
from firm_footing.core.estimation.inverse import read_delivery
from firm_footing.core.inference.answers import counted_readings
from firm_footing.core.inference.check_likelihood import (
    answer_log_likelihood,
    base_rates,
    check_pieces,
    ratios_of,
)
from firm_footing.core.inference.enumeration import enumerate_space
from firm_footing.core.inference.inference import infer_from_balls
from firm_footing.core.inference.posterior import posterior
from firm_footing.core.inference.prior import set_prior
from firm_footing.core.knowledge import Knowledge
from firm_footing.files.knowledge_files import load_knowledge

Row = tuple[str, str, str]


def measure() -> Iterator[Row]:
    """Rows of name, wanted, found."""
    files = real_files()
    without_discounts(files)  # a network has no discounts
    # with two severities a cause the library's tables outgrow this machine; one in both, then
    files["numbers"]["delivery"]["severity_levels"] = [1.0]
    files["schools"]["heel_or_knee"]["default"] = "heel_first"  # nor two views of a link
    simple = cut_down({c["id"] for c in files["causes"]}, files)
    lessons = [full_lesson(simple, seed) for seed in range(9)]
    ours = _milliseconds(lambda case: _discrete(case, simple), lessons * 5)
    theirs = [_library(case, simple) for case in lessons[:3]]
    ratio = median(theirs) / median(ours)
    yield "discrete part, ours, median of 45", "-", f"{median(ours):.1f} ms"
    yield "discrete part, library's inference, median of 3", "-", f"{median(theirs):.0f} ms"
    yield "ratio, links and limit in both", "at least 50", f"{ratio:.0f} x"
    knowledge = load_knowledge()
    lessons = [full_lesson(knowledge, seed) for seed in range(9)]
    again = _milliseconds(lambda case: diagnose(case, knowledge), lessons[:1] * 108)
    yield "whole diagnosis of one lesson, median of 108", "40 ms", f"{median(again):.1f} ms"
    for name, changed in (("an answer", _another_answer), ("a ball", _another_ball)):
        steps = [changed(case, i) for case in lessons for i in range(12)]
        found = _milliseconds(lambda case: diagnose(case, knowledge), steps)
        yield f"whole diagnosis after {name} more, median of 108", "-", f"{median(found):.1f} ms"
    fresh = _milliseconds(lambda case: _with_nothing_kept(case, knowledge), lessons * 3)
    yield "whole diagnosis of a lesson never seen, median of 27", "-", f"{median(fresh):.1f} ms"
    for balls in (10, 40):
        took = [_reading_ms(case, balls, knowledge) for case in lessons * 3]
        yield f"delivery of {balls} balls, median of 27", "30 ms", f"{median(took):.1f} ms"
    yield "ranking 200 case files in one command", "under 10 s", f"{_rank_files(knowledge):.1f} s"


def _reading_ms(case: Case, balls: int, knowledge: Knowledge) -> float:
    """Back from the balls of a block to its delivery, with nothing kept."""
    block = case.blocks[0].model_copy(update={"shots": case.blocks[0].shots[:balls]})
    started = time.perf_counter()
    read_delivery((block,), knowledge, 15.0)
    return 1000 * (time.perf_counter() - started)


def _another_answer(case: Case, step: int) -> Case:
    """The lesson with one of its answers turned round: what a touch in the Look stage does."""
    readings = list(case.readings)
    old = readings[step]
    readings[step] = old.model_copy(update={"answer": "no" if old.answer == "yes" else "yes"})
    return case.model_copy(update={"readings": tuple(readings)})


def _another_ball(case: Case, step: int) -> Case:
    """The lesson with one of its balls struck elsewhere: what a touch of the face does."""
    block = case.blocks[0]
    shots = list(block.shots)
    shots[step] = shots[step].model_copy(update={"heel_toe_mm": float(step)})
    block = block.model_copy(update={"shots": tuple(shots)})
    return case.model_copy(update={"blocks": (block,)})


def _with_nothing_kept(case: Case, knowledge: Knowledge) -> object:
    """As in ranking files: nothing of this lesson is in any cache."""
    for kept in (infer_from_balls, answer_log_likelihood):
        kept.cache_clear()  # type: ignore[union-attr]
    return diagnose(case, knowledge)


def _milliseconds(work: Callable[[Case], object], cases: list[Case]) -> list[float]:
    work(cases[0])
    times = []
    for case in cases:
        start = time.perf_counter()
        work(case)
        times.append(1000 * (time.perf_counter() - start))
    return times


def _discrete(case: Case, knowledge: Knowledge) -> object:
    """Prior, links, limit, modes and all answers, with the bits of every answer."""
    space = enumerate_space(knowledge)
    bases = base_rates(knowledge, 15.0, ())
    pieces = check_pieces(ratios_of(counted_readings(case), knowledge), space, bases)
    prior = set_prior(space, as_they_stand(knowledge))
    return posterior(space, prior, 0.1, pieces)


def _library(case: Case, knowledge: Knowledge) -> float:
    """Milliseconds of the library's inference; building its network is not counted."""
    network, evidence = oracle_of(knowledge, counted_readings(case), 15.0)
    start = time.perf_counter()
    engine = infer(network, evidence)
    found = [engine.posterior(c.id)[1] for c in knowledge.causes]
    took = 1000 * (time.perf_counter() - start)
    sides = [not c.sides for c in knowledge.causes]
    now = _discrete(case, knowledge)
    np.testing.assert_allclose(np.array(found)[sides], now.present[sides], atol=1e-6)  # type: ignore[attr-defined]
    return took


def _rank_files(knowledge: Knowledge) -> float:
    """Seconds of the whole command, starting Python included."""
    with tempfile.TemporaryDirectory() as folder:
        paths = write_case_files(knowledge, Path(folder), 200)
        command = [sys.executable, "-m", "firm_footing", "rank", "--json", *map(str, paths)]
        start = time.perf_counter()
        lines = subprocess.run(command, check=True, capture_output=True).stdout.splitlines()
        took = time.perf_counter() - start
    assert len(lines) == len(paths)
    return took
