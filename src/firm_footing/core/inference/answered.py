"""Which answers to a look count, of those given by hand, measured, traced and filmed?"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from firm_footing.core.case import Reading

Answers = Mapping[str, Sequence[Reading]]

BY_MAT = ("mat", "plate")


@dataclass(frozen=True, eq=False)
class Answered:
    """Check to its answers, by where they come from.

    by_hand : as somebody gave them
    measured : of a number taken; gives way to any answer by hand
    traced : of the pressure traces; give way to an answer by hand from the mat or plate
    filmed : of the films; give way to any answer by hand and to a number taken
    """

    by_hand: Answers
    measured: Answers
    traced: Answers
    filmed: Answers

    def of(self, check: str) -> list[Reading]:
        """The answers to one check that count, empty where there is none."""
        found = list(self.by_hand.get(check) or self.measured.get(check, ()))
        filmed = () if found else self.filmed.get(check, ())
        if not any(r.source in BY_MAT for r in found):
            found += self.traced.get(check, ())
        return [*found, *filmed]

    def counted(self) -> dict[str, list[Reading]]:
        """All answers that count."""
        every = (self.by_hand, self.measured, self.traced, self.filmed)
        checks = dict.fromkeys(name for answers in every for name in answers)
        return {name: said for name in checks if (said := self.of(name))}

    def with_answer(self, reading: Reading) -> "Answered":
        """The same with one more answer by hand."""
        before = self.by_hand.get(reading.check, ())
        return replace(self, by_hand={**self.by_hand, reading.check: [*before, reading]})
