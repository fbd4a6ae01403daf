"""How well could anyone do on the simulated students? A reasoner who knows the stand-in exactly.

It weighs every set of one or two causes, mode, side and severity that the stand-in can draw, with
the stand-in's own tails, thresholds and errors, and proposes its own looks. Of the balls it gets
either the same reading as the ranking (`same_reading`) or, as an upper bound that no one standing
on the tee could reach, the student's true middle and scatter (`delivery_known`).
"""

import math
from collections.abc import Iterator
from dataclasses import dataclass
from itertools import product

import numpy as np
from scipy.special import ndtr, roots_genlaguerre
from scipy.stats import gamma

from firm_footing.core.case import Case, Reading
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.inference.links import links_of
from firm_footing.core.knowledge import DIMENSIONS, Check, Knowledge
from firm_footing.core.knowledge.schools import CauseLink
from firm_footing.core.knowledge.vocabulary import Mode
from firm_footing.core.patterns import Pattern, read_pattern
from firm_footing.core.physics.forward import LOW_POINT, STRIKE
from firm_footing.simulators import student as standin
from firm_footing.simulators.student import SimulatedStudent
from firm_footing.simulators.worlds import STAND_IN, World

SEVERITIES = 5
NODES = np.linspace(0.5 / SEVERITIES, 1 - 0.5 / SEVERITIES, SEVERITIES)
SEVERITY = gamma.ppf(NODES, standin.SEVERITY_SHAPE, scale=1 / standin.SEVERITY_SHAPE)
"""Severities of equal probability."""

TAIL, TAIL_WEIGHT = roots_genlaguerre(5, standin.PERSON_TAIL_DF / 2 - 1)
TAIL_VARIANCE = (standin.PERSON_TAIL_DF - 2) / (2 * TAIL)
TAIL_WEIGHT = TAIL_WEIGHT / TAIL_WEIGHT.sum()
"""A person's heavy tail as a mixture of normal ones: relative variance and weight."""

EYES = np.exp(standin.OBSERVER_SPREAD * np.sqrt(3.0) * np.array([-1.0, 0.0, 1.0]))
EYE_WEIGHT = np.array([1, 4, 1]) / 6
"""Three-point rule for how good the instructor's eye is."""


@dataclass(frozen=True, eq=False)
class Known:
    """What is known of the student's delivery: middle and standard error (6,), and how it scatters.

    scatter : how much wider than usual the balls scatter (log) and the doubt of that (log)
    """

    middle: FloatArray
    se: FloatArray
    scatter: tuple[float, float]


def same_reading(case: Case, knowledge: Knowledge) -> Known:
    """The ranking's own reading of the balls."""
    pattern: Pattern = read_pattern(case.baselines, knowledge, case.handicap)
    read = [getattr(pattern, name) for name in DIMENSIONS]
    scatter, doubt = 0.0, math.inf
    if pattern.scatter is not None:
        wide = pattern.scatter.sum2 / pattern.scatter.freedom
        share = pattern.scatter.own_share
        scatter = 0.5 * math.log(max(0.1, (wide - 1 + share) / share))
        doubt = 1 / (share * math.sqrt(2 * pattern.scatter.freedom))
    return Known(
        np.array([r.value if r else 0.0 for r in read]),
        np.array([r.se if r else np.inf for r in read]),
        (scatter, doubt),
    )


def delivery_known(student: SimulatedStudent, knowledge: Knowledge) -> Known:
    """The truth itself."""
    usual = knowledge.numbers.delivery.ball_sd.row()[0]
    wide = math.log(float(student.scatter[0]) / usual)
    return Known(student.delivery, np.full(len(DIMENSIONS), 0.05), (wide, 0.01))


class Knower:
    """Everything the stand-in can draw, as weighted points.

    causes : (points, 2) indices, the number of causes where there is only one
    stuck : (points,) True where the mode is stuck, False where thrown
    severity : (points, 2)
    shift : (points, 6)
    """

    def __init__(self, knowledge: Knowledge, world: World = STAND_IN) -> None:
        self.knowledge, self.world = knowledge, world
        rows = list(self._points())
        self.causes = np.array([r[0] for r in rows])
        self.stuck = np.array([r[1] for r in rows])
        self.severity = np.array([r[2] for r in rows])
        self.shift = np.array([r[3] for r in rows])
        self.own_sizes2 = np.array([r[5] for r in rows])
        self.log_prior = np.log([r[4] for r in rows])
        present = np.zeros((len(rows), len(knowledge.causes) + 1), dtype=np.float32)
        np.put_along_axis(present, self.causes, 1.0, axis=1)
        self.present = present[:, :-1]
        links = links_of(knowledge, knowledge.disputed_links).astype(np.float32)
        self.root = self.present * (self.present @ links == 0)
        self._rates = [-1.0] * len(knowledge.checks)
        self.above = np.zeros((len(rows), len(knowledge.checks)), dtype=np.float32)
        self.partly = np.zeros_like(self.above)

    def _points(
        self,
    ) -> Iterator[tuple[list[int], bool, tuple[float, float], FloatArray, float, FloatArray]]:
        """Causes, stuck, severities, shift and prior weight of each point.

        And (6,) variance of its effects where each has a size of its own.
        """
        k = self.knowledge
        for names, prior in prior_of_sets(k).items():
            index = [k.cause_index[n] for n in names] + [len(k.causes)] * (2 - len(names))
            sides: list[list[str | None]] = [
                [s.id for s in k.cause[n].sides] or [None] for n in names
            ]
            told = [(stuck, taken) for stuck in (False, True) for taken in product(*sides)]
            second = SEVERITY if len(names) == 2 else [0.0]
            share = prior / (len(told) / 2) / len(SEVERITY) / len(second)
            for (stuck, taken), one, two in product(told, SEVERITY, second):
                effects = [
                    np.array(k.effects[n, _mode_of(k, n, stuck), side])
                    for n, side in zip(names, taken, strict=True)
                ]
                sizes: tuple[float, ...] = (one, two)
                vary: FloatArray = np.zeros(len(DIMENSIONS))
                if self.world.effects_one_by_one:
                    sizes = (1.0, 1.0)
                    vary = np.sum(np.square(effects), axis=0) / standin.SEVERITY_SHAPE
                shift = np.sum([s * e for s, e in zip(sizes, effects, strict=False)], axis=0)
                yield index, stuck, (float(one), float(two)), shift, share, vary

    def for_handicap(self, handicap: float) -> None:
        """Fill in `above` and `partly`, (points, checks), for a player of this handicap."""
        for column, check in enumerate(self.knowledge.checks):
            rate = check.base_rate(handicap)
            if rate != self._rates[column]:
                self._rates[column] = rate
                self.above[:, column], self.partly[:, column] = self._seen(check, rate)

    def _seen(self, check: Check, rate: float) -> tuple[FloatArray, FloatArray]:
        """(points,) P(clearly so), P(partly)."""
        base = standin.NORMAL.inv_cdf(rate)
        latent = np.full(len(self.causes), base)
        for stuck in (False, True):
            here = self.stuck == stuck
            for name, stated in self.knowledge.points(
                check, "stuck" if stuck else "thrown"
            ).items():
                its = (self.causes == self.knowledge.cause_index[name]) & here[:, None]
                push = standin.push_of(stated, base)
                latent += push * (self.severity * its).sum(axis=1)
        above = ndtr(latent - standin.PARTLY_BAND)
        return above, ndtr(latent + standin.PARTLY_BAND) - above

    def of_delivery(self, known: Known, handicap: float) -> FloatArray:
        """(points,) log-likelihood of what is known of the delivery, and of the mode."""
        numbers = self.knowledge.numbers.delivery
        mean = self.shift.copy()
        mean[:, LOW_POINT] += numbers.cause_free_low_point_cm(handicap)
        for d, floor in (
            (LOW_POINT, numbers.low_point_floor_cm),
            (STRIKE, numbers.strike_floor_mm),
        ):
            mean[:, d] = np.maximum(mean[:, d], floor)
        off = known.middle - mean
        sd2 = np.array(numbers.person_sd.row()) ** 2
        limit_variance = self.own_sizes2 + known.se**2
        with np.errstate(invalid="ignore"):
            out = self._path_and_face(off, limit_variance, sd2)
        for d in range(2, len(DIMENSIONS)):
            if np.isfinite(known.se[d]):
                variance = sd2[d] * TAIL_VARIANCE + limit_variance[:, d, None]
                out += np.log((_normal(off[:, d, None], variance) * TAIL_WEIGHT).sum(axis=1))
        stuck = self.knowledge.numbers.stuck_mode.probability(handicap)
        return out + np.log(np.where(self.stuck, stuck, 1 - stuck)) + self._of_scatter(known)

    def _path_and_face(
        self, off: FloatArray, limit_variance: FloatArray, sd2: FloatArray
    ) -> FloatArray:
        together = standin.PATH_FACE_CORRELATION
        total = np.zeros(len(off))
        for v, w in zip(TAIL_VARIANCE, TAIL_WEIGHT, strict=True):
            for v2, w2 in zip(TAIL_VARIANCE, TAIL_WEIGHT, strict=True):
                a = sd2[0] * v + limit_variance[:, 0]
                c = together * math.sqrt(sd2[0] * sd2[1]) * v
                b = sd2[1] * (together**2 * v + (1 - together**2) * v2) + limit_variance[:, 1]
                face_given_path = off[:, 1] - c / a * off[:, 0]
                total += w * w2 * _normal(off[:, 0], a) * _normal(face_given_path, b - c * c / a)
        return np.log(np.maximum(total, 1e-300))

    def _of_scatter(self, known: Known) -> FloatArray:
        seen, doubt = known.scatter
        if not math.isfinite(doubt):
            return np.zeros(len(self.causes))
        wide = np.array([c.scatter_factor for c in self.knowledge.causes] + [1.0])
        factor = wide[self.causes].max(axis=1)
        return np.log(_normal(seen - np.log(factor), standin.SCATTER_SPREAD**2 + doubt**2))


class Belief:
    """What the knower holds of one student, answer by answer."""

    def __init__(self, knower: Knower, known: Known, handicap: float) -> None:
        self.knower = knower
        knower.for_handicap(handicap)
        start = knower.log_prior + knower.of_delivery(known, handicap)
        self.log = start + np.log(EYE_WEIGHT)[:, None]
        checks = knower.knowledge.checks
        self.column = {c.id: i for i, c in enumerate(checks)}
        errors = knower.knowledge.numbers.reading_error
        stated = [errors.of(c.sources[0], c.read_as) for c in checks]
        self.wrong = np.minimum(0.45, np.array(stated) * EYES[:, None])

    @property
    def points(self) -> FloatArray:
        """(points,) sums to one."""
        weights = np.exp(self.log - self.log.max()).sum(axis=0)
        out: FloatArray = weights / weights.sum()
        return out

    @property
    def present(self) -> FloatArray:
        """(causes,) P(cause present)."""
        out: FloatArray = self.points @ self.knower.present
        return out

    @property
    def root(self) -> FloatArray:
        """(causes,) P(cause present and from no other)."""
        out: FloatArray = self.points @ self.knower.root
        return out

    def take(self, reading: Reading) -> None:
        """Weigh one answer."""
        if reading.answer == "unknown":
            return
        column = self.column[reading.check]
        above = self.knower.above[:, column].astype(np.float64)
        partly = self.knower.partly[:, column].astype(np.float64)
        if reading.answer == "partly":
            self.log += np.log(np.maximum(partly, 1e-30))
            return
        wrong = self.wrong[:, column, None]
        yes = above * (1 - wrong) + (1 - above - partly) * wrong
        self.log += np.log(np.maximum(yes if reading.answer == "yes" else 1 - partly - yes, 1e-30))

    def gains(self) -> FloatArray:
        """(checks,) bits about the cause to name first, from an answer yes, partly or no."""
        points = self.points
        value = np.append(points @ self.knower.root, -1.0)
        one, two = self.knower.causes.T
        decision = np.where(value[one] >= value[two], one, two)
        picks = np.zeros((len(value), len(points)), dtype=np.float32)
        picks[decision, np.arange(len(points))] = points
        above, partly = picks @ self.knower.above, picks @ self.knower.partly
        share = picks.sum(axis=1, keepdims=True)
        wrong = EYE_WEIGHT @ self.wrong
        yes = above * (1 - wrong) + (share - above - partly) * wrong
        answers = np.stack([yes, partly, share - yes - partly]).clip(1e-30)
        of_answer = answers.sum(axis=1, keepdims=True)
        out: FloatArray = (answers * np.log2(answers / of_answer / share.clip(1e-30))).sum((0, 1))
        return out


def _mode_of(knowledge: Knowledge, cause: str, stuck: bool) -> Mode | None:
    return ("stuck" if stuck else "thrown") if knowledge.cause[cause].skill else None


def _normal(off: FloatArray, variance: FloatArray | float) -> FloatArray:
    return np.exp(-0.5 * off**2 / variance) / np.sqrt(2 * np.pi * variance)


def prior_of_sets(knowledge: Knowledge) -> dict[tuple[str, ...], float]:
    """How often the stand-in draws each set of one or two causes, among those."""
    found: dict[tuple[str, ...], float] = {}
    for share, dropped in knowledge.schools.link_views(knowledge.schools.usual):
        for names, drawn in _drawn_in_view(knowledge, dropped).items():
            found[names] = found.get(names, 0.0) + share * drawn
    whole = sum(found.values())
    return {names: drawn / whole for names, drawn in found.items()}


def _drawn_in_view(
    knowledge: Knowledge, dropped: frozenset[CauseLink]
) -> dict[tuple[str, ...], float]:
    prior, cause = knowledge.numbers.prior, knowledge.cause
    total = sum(c.base_weight for c in knowledge.causes)
    p = {c.id: c.base_weight / total for c in knowledge.causes}
    link, left = prior.link_strength, 1 - prior.link_strength

    def linked(a: str, b: str) -> bool:
        return b in cause[a].upstream_of and (a, b) not in dropped

    def adds_nothing(a: str, besides: str = "") -> float:
        return left ** sum(other != besides and linked(a, other) for other in cause[a].upstream_of)

    found: dict[tuple[str, ...], float] = {
        (a,): prior.causes_present[1] * p[a] * adds_nothing(a) for a in p
    }
    names = list(p)
    for i, a in enumerate(names):
        for b in names[i + 1 :]:
            drawn = p[a] * p[b] * (1 / (1 - p[a]) + 1 / (1 - p[b])) * prior.causes_present[2]
            added = sum(
                p[x] * link * prior.causes_present[1] for x, y in ((a, b), (b, a)) if linked(x, y)
            )
            found[a, b] = (drawn + added) * adds_nothing(a, b) * adds_nothing(b, a)
    return found
