"""Which words may the knowledge files use?"""

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

CauseGroup = Literal["setup", "backswing", "downswing", "elsewhere"]
"""Where in the swing a cause sits; the first three are the feet's."""

Phase = Literal["setup", "going_back", "starting_down", "at_the_ball"]
"""When a cause acts."""

FEET_GROUPS: tuple[CauseGroup, ...] = ("setup", "backswing", "downswing")

Mode = Literal["thrown", "stuck"]
"""One swing has one mode: the club is thrown out, or left stuck behind."""

Strength = Literal["strong", "moderate", "weak"]
PointStrength = Literal[Strength, "by_nature"]
"""How strongly a look points to a cause.

`by_nature`: it shows this sight as the one does that the look is for, so that seeing it does not
tell the two apart.
"""
Source = Literal["look", "film", "mat", "plate", "monitor", "feel"]
BY_EYE: tuple[Source, ...] = ("look", "film", "feel")
"""Sources that somebody judges; the others are instruments, which are read."""
Answer = Literal["yes", "partly", "no", "unknown"]
ReadAs = Literal["at_rest", "in_a_frame", "moving"]
"""How the eye meets what it looks for: standing still, in one frame of a film, or on the move."""

Stage = Literal["listen", "shots", "look", "pressure", "decide", "drill", "retest", "send"]
"""The stages of a lesson, in their order."""
Seen = Literal["yes", "partly", "no"]
"""Whether a cause itself was seen."""

Act = Literal[
    "aim_elsewhere", "more_club", "finish_lead", "lead_toes_down", "hips_first", "arms_first",
    "shorter_swing", "soft_hand", "chest_through", "stay_trail", "lead_foot_early", "move_ball",
    "weight_lead", "stay_down", "nearer_ball", "further_from_ball", "heel_down", "off_toes",
    "chest_first", "quiet_feet",
]  # fmt: skip
"""What a thought has a player do, so far as it helps one cause and feeds another."""

Contact = Literal["clean", "fat", "thin", "top", "heel", "hosel", "toe"]
"""How a ball was met, as it is said on the tee; `heel` is nearer the heel but not off the hosel."""

Probability = Annotated[float, Field(gt=0, lt=1)]

View = Literal["setup", "down_the_line", "face_on", "pressure", "finish", "feel", "belief"]

Limit = Literal[
    "knee",
    "hip",
    "ankle",
    "back",
    "shoulder",
    "wrist",
    "balance",
    "pregnancy",
    "heart",
    "stiff_hips",
    "stiff_ankles",
]

PlanPart = Literal[
    "lead_foot", "lead_heel", "lead_toe", "trail_foot", "trail_heel", "trail_toe",
    "both_toes", "both_heels", "hips", "chest", "hands", "grip", "club", "ball", "aim",
]  # fmt: skip
"""Parts of the ground plan that a cause or a mechanism can light."""

Move = Literal[
    "toward_ball", "away_from_ball", "toward_target", "away_from_target", "up", "still"
]  # fmt: skip

DIMENSIONS: tuple[str, ...] = (
    "path_deg",
    "face_to_path_deg",
    "low_point_cm",
    "heel_toe_mm",
    "dynamic_loft_deg",
    "club_speed_pct",
)
"""The delivery: the order of every array of shape (..., 6) in the core.

Golfer-neutral: path and face to path in degrees, + to the push side; low point in cm from the
ball, + on the target side; strike in mm from the centre of the face, + toward the toe; dynamic
loft in degrees and club speed in per cent, both against what is usual for club and player.
"""


class Entry(BaseModel):
    """Base of everything read from a knowledge file: unknown keys are errors, values are frozen."""

    model_config = ConfigDict(extra="forbid", frozen=True, allow_inf_nan=False)


class DeliveryEffect(Entry):
    """One value per dimension of the delivery; those left out are zero shifts."""

    path_deg: float = 0.0
    face_to_path_deg: float = 0.0
    low_point_cm: float = 0.0
    heel_toe_mm: float = 0.0
    dynamic_loft_deg: float = 0.0
    club_speed_pct: float = 0.0

    def row(self) -> tuple[float, ...]:
        """The six values in the order of `DIMENSIONS`."""
        return tuple(float(getattr(self, name)) for name in DIMENSIONS)
