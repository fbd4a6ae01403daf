"""In which words is a cause cued?"""

from typing import Literal

from pydantic import Field, model_validator

from firm_footing.core.knowledge.vocabulary import Act, Entry

Force = Literal["vertical", "lateral", "rotational"]
Leg = Literal["lead", "trail"]
Way = Literal["pushing", "moved"]
"""Whether a student speaks of pushing the ground or of being moved by it."""


class CueOf(Entry):
    """How a cause is cued: by a force and a leg, by words for each way of feeling, or for both.

    by_school : school to the sentence that comes first when it is chosen
    images : pictures of what it should feel like, offered after the sentences
    own_leg_only : the other leg is never offered, however much steadier the student is on it
    loads : the leg that its own sentences load
    does : what its cue has the player do
    forbids : what would feed the cause: no cue, thought or rescue for it may do that
    """

    force: Force | None = None
    leg: Leg | None = None
    pushing: str | None = None
    moved: str | None = None
    say: str | None = None
    by_school: dict[str, str] = Field(default_factory=dict)
    images: tuple[str, ...] = ()
    own_leg_only: bool = False
    loads: Leg | None = None
    does: tuple[Act, ...] = ()
    forbids: tuple[Act, ...] = ()

    @model_validator(mode="after")
    def _one_of_three(self) -> "CueOf":
        kinds = ((self.force, self.leg), (self.pushing, self.moved), (self.say,))
        given = [kind for kind in kinds if any(part is not None for part in kind)]
        if len(given) != 1 or None in given[0]:
            raise ValueError("give 'force' with 'leg', or 'pushing' with 'moved', or 'say'")
        return self


class Cues(Entry):
    """All of `cues.yaml`."""

    source: str
    sentences: dict[Force, dict[Leg, dict[Way, str]]]
    images: dict[Force, tuple[str, ...]]
    causes: dict[str, CueOf]
