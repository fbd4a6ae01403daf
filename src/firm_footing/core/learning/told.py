"""How much did each piece of evidence tell in a lesson?"""

import math

import numpy as np

from firm_footing.core.inference.inference import Inference


def bits_told(inference: Inference) -> dict[str, float]:
    """Piece of evidence to the bits it told, of which causes are at work and in which form.

    The Kullback-Leibler divergence of what is probable with everything from what would be without
    that piece: with p the probabilities and w what each gets back when the piece is taken away,
    log2(sum of p w) - sum of p log2(w). Never below zero; pieces that say the same count the less.
    """
    p = inference.now.hypothesis
    at_work = p > 0
    told: dict[str, float] = {}
    for piece in inference.pieces:
        w = piece.leave_one_out_weight[at_work]
        bits = math.log2(float(p[at_work] @ w)) - float(p[at_work] @ np.log2(w))
        told[piece.id] = told.get(piece.id, 0.0) + max(0.0, bits)
    return told
