"""Every configuration of a knowledge: sets of causes, their modes, severities and sides."""

from functools import lru_cache
from itertools import combinations, product

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.frame.arrays import FloatArray, IntArray
from firm_footing.core.inference.hypothesis_space import NO_MODE, STUCK, THROWN, HypothesisSpace
from firm_footing.core.knowledge import DIMENSIONS, Cause, Knowledge
from firm_footing.core.knowledge.vocabulary import Mode


@lru_cache(maxsize=4)
def enumerate_space(knowledge: Knowledge) -> HypothesisSpace:
    """All configurations of this knowledge; computed once for each."""
    causes = knowledge.causes
    most = len(knowledge.numbers.prior.causes_present) - 1
    sets = [s for n in range(most + 1) for s in combinations(range(len(causes)), n)]
    members = np.zeros((len(sets), len(causes)))
    for row, chosen in enumerate(sets):
        members[row, list(chosen)] = 1.0
    told = [
        (row, mode, sides)
        for row, chosen in enumerate(sets)
        for mode, sides in _tellings([causes[i] for i in chosen])
    ]
    effects, variant_of, variant_cause = _variants(
        knowledge, [(sets[r], mode, side) for r, mode, side in told]
    )
    factors = np.array([[c.scatter_factor for c in causes]])
    set_of = np.array([row for row, _, _ in told])
    modes = np.array([{"thrown": THROWN, "stuck": STUCK, None: NO_MODE}[m] for _, m, _ in told])
    configuration, grade_of = _graded(set_of, modes, members.sum(axis=1).astype(np.int_), knowledge)
    levels = np.array(knowledge.numbers.delivery.severity_levels)
    none = len(effects) - 1
    graded = variant_of[:, configuration] * len(levels) + np.maximum(grade_of, 0)
    grade = np.full((len(configuration), len(causes) + 1), -1, dtype=np.int8)
    np.put_along_axis(
        grade, variant_cause[variant_of[:, configuration]].T, grade_of.T.astype(np.int8), axis=1
    )
    return HypothesisSpace(
        knowledge=knowledge,
        members=members,
        set_of=set_of[configuration],
        mode=modes[configuration],
        side=_sides_taken(causes, [sides for _, _, sides in told])[configuration],
        grade=grade[:, :-1].copy(),
        log_side=np.array([-np.log(2.0) * len(sides) for _, _, sides in told])[configuration],
        effects=np.append(np.kron(effects[:-1], levels[:, None]), effects[-1:], axis=0),
        unit_effects=np.append(np.repeat(effects[:-1], len(levels), axis=0), effects[-1:], axis=0),
        variant_of=np.ascontiguousarray(np.minimum(graded, none * len(levels))),
        variant_cause=np.append(np.repeat(variant_cause[:-1], len(levels)), len(causes)),
        scatter_factor=np.where(members > 0, factors, 1.0).max(axis=1)[set_of][configuration],
    )


def severities_told(causes: int, levels: int) -> IntArray:
    """Which severities of so many causes are told, as numbers in base `levels`.

    All of them of one or two causes. Of three or more every severity of a cause with every severity
    of another, once each (an orthogonal array): half as many, and the same mean, spread and
    correlation as all.
    """
    every = np.arange(levels**causes)
    if causes <= 2:
        return every
    digits = every // levels ** np.arange(causes)[:, None] % levels
    out: IntArray = every[digits.sum(axis=0) % levels == 0]
    return out


def _graded(
    set_of: IntArray, mode: IntArray, sizes: IntArray, knowledge: Knowledge
) -> tuple[IntArray, IntArray]:
    """Every ungraded configuration with every severity of its causes, hypothesis by hypothesis.

    Returns
    -------
    (configurations,) which ungraded configuration each is, and (most, configurations) the grade of
    each of its causes, in the order of `variant_of`, -1 beyond the last.

    """
    levels = len(knowledge.numbers.delivery.severity_levels)
    most = int(sizes.max())
    size = sizes[set_of]
    of_size = [severities_told(n, levels) for n in range(most + 1)]
    configuration = np.repeat(np.arange(len(set_of)), [len(of_size[n]) for n in size.tolist()])
    combination = np.concatenate([of_size[n] for n in size.tolist()])
    place = np.lexsort((configuration, combination, mode[configuration], set_of[configuration]))
    configuration, combination = configuration[place], combination[place]
    digits = combination // levels ** np.arange(most)[:, None] % levels
    return configuration, np.where(np.arange(most)[:, None] < size[configuration], digits, -1)


def _tellings(causes: list[Cause]) -> list[tuple[Mode | None, dict[str, str]]]:
    """The modes and sides in which one set of causes can be told."""
    modes: tuple[Mode | None, ...] = (
        ("thrown", "stuck") if any(c.skill for c in causes) else (None,)
    )
    two_sided = [c for c in causes if c.sides]
    choices = product(*[[s.id for s in c.sides] for c in two_sided])
    sides = [dict(zip([c.id for c in two_sided], ids, strict=True)) for ids in choices]
    return [(mode, side) for mode in modes for side in sides]


def _sides_taken(causes: tuple[Cause, ...], told: list[dict[str, str]]) -> NDArray[np.int8]:
    """(configurations, causes) index of the side each two-sided cause takes, -1 for none."""
    taken = np.full((len(told), len(causes)), -1, dtype=np.int8)
    for column, cause in enumerate(causes):
        index = {side.id: i for i, side in enumerate(cause.sides)}
        if index:
            taken[:, column] = [index.get(sides.get(cause.id, ""), -1) for sides in told]
    return taken


def _variants(
    knowledge: Knowledge, told: list[tuple[tuple[int, ...], Mode | None, dict[str, str]]]
) -> tuple[FloatArray, IntArray, IntArray]:
    """`effects`, `variant_of`, `variant_cause` of sets of causes, mode and sides."""
    causes = knowledge.causes
    most = max(len(chosen) for chosen, _, _ in told)
    number: dict[tuple[str, Mode | None, str | None], int] = {}
    of_configuration = []
    for chosen, mode, sides in told:
        keys = [
            (causes[i].id, mode if causes[i].skill else None, sides.get(causes[i].id))
            for i in chosen
        ]
        of_configuration.append([number.setdefault(key, len(number)) for key in keys])
    padded = [row + [len(number)] * (most - len(row)) for row in of_configuration]
    effects = np.array([*(knowledge.effects[key] for key in number), (0.0,) * len(DIMENSIONS)])
    of_cause = np.array([*(knowledge.cause_index[name] for name, _, _ in number), len(causes)])
    return effects, np.ascontiguousarray(np.array(padded).T), of_cause
