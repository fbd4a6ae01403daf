"""How is the one figure posed, so that sound and unsound can be seen at a look?"""

from typing import Literal

from pydantic import Field, model_validator

from firm_footing.core.knowledge.vocabulary import Entry

PoseView = Literal["down_the_line", "face_on", "feet", "hand", "club"]
Numbers = dict[str, float]
"""A name of the figure's to a number; the file says which and in what unit."""


class CheckPose(Entry):
    """How a look is drawn: a base, and what sound and unsound change of it."""

    view: PoseView
    base: str
    sound: Numbers = Field(default_factory=dict)
    unsound: Numbers = Field(min_length=1)


class Poses(Entry):
    """All of `poses.yaml`."""

    source: str
    bases: dict[PoseView, dict[str, Numbers]]
    checks: dict[str, CheckPose]

    @model_validator(mode="after")
    def _bases_are_known_and_alike(self) -> "Poses":
        for view, bases in self.bases.items():
            names = [set(base) for base in bases.values()]
            if any(n != names[0] for n in names):
                raise ValueError(f"{view}: every base wants the same numbers")
        for check, pose in self.checks.items():
            base = self.bases.get(pose.view, {}).get(pose.base)
            if base is None:
                raise ValueError(f"{check}: no base of {pose.view} is called '{pose.base}'")
            for name in {**pose.sound, **pose.unsound}:
                if name not in base:
                    raise ValueError(f"{check}: {pose.view} has no '{name}'")
        return self

    def pair(self, check: str) -> tuple[Numbers, Numbers] | None:
        """The figure's numbers when sound and when unsound; None for what cannot be drawn."""
        pose = self.checks.get(check)
        if pose is None:
            return None
        base = self.bases[pose.view][pose.base]
        return base | pose.sound, base | pose.sound | pose.unsound
