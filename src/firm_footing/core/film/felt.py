"""What did the student believe, and what does the film show?

Before the picture is shown, the student points on the posed figure to where a joint is. How far
that lies from where the figure had it before, along the measure's own direction, is what they feel.
"""

from dataclasses import dataclass

from firm_footing.core.film.measures import MeasureRead


@dataclass(frozen=True)
class FeltAndSeen:
    """A feel with its truth, in the measure's unit."""

    read: MeasureRead
    felt: float

    @property
    def off(self) -> float:
        """How much more the film shows than was felt."""
        return self.read.value - self.felt

    @property
    def beyond_chance(self) -> bool:
        """Whether feel and film differ by more than the film's doubt, nineteen times in twenty."""
        return abs(self.off) > 1.96 * self.read.sd

    @property
    def text(self) -> str:
        """In a sentence."""
        name, sd = self.read.measure.name, 1.96 * self.read.sd
        said = (
            f"{name[0].upper()}{name[1:]}: felt {self.felt:.0f} cm,"
            f" the film shows {self.read.value:.0f}, give or take {sd:.0f}."
        )
        if not self.beyond_chance:
            return f"{said} The feel is right, as far as a film can tell."
        way = "more" if self.off > 0 else "less"
        return f"{said} It is {abs(self.off):.0f} cm {way} than felt."
