"""How widely do a block's balls scatter, against what is usual?

One factor on the usual scatter, one for all parts of the delivery. Between people it lies about
one, log-normally; a block's balls move it, the more of them the farther. The block's middle is
fitted to the same balls, which is charged for (restricted likelihood: Patterson & Thompson 1971,
from memory). A ball may be wild, and then says little of the others.
"""

from typing import Final, NamedTuple

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.frame.arrays import FloatArray

FACTORS: Final = np.exp(np.linspace(-1.3, 1.3, 27))
"""What the factor may be."""
WILD: Final = 0.04
WIDER2: Final = 9.0
"""A ball in 25 is wild, three times as far out as ordinary ones; estimates."""


class Away(NamedTuple):
    """How far n balls lie from a middle, by what was noted of each.

    each, pulled : (n, d, d), (n, d) information matrix and vector of each ball, from the middle, as
        if balls did not scatter
    away2 : (n,) squared distance by the notes' own noise
    counted : (n,) notes that the distance is made of
    """

    each: FloatArray
    pulled: FloatArray
    away2: FloatArray
    counted: NDArray[np.int_]

    def distances2(self, scatter2: FloatArray) -> FloatArray:
        """(n,) squared distances, standardised by noise and this scatter (n, d)."""
        own = (1 / scatter2)[:, :, None] * np.eye(scatter2.shape[1])
        inner = np.linalg.inv(self.each + own)
        taken = (self.pulled[:, None, :] @ inner @ self.pulled[:, :, None])[:, 0, 0]
        return self.away2 - taken

    def of(self, balls: NDArray[np.bool_]) -> "Away":
        """Some of the balls."""
        return Away(self.each[balls], self.pulled[balls], self.away2[balls], self.counted[balls])

    def without(self, part: int, scatter2: float) -> "Away":
        """The same with the last part, of this scatter, counted among the noise."""
        across, own = self.each[:, part, :part], self.each[:, part, part] + 1 / scatter2
        pulled = self.pulled[:, part] / own
        taken = across[:, :, None] * across[:, None] / own[:, None, None]
        return Away(
            each=self.each[:, :part, :part] - taken,
            pulled=self.pulled[:, :part] - across * pulled[:, None],
            away2=self.away2 - self.pulled[:, part] * pulled,
            counted=self.counted,
        )

    def fitted_factor2(self, usual: FloatArray, prior: FloatArray, spread: float) -> float:
        """Posterior mean of the square of the factor by which these balls scatter wider.

        Parameters
        ----------
        usual : (d,) usual scatter, standard deviations
        prior : (d, d) precision of the middle before any ball
        spread : of the factor between people, log

        """
        values, ways = np.linalg.eigh(usual[:, None] * self.each * usual)
        values = np.maximum(values, 0.0)
        along = (ways.swapaxes(1, 2) @ (usual * self.pulled)[:, :, None])[:, :, 0]
        factor2 = FACTORS**2
        shrunk = 1 + values[:, :, None] * factor2  # (n, d, factors)
        taken = (along[:, :, None] ** 2 * factor2 / shrunk).sum(axis=1)
        distance2 = self.away2[:, None] - taken
        wild = np.log(WILD) - 0.5 * (distance2 / WIDER2 + self.counted[:, None] * np.log(WIDER2))
        each = np.logaddexp(np.log1p(-WILD) - 0.5 * distance2, wild)
        log = (each - 0.5 * np.log(shrunk).sum(axis=1)).sum(axis=0)
        back = ways / usual[:, None]
        information = np.einsum("nij,njk,nlj->kil", back, values[:, :, None] / shrunk, back)
        log -= 0.5 * np.linalg.slogdet(information + prior)[1]
        log -= 0.5 * (np.log(FACTORS) / spread) ** 2
        weight = np.exp(log - log.max())
        return float(weight @ factor2 / weight.sum())
