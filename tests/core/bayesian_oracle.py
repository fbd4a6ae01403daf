"""The discrete part of the diagnosis as a general Bayesian network, for pyAgrum to work out."""

from collections.abc import Mapping, Sequence

import numpy as np
import pyagrum as gum

from firm_footing.core.case import Reading
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.reasoning.looks import answer_given_fact, base_rates


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


def oracle_of(
    knowledge: Knowledge, readings: Mapping[str, Sequence[Reading]], handicap: float
) -> tuple[gum.BayesNet, dict[str, object]]:
    """Causes that come by themselves, counted; causes present by noisy-OR, counted and limited;
    a mode; facts with a leak; noisy answers."""
    numbers, upstream = knowledge.numbers, knowledge.upstream
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
    for name, given in readings.items():
        check, base = knowledge.check[name], bases[name]
        without, with_fact = answer_given_fact(given, check, numbers)

        def fact(at: dict[str, int], check=check, base=base) -> float:  # type: ignore[no-untyped-def]
            absent = 1 - base
            for cause, strength in check.pointers("stuck" if at["stuck"] else "thrown").items():
                if at[cause]:
                    absent *= (1 - numbers.pointer[strength]) / (1 - base)
            return 1 - absent

        binary(network, name)
        fill(network, name, [*check.all_pointers(), "stuck"], fact)
        evidence[name] = [without, with_fact]
    return network, evidence


def infer(network: gum.BayesNet, evidence: dict[str, object]) -> gum.LazyPropagation:
    """The library's own inference."""
    engine = gum.LazyPropagation(network)
    engine.setEvidence(evidence)
    engine.makeInference()
    return engine
