"""How much carry does a delivery cost?

A first, simple account in per cent of the expected carry.
"""

from collections.abc import Mapping

from firm_footing.core.knowledge.numbers import CarryLoss


def carry_lost_pct(
    delivery: Mapping[str, float], loss_per_loft_deg: float, loss: CarryLoss
) -> float:
    """Per cent of carry lost to strike, glancing blow, ground before ball, loft and club speed.

    Parameters
    ----------
    delivery : values by the names of `DIMENSIONS`; those left out are as expected
    loss_per_loft_deg : of the club
    loss : the sizes

    """
    strike = loss.per_strike_10mm_squared * (delivery.get("heel_toe_mm", 0.0) / 10) ** 2
    return (
        min(strike, loss.strike_cap)
        + loss.per_face_to_path_deg_squared * delivery.get("face_to_path_deg", 0.0) ** 2
        + loss.per_low_point_cm_behind * max(0.0, -delivery.get("low_point_cm", 0.0))
        + loss_per_loft_deg * max(0.0, delivery.get("dynamic_loft_deg", 0.0))
        - loss.per_club_speed_pct * delivery.get("club_speed_pct", 0.0)
    )
