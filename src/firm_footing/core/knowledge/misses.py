"""Which misses do students name, and which thought gets one round when it comes back?"""

from pydantic import Field

from firm_footing.core.knowledge.vocabulary import Act, Entry


class Rescue(Entry):
    """One thought that gets a player round when a miss comes back on the course.

    does : what it has the player do
    causes : those it was made for, before all others
    """

    say: str
    does: tuple[Act, ...] = Field(min_length=1)
    causes: tuple[str, ...] = ()


class Miss(Entry):
    """A miss as students name it, and what its balls look like, one for each kind.

    carry_part : of the carry to be expected with the club
    rescues : for the course, in the order of preference
    """

    id: str
    name: str
    balls: tuple[dict[str, str | float], ...] = Field(min_length=1)
    carry_part: float | None = Field(None, gt=0, lt=2)
    rescues: tuple[Rescue, ...] = Field(min_length=1)
    source: str
