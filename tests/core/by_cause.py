"""What is kept for the causes of each set, as a table with a column for every cause."""

import numpy as np

from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.inference.inference import Inference


def starts_by_cause(found: Inference) -> FloatArray:
    """(sets, causes) P(one starts with the cause, if that set is the truth)."""
    listed, starts = found.space.members_listed, found.starts
    out = np.zeros((listed.shape[1], len(found.knowledge.causes) + 1))
    np.put_along_axis(out, listed.T, starts.T, axis=1)
    return out[:, :-1]
