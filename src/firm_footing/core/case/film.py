"""What was marked in a film: its events, the points that were touched, and what gives the scale.

Places are in pixels of the picture as it is shown, from its upper left corner. In a `Case` they are
golfer-neutral: the ball of down the line and the target of face on lie to the right.
"""

from itertools import pairwise
from typing import Annotated

from pydantic import Field

from firm_footing.core.case.base import Index, Number, Strict, Whole, Word
from firm_footing.core.case.limits import (
    CAMERA_CM,
    FELT_CM,
    FILM_FRAMES,
    LIST,
    OFF_LINE_CM,
    SCALE_CM,
)
from firm_footing.core.knowledge.film import FILM_EVENTS, FilmEvent, FilmView

Pixel = Annotated[float, Field(strict=True, ge=-8192, le=16384)]
Place = tuple[Pixel, Pixel]
Frame = Annotated[int, Field(ge=0, lt=FILM_FRAMES), Whole]
Felt = Annotated[Number, Field(ge=FELT_CM[0], le=FELT_CM[1])]
Pixels = Annotated[int, Field(ge=1, le=8192)]
Zoom = Annotated[float, Field(strict=True, ge=0.01, le=100)]
"""Pixels of the page for one of the film, where something was touched."""


class ScaleSeen(Strict):
    """Two places whose distance is known.

    by : id of what lies between them
    cm : its length, where the knowledge does not say it
    zoom : as it was touched; None: as large as the film itself is, or larger
    """

    by: Word
    start: Place
    end: Place
    cm: Annotated[Number, Field(ge=SCALE_CM[0], le=SCALE_CM[1])] | None = None
    zoom: Zoom | None = None


class Film(Strict):
    """One swing seen from one side, as it was marked.

    fps : pictures a second of the swing itself, however slowly the file plays them
    events : event to the number of its picture, from 0
    points : point to event to where it was touched
    zoom : likewise, as it was touched; not there: as large as the film itself is, or larger
    felt : measure to what the student believed it to be before seeing the film, in its unit
    ground : two places on level ground in the plane of the player
    distance_cm : of the camera from the player; None: as usual
    off_line_cm : of the camera beside its place, + to the right of the picture: toward the ball
        down the line, toward the target face on; None: nobody said
    other_hand : the picture shows the other hand than the student's: a mirrored film
    """

    view: FilmView
    block: Index | None = None
    width: Pixels
    height: Pixels
    fps: Annotated[float, Field(strict=True, ge=10, le=2000)]
    events: Annotated[dict[FilmEvent, Frame], Field(max_length=len(FILM_EVENTS))] = Field(
        default_factory=dict
    )
    points: Annotated[dict[Word, dict[FilmEvent, Place]], Field(max_length=LIST)] = Field(
        default_factory=dict
    )
    zoom: Annotated[dict[Word, dict[FilmEvent, Zoom]], Field(max_length=LIST)] = Field(
        default_factory=dict
    )
    felt: Annotated[dict[Word, Felt], Field(max_length=LIST)] = Field(default_factory=dict)
    scale: ScaleSeen | None = None
    ground: tuple[Place, Place] | None = None
    ground_zoom: Zoom | None = None
    distance_cm: Annotated[Number, Field(ge=CAMERA_CM[0], le=CAMERA_CM[1])] | None = None
    off_line_cm: Annotated[Number, Field(ge=OFF_LINE_CM[0], le=OFF_LINE_CM[1])] | None = None
    other_hand: bool = False

    @property
    def out_of_order(self) -> tuple[FilmEvent, FilmEvent] | None:
        """Two events whose pictures are not in the order of a swing; None where all are."""
        named = [event for event in FILM_EVENTS if event in self.events]
        return next((p for p in pairwise(named) if self.events[p[0]] >= self.events[p[1]]), None)

    def mirrored(self) -> "Film":
        """The same as a left-hander's film is to a right-hander's."""

        def turned(place: Place) -> Place:
            return self.width - place[0], place[1]

        scale, ground = self.scale, self.ground
        return self.model_copy(
            update={
                "points": {
                    name: {event: turned(place) for event, place in touched.items()}
                    for name, touched in self.points.items()
                },
                "scale": scale
                and scale.model_copy(
                    update={"start": turned(scale.start), "end": turned(scale.end)}
                ),
                "ground": ground and (turned(ground[0]), turned(ground[1])),
                "off_line_cm": self.off_line_cm and -self.off_line_cm,
            }
        )
