"""What does it say of a number that it lies somewhere between two limits?"""

import math

import numpy as np
from scipy.special import ndtr

from firm_footing.core.frame.arrays import FloatArray


def interval_slopes(
    mean: FloatArray, variance: FloatArray, least: FloatArray, most: FloatArray
) -> tuple[FloatArray, FloatArray]:
    """First and second derivative, by the mean, of log P(least < x < most), x normal: (n,) each.

    Far outside, where the probability vanishes, the nearer limit acts like a measured value.
    """
    sd = np.sqrt(variance)
    a, b = (least - mean) / sd, (most - mean) / sd
    # the tail on the other side tells small probabilities that are lost as differences near one
    above = a > 0
    inside = ndtr(np.where(above, -a, b)) - ndtr(np.where(above, -b, a))
    probability = np.maximum(inside, 1e-300)
    at_a, at_b = _density(a), _density(b)
    first = (at_a - at_b) / probability
    second = (_times(a, at_a) - _times(b, at_b)) / probability - first**2
    far = inside < 1e-30
    first = np.where(far, np.where(above, a, b), first)
    second = np.where(far, -1.0, np.minimum(second, -1e-6))
    return first / sd, second / variance


def _density(x: FloatArray) -> FloatArray:
    out: FloatArray = np.exp(-0.5 * np.minimum(x * x, 1400.0)) / math.sqrt(2 * math.pi)
    return out


def _times(x: FloatArray, density: FloatArray) -> FloatArray:
    """X × density, nothing at infinity."""
    return np.where(np.isinf(x), 0.0, x) * density
