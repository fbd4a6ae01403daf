"""What did the ball, the turf and the face show? A block of balls to the club's delivery."""

from firm_footing.core.patterns.pattern import Estimate, Pattern, read_pattern

__all__ = ["Estimate", "Pattern", "read_pattern"]
