"""What is a film measured for, with which points, and from where does a look answer yes?"""

from functools import cached_property
from typing import Literal

from pydantic import Field, model_validator

from firm_footing.core.knowledge.finder import FinderNumbers
from firm_footing.core.knowledge.pressure import SWING_EVENTS, SwingEvent
from firm_footing.core.knowledge.vocabulary import Entry

FilmView = Literal["down_the_line", "face_on"]
VIEWS: tuple[FilmView, ...] = ("down_the_line", "face_on")
FilmEvent = Literal[SwingEvent, "arms_level_through"]
"""What a picture can be marked as: the events of a swing, and the arms level after impact."""
FILM_EVENTS: tuple[FilmEvent, ...] = (*SWING_EVENTS[:-1], "arms_level_through", SWING_EVENTS[-1])
"""In their order in time."""
Formula = Literal["rise", "shift", "apart", "slope", "tilt", "corner", "turned_out"]
POINTS_OF: dict[Formula, int] = {
    "rise": 1, "shift": 1, "apart": 2, "slope": 2, "tilt": 2, "corner": 3, "turned_out": 2
}  # fmt: skip
SINCE: frozenset[Formula] = frozenset({"rise", "shift"})
"""Formulas that compare an event with an earlier one."""
ALONG_ONE: frozenset[Formula] = frozenset({"rise", "shift", "apart"})
"""Formulas that follow one direction: up for a rise, to the right for the others."""
IN_DEGREES: frozenset[Formula] = frozenset({"slope", "tilt", "corner", "turned_out"})


class FilmErrors(Entry):
    """How far off things usually are, one standard deviation.

    distance_cm : of the camera from the player where nobody says; distance_part : its doubt
    point_px : of what is touched, film pixels: an outline is soft, cloth and blur move it
    touch_px : of the touch itself, pixels of the page; ground_px : as point_px, of the ground
    off_line_cm : of the camera beside its place, where nobody says; off_line_told_cm : where said
    held_deg : of a camera from upright, where no ground line levels it
    not_followed_px : of a picture against that of address, of a film held in the hand in which
        nothing that stands still could be followed
    event_frames : between a mark and its event, besides the frame itself
    """

    point_px: float = Field(gt=0)
    touch_px: float = Field(gt=0)
    ground_px: float = Field(gt=0)
    distance_cm: float = Field(gt=0)
    distance_part: float = Field(gt=0, lt=1)
    off_line_cm: float = Field(gt=0)
    off_line_told_cm: float = Field(gt=0)
    held_deg: float = Field(gt=0)
    not_followed_px: float = Field(gt=0)
    event_frames: float = Field(gt=0)


class ScaleKind(Entry):
    """Something in the picture whose length is known; `cm` None: it is said or follows.

    views : from where it is seen at its length
    """

    id: Literal["ball", "club", "shoe", "known"]
    name: str
    cm: float | None = Field(gt=0)
    sd_cm: float = Field(gt=0)
    depth_cm: float = Field(ge=0)
    views: tuple[FilmView, ...] = VIEWS
    source: str


class FilmPoint(Entry):
    """A point that is touched, and what is asked for.

    nearer_cm : how far it usually lies toward the camera from the plane of the scale, by view,
        where it moves by event too; depth_cm : the doubt of that
    speed_cm_s : how fast it goes to the right and up, by view and event
    stands : it stays on the ground at address: pictures of two swings are laid together by it
    """

    id: str
    name: str
    ask: str
    stands: bool = False
    nearer_cm: dict[FilmView, float | dict[FilmEvent, float]] = Field(default_factory=dict)
    depth_cm: float = Field(ge=0)
    speed_cm_s: dict[FilmView, dict[FilmEvent, tuple[float, float]]] = Field(default_factory=dict)

    def nearer(self, view: FilmView, event: FilmEvent) -> float:
        """How far it usually lies toward the camera, cm."""
        by = self.nearer_cm.get(view, 0.0)
        return by.get(event, 0.0) if isinstance(by, dict) else by

    def speed(self, view: FilmView, event: FilmEvent) -> tuple[float, float]:
        """How fast it usually goes to the right and up, cm/s."""
        return self.speed_cm_s.get(view, {}).get(event, (0.0, 0.0))


class FilmAnswer(Entry):
    """A look that is answered yes beyond `at`, below it with `less`; never surer than `most`.

    sd : how well it is known where the limit lies
    body_sd : how far sound golfers differ from each other in the number
    """

    check: str
    at: float
    sd: float = Field(gt=0)
    body_sd: float = Field(gt=0)
    less: bool = False
    most: float = Field(default=1.0, gt=0.5, le=1)


class FilmMeasure(Entry):
    """One number of a film, a projection onto the picture.

    middle : the first two points are one, half-way between them
    at : a point that is touched on another event's frame
    felt_as : what of the figure is pointed to, where it is not the first point
    usual : what the number is held against before it answers; the distance from it then counts
    felt_on : the base of the posed figure on which a student points to where they believe it is
    """

    id: str
    view: FilmView
    name: str
    unit: Literal["cm", "deg"]
    formula: Formula
    points: tuple[str, ...]
    event: FilmEvent
    since: FilmEvent | None = None
    middle: bool = False
    at: dict[str, FilmEvent] = Field(default_factory=dict)
    felt_as: str | None = None
    usual: Literal["ball_of_club"] | None = None
    felt_on: str | None = None
    answers: tuple[FilmAnswer, ...] = ()

    @model_validator(mode="after")
    def _fits_its_formula(self) -> "FilmMeasure":
        if len(self.points) != POINTS_OF[self.formula] + self.middle:
            raise ValueError(f"{self.formula} wants {POINTS_OF[self.formula]} points")
        if self.at and (self.since or self.middle or not set(self.at) <= set(self.points)):
            raise ValueError("'at' is for points of a measure of one event")
        if (self.since is not None) != (self.formula in SINCE):
            raise ValueError(f"{self.formula}: 'since' is for {' and '.join(sorted(SINCE))}")
        if (self.unit == "deg") != (self.formula in IN_DEGREES):
            raise ValueError(f"{self.formula} is not measured in {self.unit}")
        if self.felt_on is not None and self.formula not in ALONG_ONE:
            raise ValueError(f"{self.formula} cannot be pointed at on a figure")
        order = FILM_EVENTS.index
        if self.since is not None and order(self.since) >= order(self.event):
            raise ValueError("'since' comes before the event")
        return self

    @property
    def wants(self) -> tuple[tuple[str, FilmEvent], ...]:
        """Each point with the event on whose frame it is touched, the earlier event first."""
        events = [self.event] if self.since is None else [self.since, self.event]
        return tuple(
            (point, self.at.get(point, event)) for event in events for point in self.points
        )


class FilmNumbers(Entry):
    """All of `film.yaml`.

    sides : pairs of points, the first to the right of the second at address
    """

    source: str
    errors: FilmErrors
    finder: FinderNumbers
    scales: tuple[ScaleKind, ...]
    points: tuple[FilmPoint, ...]
    sides: dict[FilmView, tuple[tuple[str, str], ...]]
    measures: tuple[FilmMeasure, ...]

    @model_validator(mode="after")
    def _points_are_known(self) -> "FilmNumbers":
        known = {p.id for p in self.points}
        for measure in self.measures:
            for point in measure.points:
                if point not in known:
                    raise ValueError(f"{measure.id}: there is no point '{point}'")
        for name in {p for pairs in self.sides.values() for pair in pairs for p in pair} - known:
            raise ValueError(f"sides: there is no point '{name}'")
        used = {p for m in self.measures for p in m.points}
        if known - used:
            raise ValueError(f"no measure uses the point '{min(known - used)}'")
        return self

    @cached_property
    def point(self) -> dict[str, FilmPoint]:
        """Point id to point."""
        return {p.id: p for p in self.points}

    @cached_property
    def scale(self) -> dict[str, ScaleKind]:
        """Scale id to scale."""
        return {s.id: s for s in self.scales}

    def can_be_felt(self, measure_id: str) -> FilmMeasure | None:
        """The measure, when a student can point on the figure to where they believe it is."""
        return next((m for m in self.measures if m.id == measure_id and m.felt_on), None)

    def of_view(self, view: FilmView) -> tuple[FilmMeasure, ...]:
        """What is measured from this side, in the order of the swing."""
        mine = [m for m in self.measures if m.view == view]
        return tuple(sorted(mine, key=lambda m: FILM_EVENTS.index(m.event)))
