"""What became of a decision: of this lesson's, and of earlier ones of the same student."""

from typing import Annotated

from pydantic import Field

from firm_footing.core.case.base import Number, Strict, Word
from firm_footing.core.knowledge.casebook import Fate, KnownBy

MOST_DAYS = 40_000
HowCommon = tuple[tuple[Word, float], ...]
"""(cause id, factor of its weight) of causes that are commoner, or rarer, than the files say."""
Factor = Annotated[float, Field(gt=0, le=100)]
Eye = tuple[tuple[Word, Factor, Factor], ...]
"""(check id, factor of false yes, of false no) of looks that the instructor answers by eye.

How often an answer is wrong, against what the files say; 1 where they are right.
"""


class Taught(Strict):
    """What a casebook taught, as far as rankings take it over."""

    how_common: HowCommon = ()
    eye: Eye = ()


KnownByAll = Annotated[tuple[KnownBy, ...], Field(min_length=1, max_length=6)]


class DecisionOutcome(Strict):
    """The fate of a decision.

    decided : id of the cause; known_by : everything that says so
    """

    decided: Word
    fate: Fate
    known_by: KnownByAll


class PastDecision(DecisionOutcome):
    """A decision of an earlier lesson of the same student.

    days_ago : of that lesson
    held : it was treated and stayed away, as far as is known; None: nobody said
    """

    days_ago: Annotated[Number, Field(ge=0, le=MOST_DAYS)]
    held: bool | None = None
