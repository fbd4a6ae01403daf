"""Which clubs are there, and how do their heads meet a ball?"""

from typing import Literal

from pydantic import Field, model_validator

from firm_footing.core.knowledge.soft_threshold import SoftThreshold
from firm_footing.core.knowledge.vocabulary import Entry

HeadKind = Literal["driver", "wood", "hybrid", "iron", "wedge"]


class Head(Entry):
    """How a kind of club head gives way to a blow away from its middle.

    depth_mm : the centre of mass lies this far behind the face
    bulge_mm, roll_mm : radius of the face across and up; None: flat
    """

    inertia_vertical_g_cm2: float = Field(gt=0)
    inertia_heel_toe_g_cm2: float = Field(gt=0)
    depth_mm: float = Field(ge=0)
    bulge_mm: float | None = Field(None, gt=0)
    roll_mm: float | None = Field(None, gt=0)
    restitution_lost_per_cm2: float = Field(ge=0)
    teed: bool = Field(False, description="Hit from a tee unless it is said otherwise")


class ClubTarget(Entry):
    """What one wants of a club where a monitor measures it; degrees.

    loft_deg : of the club as it is made; the shaft leans by what the loft at the ball is less
    lean_least_deg, lean_most_deg : of the shaft toward the target at the ball
    flip_below_deg : less lean than this is a flip
    """

    loft_deg: float = Field(gt=0)
    launch_below_deg: float = Field(gt=0)
    lean_least_deg: float
    lean_most_deg: float
    flip_below_deg: SoftThreshold


class ClubEntry(Entry):
    """One club as `clubs.yaml` has it; units in the names.

    restitution : speed of parting over speed of meeting, along the face's normal
    grip : the same plus one, across it; 1 is a ball that ends up rolling on the face
    speed_share : of the club speed with a driver
    ball_forward_cm : of the place where an iron's ball lies
    """

    id: str
    name: str
    kind: HeadKind
    head_mass_g: float = Field(gt=100, lt=500)
    restitution: float = Field(gt=0, lt=1)
    grip: float = Field(gt=0, lt=2)
    dynamic_loft_deg: float = Field(gt=0)
    speed_share: float = Field(gt=0, le=1)
    ball_forward_cm: float
    target: ClubTarget | None = None


class Club(ClubEntry):
    """A club with its kind of head."""

    head: Head


class ClubsFile(Entry):
    """All of `clubs.yaml`."""

    source: str
    heads: dict[HeadKind, Head]
    clubs: tuple[ClubEntry, ...]

    @model_validator(mode="after")
    def _every_head_is_described(self) -> "ClubsFile":
        missing = {c.kind for c in self.clubs} - set(self.heads)
        if missing:
            raise ValueError(f"no head is described for {', '.join(sorted(missing))}")
        return self

    def with_heads(self) -> tuple[Club, ...]:
        """Every club with its kind of head."""
        return tuple(
            Club(**entry.model_dump(), head=self.heads[entry.kind]) for entry in self.clubs
        )
