"""What was marked in a film: its events, the points that were touched, and what gives the scale.

Places are in pixels of the picture as it is shown, from its upper left corner. In a `Case` they are
golfer-neutral: the ball of down the line and the target of face on lie to the right.
"""

import math
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


class CameraMove(Strict):
    """Where a camera held in the hand looks at one picture, against the picture of address.

    right, down : how much farther right and down what stands still lies, pixels
    turned_deg : how far it is turned about the picture's middle, + clockwise
    sd_px : how sure that is, pixels near the player
    """

    right: Annotated[float, Field(strict=True, ge=-4096, le=4096)]
    down: Annotated[float, Field(strict=True, ge=-4096, le=4096)]
    turned_deg: Annotated[float, Field(strict=True, ge=-45, le=45)] = 0.0
    sd_px: Annotated[float, Field(strict=True, ge=0, le=4096)]


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
    held : in the hand, and not on a stand; None: nobody said, and it is taken to have stood
    moves : event to where the camera then looked, as far as what stands still was followed
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
    held: bool | None = None
    moves: Annotated[dict[FilmEvent, CameraMove], Field(max_length=len(FILM_EVENTS))] = Field(
        default_factory=dict
    )
    other_hand: bool = False

    def steadied(self, place: Place, event: FilmEvent) -> Place:
        """Where a place of this event's picture lies in the picture of address."""
        move = self.moves.get(event)
        if move is None:
            return place
        turned = math.radians(move.turned_deg)
        across = place[0] - self.width / 2 - move.right
        below = place[1] - self.height / 2 - move.down
        return (
            self.width / 2 + across * math.cos(turned) + below * math.sin(turned),
            self.height / 2 + below * math.cos(turned) - across * math.sin(turned),
        )

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
                "moves": {
                    event: move.model_copy(
                        update={"right": -move.right, "turned_deg": -move.turned_deg}
                    )
                    for event, move in self.moves.items()
                },
            }
        )
