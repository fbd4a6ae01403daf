"""How probable is a reading when each cause has one severity that drives all it does?

    reading  = D (person + sum over causes of severity × effect) + noise
    severity = that of the configuration + spread × z,  z standard normal, one for each cause

so the causes of a configuration add a term of rank one each to the covariance B of person and
noise. With F the spread times the effects as read, the whole is solved by a Cholesky factor of I +
F' B^-1 F, no larger than the number of causes, for all configurations at once. The factor does not
depend on how severe the causes are: it is made once for each form, the same causes in the same
mode and sides.

People are not all near the middle: the density is a multivariate t of that covariance, so that an
unusual person is not taken for proof of a cause. And some show one number more than all the rest:
then the density is a mixture of two that differ in what they expect of that number.
"""

import math
from dataclasses import dataclass
from functools import cached_property
from typing import Any, NamedTuple

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.frame.arrays import FloatArray, IntArray

Floats = NDArray[np.floating[Any]]
"""Single or double precision, as what is given."""


@dataclass(frozen=True, eq=False)
class DensityTail:
    """A share of players who show more of their causes in one number.

    number : which of the numbers read
    share : of the players
    more : (configurations,) what their mean of that number lies beyond that of the others
    across : (n, forms) inverse covariance of that number with each
    toward : (most, forms) how far a cause's severity moves, in standard deviations, by one unit of
        that number
    """

    number: int
    share: float
    more: Floats
    across: Floats
    toward: Floats


@dataclass(frozen=True, eq=False)
class JointDensity:
    """A reading of n numbers judged by every configuration.

    size : how many numbers were read
    tail_df : degrees of freedom of the tails, above 2
    distance2 : (configurations,) squared Mahalanobis distance from what the configuration expects
    log_det : (configurations,) log determinant of the covariance
    severity_plain : (most, configurations) how far each cause's severity lies from that of its
        configuration given the reading, in standard deviations; rows in the order of `listed`
    precision : (n, forms) one over the variance of each number given the others
    form_of : (configurations,) which form each is of
    pulled_plain : (n, configurations) inverse covariance times `off`: precision times how far each
        number lies from what the others predict
    tail : those who show more in one number; None: nobody. `plain` is without them
    """

    size: int
    tail_df: float
    distance2: Floats
    log_det: Floats
    severity_plain: Floats
    precision: Floats
    form_of: IntArray
    pulled_plain: Floats
    tail: DensityTail | None = None

    @cached_property
    def log(self) -> FloatArray:
        """(configurations,) log density of all of it."""
        if self.tail is None:
            return self._log_plain.astype(np.float64)
        return mixed(self._log_plain, self._log_beyond, self.tail.share)

    def given_the_others(self, number: int) -> FloatArray:
        """(configurations,) log density of one number given all the others."""
        own = self.precision[number][self.form_of]
        log_det = self.log_det + np.log(self.precision[number])[self.form_of]

        def others(distance2: Floats, pulled: Floats) -> Floats:
            return _log_t(distance2 - pulled**2 / own, log_det, self.size - 1, self.tail_df)

        plain = others(self.distance2, self.pulled_plain[number])
        if self.tail is None:
            return self.log - plain.astype(np.float64)
        across = self.tail.across[number][self.form_of]
        pulled = self.pulled_plain[number] - self.tail.more * across
        return self.log - mixed(plain, others(self._distance2_beyond, pulled), self.tail.share)

    @cached_property
    def beyond(self) -> FloatArray:
        """(configurations,) P(the player shows more in that one number, given the reading)."""
        if self.tail is None:
            return np.zeros(len(self.form_of))
        odds = np.exp((self._log_beyond - self._log_plain).astype(np.float64))
        odds *= self.tail.share / (1 - self.tail.share)
        out: FloatArray = odds / (1 + odds)
        return out

    @cached_property
    def severity(self) -> FloatArray:
        """(most, configurations) mean of `severity_plain` over all players."""
        out = self.severity_plain.astype(np.float64)
        if self.tail is not None:
            out -= self.beyond * self.tail.more * self.tail.toward[:, self.form_of]
        return out

    @cached_property
    def pulled(self) -> FloatArray:
        """(n, configurations) mean of `pulled_plain` over all players."""
        out = self.pulled_plain.astype(np.float64)
        if self.tail is not None:
            out -= self.beyond * self.tail.more * self.tail.across[:, self.form_of]
        return out

    @cached_property
    def _log_plain(self) -> Floats:
        return _log_t(self.distance2, self.log_det, self.size, self.tail_df)

    @cached_property
    def _log_beyond(self) -> Floats:
        return _log_t(self._distance2_beyond, self.log_det, self.size, self.tail_df)

    @cached_property
    def _distance2_beyond(self) -> Floats:
        assert self.tail is not None
        i, more = self.tail.number, self.tail.more
        own = self.precision[i][self.form_of]
        out: Floats = self.distance2 - 2 * more * self.pulled_plain[i] + more**2 * own
        return out


def mixed(plain: Floats, beyond: Floats, share: float) -> FloatArray:
    """(configurations,) log density where a share, 0 to 1, of the players is beyond."""
    most = np.maximum(plain, beyond)
    density = (1 - share) * np.exp(plain - most) + share * np.exp(beyond - most)
    return (most + np.log(density)).astype(np.float64)


def _log_t(distance2: Floats, log_det: Floats, size: int, df: float) -> Floats:
    """(configurations,) log density of a multivariate t of this covariance (not scale matrix)."""
    narrower = (df - 2) / df
    constant = math.lgamma((df + size) / 2) - math.lgamma(df / 2)
    constant -= size / 2 * math.log(df * math.pi * narrower)
    out: Floats = constant - 0.5 * log_det
    out -= (df + size) / 2 * np.log(1 + distance2 / (df * narrower))
    return out


class MoreIn(NamedTuple):
    """What some players show more of; see `DensityTail`."""

    number: int
    share: float
    more: Floats


def joint_density(
    off: Floats,
    spreads: Floats,
    listed: IntArray,
    form_of: IntArray,
    base: Floats,
    tail_df: float,
    more_in: MoreIn | None = None,
) -> JointDensity:
    """Density of a reading under every configuration.

    Parameters
    ----------
    off : (n, configurations) the reading minus its mean under the configuration; all is as precise
        as it is
    spreads : (variants, n) one standard deviation of what each variant of a cause does to it
    listed : (most, forms) which variants each form holds; the last variant is none, all zero
    form_of : (configurations,) which form each configuration is of
    base : (n, n) covariance of everything else: people and noise
    tail_df : degrees of freedom of the tails, above 2
    more_in : what some show more of; None: nobody does

    """
    solved = _solve(off, spreads, listed, form_of, base)
    severity = _backward(solved.by_configuration, solved.toward)
    precision = np.empty((len(off), listed.shape[1]), off.dtype)
    ways = [_forward(solved.factor, [each[row] for row in listed]) for each in solved.as_read]
    for i, own in enumerate(ways):
        precision[i] = solved.inverse[i, i] - sum(way * way for way in own)
    pulled = solved.weighted
    for each, z in zip(solved.of_configuration, severity, strict=True):
        pulled = pulled - each * z
    return JointDensity(
        size=len(off),
        tail_df=tail_df,
        distance2=solved.distance2,
        log_det=solved.log_det,
        severity_plain=severity,
        precision=precision,
        form_of=form_of,
        pulled_plain=pulled,
        tail=None if more_in is None else _tail(more_in, solved.inverse, ways, spreads, listed),
    )


def _tail(
    more_in: MoreIn,
    inverse: Floats,
    ways: list[list[Floats]],
    spreads: Floats,
    listed: IntArray,
) -> DensityTail:
    here = ways[more_in.number]
    across = np.array(
        [
            column - sum(a * b for a, b in zip(own, here, strict=True))
            for column, own in zip(inverse[:, more_in.number], ways, strict=True)
        ],
        spreads.dtype,
    )
    toward = np.einsum("mfn,nf->mf", spreads[listed], across)
    return DensityTail(*more_in, across=across, toward=toward)


def log_density(
    off: Floats,
    spreads: Floats,
    listed: IntArray,
    form_of: IntArray,
    base: Floats,
    tail_df: float,
) -> FloatArray:
    """(configurations,) `JointDensity.log` alone, of the same arguments as `joint_density`."""
    solved = _solve(off, spreads, listed, form_of, base)
    return _log_t(solved.distance2, solved.log_det, len(off), tail_df).astype(np.float64)


class _Solved(NamedTuple):
    """What `joint_density` and `log_density` share.

    inverse, as_read : of `base`, and (n, variants) the spreads times it
    of_story : (n, configurations) `as_read` of each cause a configuration holds, in the order of
        `listed`
    weighted : (n, configurations) inverse times off
    factor, by_story : Cholesky factor of each form, and the same for each configuration
    toward : the severities' part of each configuration solved by it
    """

    inverse: Floats
    as_read: Floats
    of_configuration: list[Floats]
    weighted: Floats
    factor: list[list[Floats]]
    by_configuration: list[list[Floats]]
    toward: list[Floats]
    distance2: Floats
    log_det: Floats


def _solve(
    off: Floats, spreads: Floats, listed: IntArray, form_of: IntArray, base: Floats
) -> _Solved:
    inverse = np.linalg.inv(base).astype(off.dtype, copy=False)
    as_read = np.ascontiguousarray(inverse @ spreads.T)
    factor = _cholesky(spreads @ as_read, listed)
    weighted = inverse @ off
    of_configuration = [as_read.take(row[form_of], axis=1) for row in listed]
    toward = [np.einsum("is,is->s", each, off) for each in of_configuration]
    by_configuration = [[e[form_of] for e in row] for row in factor]
    solved = _forward(by_configuration, toward)
    distance2 = np.einsum("is,is->s", off, weighted)
    for y in solved:
        distance2 -= y * y
    log_det = np.full(listed.shape[1], np.linalg.slogdet(base)[1], off.dtype)
    for j, row in enumerate(factor):
        log_det += 2 * np.log(row[j])
    return _Solved(
        inverse,
        as_read,
        of_configuration,
        weighted,
        factor,
        by_configuration,
        solved,
        distance2,
        log_det[form_of],
    )


def _cholesky(overlap: Floats, listed: IntArray) -> list[list[Floats]]:
    """Lower factor of I + overlap[listed, listed], entry by entry, each (forms,)."""
    factor: list[list[Floats]] = []
    for j, row in enumerate(listed):
        entries: list[Floats] = []
        for i in range(j):
            entry = overlap[row, listed[i]].copy()
            for e, f in zip(entries, factor[i], strict=False):
                entry -= e * f
            entries.append(entry / factor[i][i])
        own = 1.0 + overlap[row, row]
        for e in entries:
            own -= e * e
        factor.append([*entries, np.sqrt(own)])
    return factor


def _forward(factor: list[list[Floats]], right: list[Floats]) -> list[Floats]:
    """Solve L y = right."""
    found: list[Floats] = []
    for entries, value in zip(factor, right, strict=True):
        for e, y in zip(entries, found, strict=False):
            value = value - e * y
        found.append(value / entries[-1])
    return found


def _backward(factor: list[list[Floats]], right: list[Floats]) -> Floats:
    """Solve L' x = right."""
    found = list(right)
    for j in range(len(factor) - 1, -1, -1):
        for i in range(j + 1, len(factor)):
            found[j] = found[j] - factor[i][j] * found[i]
        found[j] = found[j] / factor[j][j]
    return np.array(found)
