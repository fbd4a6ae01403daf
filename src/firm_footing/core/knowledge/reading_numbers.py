"""Which numbers say how well things are seen, noted and measured?"""

from typing import Literal

from pydantic import Field

from firm_footing.core.knowledge.vocabulary import Entry, Probability, ReadAs, Source


class ReadingErrors(Entry):
    """How often an answer is wrong, by its source and by how the eye meets the matter.

    look_at_rest, film_frame : of matters that stand still, and that one frame of a film shows
    """

    mat: Probability
    plate: Probability
    monitor: Probability
    film: Probability
    film_frame: Probability
    look: Probability
    look_at_rest: Probability
    feel: Probability

    def of(self, source: Source, read_as: ReadAs) -> float:
        """How often an answer from this source is wrong."""
        if source == "look" and read_as == "at_rest":
            return self.look_at_rest
        if source == "film" and read_as != "moving":
            return self.film_frame
        error: float = getattr(self, source)
        return error


class NotingNumbers(Entry):
    """How well each thing is noted: one standard deviation."""

    word_far_ends_deg: float = Field(gt=0)
    word_sd_deg: float = Field(gt=0)
    measured_direction_sd_deg: float = Field(gt=0)
    measured_path_sd_deg: float = Field(gt=0)
    measured_face_sd_deg: float = Field(gt=0)
    measured_attack_sd_deg: float = Field(gt=0)
    measured_loft_sd_deg: float = Field(gt=0)
    measured_launch_sd_deg: float = Field(gt=0)
    measured_axis_sd_deg: float = Field(gt=0)
    measured_spin_sd_pct: float = Field(gt=0)
    measured_ball_speed_sd_pct: float = Field(gt=0)
    measured_club_speed_sd_pct: float = Field(gt=0)
    start_model_sd_deg: float = Field(ge=0)
    curve_model_sd_deg: float = Field(gt=0)
    divot_direction_sd_deg: float = Field(gt=0)
    strike_sd_mm: float = Field(gt=0)
    carry_sd_pct: float = Field(gt=0)


class MarkError(Entry):
    """How doubtful what a ball is held against is, per cent, by where the mark comes from."""

    named: float = Field(gt=0)
    club_speed: float = Field(gt=0)
    own_best: float = Field(gt=0)
    handicap: float = Field(gt=0)


class SharedError(Entry):
    """What can be off for a whole block: one standard deviation each, beside the scatter of balls.

    aim_deg : of where the target is taken to be
    ground_cm : of divots, off a slope or a soft place
    speed_pct : of the club speed that the mark stands for
    """

    aim_deg: float = Field(gt=0)
    divot_direction_deg: float = Field(gt=0)
    ground_cm: float = Field(gt=0)
    strike_mm: float = Field(gt=0)
    carry_pct: MarkError
    speed_pct: MarkError

    def of(self, name: str, mark: str) -> float:
        """One standard deviation; of carry and speed as a natural logarithm."""
        found: float | MarkError = getattr(self, name)
        if isinstance(found, MarkError):
            error: float = getattr(found, mark)
            return error / 100
        return found


class Says(Entry):
    """What a word of contact says: a quantity lies between two limits, with a doubt about them."""

    quantity: Literal["low_point_cm", "heel_toe_mm"]
    least: float | None = None
    most: float | None = None
    sd: float = Field(gt=0)


class OnTheFace(Entry):
    """Where a ball was met of which neither heel, hosel nor toe was said; - heel."""

    least_mm: float = Field(lt=0)
    most_mm: float = Field(gt=0)
    sd_mm: float = Field(gt=0)


class ByMeasure(Entry):
    """One number for each measure noted ball by ball, in its unit."""

    start_deg: float = Field(gt=0)
    curve_deg: float = Field(gt=0)
    heel_toe_mm: float = Field(gt=0)
    low_point_cm: float = Field(gt=0)
    carry_m: float = Field(gt=0)
    carry_lost_pct: float = Field(gt=0)


class Chance(Entry):
    """When a difference is called more than chance.

    level : chance alone would make so large a one this seldom
    floor : standard deviation that single balls scatter with at least, however alike they were
        noted
    """

    level: float = Field(gt=0, lt=1)
    floor: ByMeasure
