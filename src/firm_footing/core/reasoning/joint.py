"""How probable is a reading when each cause has one severity that drives all it does?

    reading  = D (person + sum over causes of severity × effect) + noise
    severity = 1 + spread × z,  z standard normal, one for each cause

so the causes of a story add a term of rank one each to the covariance B of person and noise. With
F the spread times the effects as read, the whole is solved by a Cholesky factor of I + F' B^-1 F,
no larger than the number of causes, for all stories at once.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

FloatArray = NDArray[np.float64]
IntArray = NDArray[np.int_]

LOG_2PI = float(np.log(2 * np.pi))


@dataclass(frozen=True, eq=False)
class Joint:
    """A reading of n numbers judged by every story.

    log : (stories,) log density of all of it
    severity : (most, stories) how far each cause's severity lies from its mean of 1 given the
        reading, in standard deviations; rows in the order of `listed`
    precision : (n, stories) one over the variance of each number given the others
    pulled : (n, stories) precision times how far it lies from what the others predict
    """

    log: FloatArray
    severity: FloatArray
    precision: FloatArray
    pulled: FloatArray

    def given_the_others(self, number: int) -> FloatArray:
        """(stories,) log density of one number given all the others."""
        out: FloatArray = -0.5 * (
            self.pulled[number] ** 2 / self.precision[number]
            - np.log(self.precision[number])
            + LOG_2PI
        )
        return out


def judge(off: FloatArray, spreads: FloatArray, listed: IntArray, base: FloatArray) -> Joint:
    """Density of a reading under every story.

    Parameters
    ----------
    off : (n, stories) the reading minus its mean under the story
    spreads : (variants, n) one standard deviation of what each variant of a cause does to it
    listed : (most, stories) which variants each story holds; the last variant is none, all zero
    base : (n, n) covariance of everything else: people and noise

    """
    inverse = np.linalg.inv(base)
    as_read = spreads @ inverse
    overlap = as_read @ spreads.T
    weighted = inverse @ off
    factor = _cholesky(overlap, listed)
    toward = np.take_along_axis(spreads @ weighted, listed, axis=0)
    solved = _forward(factor, list(toward))
    log = -0.5 * (np.einsum("is,is->s", off, weighted) + np.linalg.slogdet(base)[1])
    log -= 0.5 * len(off) * LOG_2PI
    for j, y in enumerate(solved):
        log += 0.5 * y * y - np.log(factor[j][j])
    precision, pulled = np.empty_like(off), weighted
    for i in range(len(off)):
        z = _forward(factor, [as_read[row, i] for row in listed])
        precision[i] = inverse[i, i] - sum(each * each for each in z)
        pulled[i] -= sum(each * y for each, y in zip(z, solved, strict=True))
    return Joint(log, _backward(factor, solved), precision, pulled)


def _cholesky(overlap: FloatArray, listed: IntArray) -> list[list[FloatArray]]:
    """Lower factor of I + overlap[listed, listed], entry by entry, each (stories,)."""
    factor: list[list[FloatArray]] = []
    for j, row in enumerate(listed):
        entries: list[FloatArray] = []
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


def _forward(factor: list[list[FloatArray]], right: list[FloatArray]) -> list[FloatArray]:
    """Solve L y = right."""
    found: list[FloatArray] = []
    for entries, value in zip(factor, right, strict=True):
        for e, y in zip(entries, found, strict=False):
            value = value - e * y
        found.append(value / entries[-1])
    return found


def _backward(factor: list[list[FloatArray]], right: list[FloatArray]) -> FloatArray:
    """Solve L' x = right."""
    found = list(right)
    for j in range(len(factor) - 1, -1, -1):
        for i in range(j + 1, len(factor)):
            found[j] = found[j] - factor[i][j] * found[i]
        found[j] = found[j] / factor[j][j]
    return np.array(found)
