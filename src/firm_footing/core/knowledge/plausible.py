"""Between which values can a measured ball lie?"""

from typing import Literal

from pydantic import Field, field_validator

from firm_footing.core.knowledge.vocabulary import Entry

KindOfClub = Literal["driver", "wood", "hybrid", "iron", "wedge", "any"]
Span = tuple[float, float]


class Plausible(Entry):
    """All of `plausible.yaml`.

    ranges : name of a value in a case file to kind of club, or any, to least and most in the
        units of a case file
    """

    source: str
    ranges: dict[str, dict[KindOfClub, Span]] = Field(min_length=1)

    @field_validator("ranges")
    @classmethod
    def _in_order(
        cls, value: dict[str, dict[KindOfClub, Span]]
    ) -> dict[str, dict[KindOfClub, Span]]:
        for name, spans in value.items():
            wrong = [kind for kind, (least, most) in spans.items() if least >= most]
            if wrong or not spans:
                raise ValueError(f"{name}: least must be below most, for each kind of club")
        return value

    def span(self, name: str, kind: str) -> Span | None:
        """What this value can be with this kind of club; None where nothing is known."""
        spans = self.ranges.get(name, {})
        return next((s for k, s in spans.items() if k in (kind, "any")), None)

    def widest(self, name: str) -> Span | None:
        """What this value can be with any club; None where nothing is known."""
        spans = self.ranges.get(name, {}).values()
        return (min(s[0] for s in spans), max(s[1] for s in spans)) if spans else None
