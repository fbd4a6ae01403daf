"""What the balls of several blocks show, made linear, with what a block's balls have in common.

All balls of a block have the same slopes. Balls struck here and there answer to loft and speed a
little differently; were each taken at its word, forty carries would make out a loft twenty degrees
off.
"""

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.estimation.shown import Physics
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.physics.forward import SPEED


class LinearPhysics:
    """The forward models of several blocks, for n balls in all.

    blocks : where each block's balls stand
    """

    def __init__(self, physics: list[Physics], made: NDArray[np.bool_]) -> None:
        """Keep the models beside what was noted, (n, readings)."""
        self.physics, self.made = physics, made
        ends = np.cumsum([block.count for block in physics]).tolist()
        self.blocks = [slice(end - b.count, end) for end, b in zip(ends, physics, strict=True)]

    def linear(
        self, parts: FloatArray, root: FloatArray
    ) -> tuple[FloatArray, FloatArray, FloatArray]:
        """What the balls show, its slopes, and what bends leave over; see `Physics.linear`.

        Of each reading the slopes are the mean of those of a block's balls that noted it.
        """
        each = []
        for block, here in zip(self.physics, self.blocks, strict=True):
            shown, slopes, left_over = block.linear(parts[here], root[here])
            noted = self.made[here].astype(float)
            noted[:, ~noted.any(axis=0)] = 1.0
            alike = np.einsum("nr,nrp->rp", noted / noted.sum(axis=0), slopes)
            each.append((shown, np.broadcast_to(alike, slopes.shape), left_over))
        shown, slopes, left_over = (np.concatenate(part) for part in zip(*each, strict=True))
        return shown, slopes, left_over

    def speed_of_marks(self, slopes: FloatArray) -> FloatArray:
        """(n, readings, blocks) what one per cent of club speed does to all balls of each block."""
        out = np.zeros((*slopes.shape[:2], len(self.blocks)))
        for column, here in enumerate(self.blocks):
            out[here, :, column] = slopes[here, :, SPEED]
        return out
