"""The discrete part of the diagnosis as a general Bayesian network, for pyAgrum to work out."""

import math
from collections.abc import Mapping, Sequence

import numpy as np
import pyagrum as gum

from firm_footing.core.case import Reading
from firm_footing.core.inference.answers import log_ratio_of
from firm_footing.core.inference.check_likelihood import base_rates
from firm_footing.core.knowledge import Knowledge
from tests.core.test_against_enumeration import rate


def binary(network: gum.BayesNet, name: str) -> None:
    network.add(gum.LabelizedVariable(name, name, 2))


def fill(network: gum.BayesNet, name: str, parents: list[str], p_yes: object) -> None:
    """The table of a yes/no node from a function of its parents' values."""
    for parent in parents:
        network.addArc(parent, name)
    table = network.cpt(name)
    for values in np.ndindex(*(network.variable(p).domainSize() for p in parents)):
        at = dict(zip(parents, values, strict=True))
        p = p_yes(at)  # type: ignore[operator]
        table[at] = [1 - p, p]


def count(network: gum.BayesNet, names: list[str], prefix: str, most: int) -> str:
    """A chain of nodes that counts how many of these are yes, up to most + 1; its last node."""
    previous = None
    for name in names:
        node = f"{prefix}_{name}"
        network.add(gum.LabelizedVariable(node, node, most + 2))
        parents = [name] if previous is None else [name, previous]
        for parent in parents:
            network.addArc(parent, node)
        for values in np.ndindex(*(network.variable(p).domainSize() for p in parents)):
            row = np.zeros(most + 2)
            row[min(sum(values), most + 1)] = 1.0
            network.cpt(node)[dict(zip(parents, values, strict=True))] = row
        previous = node
    assert previous is not None
    return previous


def even_of_three(network: gum.BayesNet, names: list[str], at_once: str) -> list[float]:
    """Of three causes only those severities are told of which an even number is grave."""
    previous = None
    for name in names:
        binary(network, f"odd_{name}")
        parents = [name, f"grave_{name}", *([previous] if previous else [])]

        def odd(at: dict[str, int], name: str = name) -> float:
            grave = at[name] * at[f"grave_{name}"]
            return float((grave + sum(v for k, v in at.items() if k.startswith("odd_"))) % 2)

        fill(network, f"odd_{name}", parents, odd)
        previous = f"odd_{name}"
    assert previous is not None
    binary(network, "told")

    def told(at: dict[str, int]) -> float:
        if at[at_once] < 3:
            return 0.5  # all of them are told, each half as likely as one of three causes'
        return 1.0 - at[previous]

    fill(network, "told", [at_once, previous], told)
    return [0.0, 1.0]


def oracle_of(
    knowledge: Knowledge, readings: Mapping[str, Sequence[Reading]], handicap: float
) -> tuple[gum.BayesNet, dict[str, object]]:
    """Causes that come by themselves, counted; causes present by noisy-OR, counted and limited;
    a mode; a severity of each cause; facts with a leak; noisy answers."""
    numbers = knowledge.numbers
    ((_, dropped),) = knowledge.schools.link_views(knowledge.schools.usual)
    upstream = {
        c: [u for u in above if (u, c) not in dropped] for c, above in knowledge.upstream.items()
    }
    network = gum.BayesNet()
    link = numbers.prior.link_strength
    own = [f"own_{c.id}" for c in knowledge.causes]
    for name, cause in zip(own, knowledge.causes, strict=True):
        binary(network, name)
        odds = cause.base_weight
        fill(network, name, [], lambda _, p=odds / (1 + odds): p)
        binary(network, cause.id)
    for name, cause in zip(own, knowledge.causes, strict=True):

        def present(at: dict[str, int], name: str = name) -> float:
            above = sum(value for parent, value in at.items() if parent != name)
            return 1.0 if at[name] else 1 - (1 - link) ** above

        fill(network, cause.id, [name, *upstream[cause.id]], present)
    most = len(numbers.prior.causes_present) - 1
    by_themselves = count(network, own, "n_own", most)
    at_once = count(network, [c.id for c in knowledge.causes], "n", most)
    before = gum.LazyPropagation(network)
    before.makeInference()
    raw = before.posterior(by_themselves).toarray()
    stated = np.append(np.array(numbers.prior.causes_present), 0.0)
    evidence: dict[str, object] = {
        by_themselves: np.divide(stated, raw, out=np.zeros_like(raw), where=raw > 0),
        at_once: [1.0] * (most + 1) + [0.0],
    }
    binary(network, "stuck")
    fill(network, "stuck", [], lambda _: numbers.stuck_mode.probability(handicap))
    bases = base_rates(knowledge, handicap, ())
    levels = numbers.delivery.severity_levels
    graded = len(levels) > 1
    for cause in knowledge.causes if graded else ():
        binary(network, f"grave_{cause.id}")
        fill(network, f"grave_{cause.id}", [], lambda _: 0.5)
    if graded:
        evidence["told"] = even_of_three(network, [c.id for c in knowledge.causes], at_once)
    for name, given in readings.items():
        check, base = knowledge.check[name], bases[name]
        ratio = log_ratio_of(given, check, numbers)

        def fact(at: dict[str, int], check=check, base=base) -> float:  # type: ignore[no-untyped-def]
            absent = 1 - base
            for cause, alone in knowledge.points(
                check, "stuck" if at["stuck"] else "thrown"
            ).items():
                if at[cause]:
                    level = levels[at[f"grave_{cause}"] if graded else 0]
                    absent *= math.exp(-rate(alone, base, levels) * level)
            return 1 - absent

        pointed = list(check.all_pointers())
        binary(network, name)
        graves = [f"grave_{c}" for c in pointed] if graded else []
        fill(network, name, [*pointed, *graves, "stuck"], fact)
        evidence[name] = [1.0, math.exp(ratio)]
    return network, evidence


def infer(network: gum.BayesNet, evidence: dict[str, object]) -> gum.LazyPropagation:
    """The library's own inference."""
    engine = gum.LazyPropagation(network)
    engine.setEvidence(evidence)
    engine.makeInference()
    return engine
