"""What is a root cause, and what does it do to the club?"""

from pydantic import Field

from firm_footing.core.knowledge.vocabulary import (
    CauseGroup,
    DeliveryEffect,
    Entry,
    Mode,
    Move,
    Phase,
    PlanPart,
)


class Side(Entry):
    """One of the two ways a two-sided cause can go; both are equally likely."""

    id: str
    name: str
    effect: DeliveryEffect


class Working(Entry):
    """A mechanism a cause works through, perhaps only in one mode or on one side."""

    mechanism: str
    mode: Mode | None = None
    side: str | None = None


class Cause(Entry):
    """A root cause: what it is, what it brings about, what it does to the delivery."""

    id: str
    name: str
    label: str = Field(description="Three or four words for the plan")
    sentence: str
    you: str = Field(description="The same, said to the student")
    group: CauseGroup
    acts: Phase
    at_setup: bool = Field(default=False, description="Stands still before the swing begins")
    base_weight: float = Field(gt=0, lt=1)
    upstream_of: tuple[str, ...] = ()
    opposite_of: str | None = None
    skill: bool = Field(default=False, description="Has two modes, thrown and stuck")
    effect: DeliveryEffect
    effect_stuck: dict[str, float] = Field(default_factory=dict)
    sides: tuple[Side, ...] = Field(default=(), max_length=2)
    scatter_factor: float = Field(default=1.0, ge=1.0)
    works_through: tuple[str | Working, ...] = ()
    place: PlanPart
    moves: Move
    disputed: str | None = None
    source: str

    @property
    def workings(self) -> tuple[Working, ...]:
        """`works_through` with the short spelling (a bare id) written out."""
        return tuple(Working(mechanism=w) if isinstance(w, str) else w for w in self.works_through)

    def effect_in(self, mode: Mode | None, side: str | None) -> DeliveryEffect:
        """The mean shift of the delivery in this mode and on this side.

        A mode that is None, or that the cause does not know, means thrown.
        """
        values = self.effect.model_dump()
        if mode == "stuck":
            values.update(self.effect_stuck)
        for option in self.sides:
            if option.id == side:
                values = option.effect.model_dump()
        return DeliveryEffect(**values)


class Mechanism(Entry):
    """What sits between a cause and the club; only used to explain."""

    id: str
    name: str
    label: str
    sentence: str
    place: PlanPart
    moves: Move
    says_already: tuple[str, ...] = Field(
        default=(), description="Ends of a chain that would only repeat this mechanism"
    )
    leads_to: tuple[str, ...] = Field(
        default=(), description="Ends of a chain by which balls show it; none: it is always told"
    )
    when_face_to_path_beyond_deg: float | None = Field(
        default=None, description="Works for any cause once face and path are this far apart"
    )
    source: str
