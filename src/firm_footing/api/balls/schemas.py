"""What the balls of a lesson show, as it goes over the wire."""

from datetime import datetime
from typing import Literal

from pydantic import BaseModel, Field

from firm_footing.api.conclusions.schemas import Spread
from firm_footing.api.wire import Out


class LostOut(Out):
    """An account of lost distance: items and remainder add up to expected minus actual."""

    expected_m: float
    actual_m: float
    items: dict[str, float] = Field(description="+ lost, - won, in metres")
    remainder_m: float
    measured: bool = Field(description="false: the actual carry is a computed one")
    adds_up: bool = Field(description="false: too much is left over, something was noted wrong")


class GroupOut(Out):
    """Balls that belong together."""

    balls: list[int] = Field(description="Numbers in the block, from 0")
    start_deg: float
    curve_deg: float
    shape: str


class DriftOut(Out):
    """Something that changed while the block was hit."""

    what: str
    change: float
    chance: float = Field(description="How often chance alone would show as much")


class ReadBall(BaseModel):
    """One ball as it was worked out."""

    shot_id: str
    delivery: dict[str, Spread] = Field(description="By quantity, + push side, ahead, toe, up")
    start_deg: float
    curve_deg: float
    carry_m: float
    apex_m: float
    track: list[tuple[float, float, float]] = Field(
        description="Places on its way: along the target line, up, to the push side; metres"
    )
    wild: bool
    lost: LostOut


class WantedOut(Out):
    """A measured number that the club has a target for, degrees; `least` null: any less will do."""

    name: Literal["launch_deg", "lean_deg"]
    value: float
    least: float | None
    most: float


class ReadBlock(BaseModel):
    """A block as it was worked out."""

    block_id: str
    expected_carry_m: float
    expected_source: Literal["named", "club_speed", "own_best", "handicap"]
    shape: str | None
    two_way: bool
    missed: list[str] = Field(description='Contact in words, the clean ones aside: "4 of 7 fat"')
    strike_in_words: bool = Field(description="Words of contact are all that tells of the strike")
    carry_lost_pct: float | None = Field(description="Of the carry named; null where none was")
    delivery: dict[str, Spread] = Field(description="What the balls do not fix is left out")
    scatter: dict[str, float] = Field(description="Standard deviation of the balls")
    balls: list[ReadBall]
    groups: list[GroupOut] = Field(description="Two where one swing does not explain the balls")
    drifts: list[DriftOut]
    lost: LostOut
    wanted: list[WantedOut]


class MovedOut(Out):
    """One number then and now."""

    name: str
    then: Spread
    now: Spread
    difference: Spread
    sure: bool


class EarlierOut(BaseModel):
    """An earlier lesson's baseline with the same club, against this one's."""

    lesson_id: str
    started_at: datetime
    club: str
    balls: int
    moved: list[MovedOut]
