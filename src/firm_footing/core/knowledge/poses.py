"""How is the one figure posed, so that sound and unsound can be seen at a look?"""

from typing import Literal

from pydantic import Field, model_validator

from firm_footing.core.knowledge.vocabulary import Entry

PoseView = Literal["down_the_line", "face_on", "feet", "hand", "club"]
PoseNumbers = dict[str, float]
"""A name of the figure's to a number; the file says which and in what unit."""


class CheckPose(Entry):
    """How a look is drawn: a base, and what sound and unsound change of it."""

    view: PoseView
    base: str
    sound: PoseNumbers = Field(default_factory=dict)
    unsound: PoseNumbers = Field(min_length=1)


class Thing(Entry):
    """Something beside the figure, in hundredths of the drawing from its upper left corner.

    to_x, to_y : the other end of what has two
    tilt : degrees, + clockwise
    """

    kind: Literal[
        "stick", "club", "line", "arrow", "slope", "bottle", "chair", "cushion", "pad",
        "half_ball", "ball", "divot",
    ]  # fmt: skip
    x: float
    y: float
    to_x: float | None = None
    to_y: float | None = None
    tilt: float = 0.0

    @model_validator(mode="after")
    def _long_things_have_two_ends(self) -> "Thing":
        two = self.to_x is not None and self.to_y is not None
        if (self.kind in ("stick", "club", "line", "arrow", "slope")) != two:
            raise ValueError(f"a {self.kind} has {'one end' if two else 'two ends'}")
        return self


class DrillPose(Entry):
    """One moment of a drill: a base, what is changed of it, and what stands beside it."""

    word: Literal["start", "right", "not_yet"]
    view: PoseView
    base: str
    pose: PoseNumbers = Field(default_factory=dict)
    things: tuple[Thing, ...] = ()


class Poses(Entry):
    """All of `poses.yaml`.

    cm_per_unit : what a hundredth of the drawing is on someone of usual height
    """

    source: str
    cm_per_unit: float = Field(gt=0)
    bases: dict[PoseView, dict[str, PoseNumbers]]
    checks: dict[str, CheckPose]
    drills: dict[str, tuple[DrillPose, ...]]

    @model_validator(mode="after")
    def _bases_are_known_and_alike(self) -> "Poses":
        for view, bases in self.bases.items():
            names = [set(base) for base in bases.values()]
            if any(n != names[0] for n in names):
                raise ValueError(f"{view}: every base wants the same numbers")
        for check, pose in self.checks.items():
            self._fits(check, pose.view, pose.base, {**pose.sound, **pose.unsound})
        for drill, moments in self.drills.items():
            for moment in moments:
                self._fits(drill, moment.view, moment.base, moment.pose)
        return self

    def _fits(self, entry: str, view: PoseView, base_name: str, changed: PoseNumbers) -> None:
        base = self.bases.get(view, {}).get(base_name)
        if base is None:
            raise ValueError(f"{entry}: no base of {view} is called '{base_name}'")
        for name in changed:
            if name not in base:
                raise ValueError(f"{entry}: {view} has no '{name}'")

    def moment(self, drawn: DrillPose) -> PoseNumbers:
        """The figure's numbers at one moment of a drill."""
        return self.bases[drawn.view][drawn.base] | drawn.pose

    def pair(self, check: str) -> tuple[PoseNumbers, PoseNumbers] | None:
        """The figure's numbers when sound and when unsound; None for what cannot be drawn."""
        pose = self.checks.get(check)
        if pose is None:
            return None
        base = self.bases[pose.view][pose.base]
        return base | pose.sound, base | pose.sound | pose.unsound
