"""Which marks does a careful instructor make in a simulated film, and what is the truth?"""

import math
from dataclasses import dataclass, replace
from typing import NamedTuple

import numpy as np
from numpy.random import Generator

from firm_footing.core.case import Case
from firm_footing.core.case.film import CameraMove, Film, ScaleSeen
from firm_footing.core.film.formulas import value_of
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.film import (
    FILM_EVENTS,
    VIEWS,
    FilmEvent,
    FilmNumbers,
    FilmView,
)
from firm_footing.simulators.film.camera import Camera, Shake
from firm_footing.simulators.film.figure import Swing, swing
from firm_footing.simulators.student import SimulatedStudent

PELVIS_WIDE_CM, PELVIS_DEEP_CM, PELVIS_FRONT_CM = 17.0, 11.0, 12.0
"""Half across, half from front to back, and how far before its middle the belt buckle lies."""
BEFORE_S = 0.25
"""The film runs before the swing begins, and after it."""


class Care(NamedTuple):
    """How a film is taken and touched.

    off_deg : how far the camera looks past square, the least and the most, to either side
    touch_px : of a touch, pixels of the film, one standard deviation
    told : in which share of films it is told where the camera stood, to some 7 cm
    """

    off_deg: tuple[float, float]
    touch_px: float
    told: float


CAREFUL, USUAL = Care((0.0, 2.0), 2.0, 0.5), Care((3.0, 8.0), 8.0, 0.5)
TOLD_CM = 7.0


@dataclass(frozen=True)
class Filmed:
    """A swing on film, with the truth.

    shake : of the hand that holds the camera; None: it is on a stand
    """

    swing: Swing
    camera: Camera
    shake: Shake | None = None

    @property
    def frames(self) -> int:
        """How many pictures."""
        return round((self.swing.seconds["finish"] + 2 * BEFORE_S) * self.camera.fps)

    def seconds(self, frame: int) -> float:
        """When a picture is taken, from address."""
        return frame / self.camera.fps - BEFORE_S

    def frame_of(self, event: FilmEvent) -> int:
        """The picture nearest to an event."""
        return round((self.swing.seconds[event] + BEFORE_S) * self.camera.fps)

    def seen_at(self, seconds: float) -> dict[str, FloatArray]:
        """Joint to its place; of the hips, facing the student, the edges that are seen.

        A pelvis is an ellipse across, with cloth on it: its edges lie alike on both sides of its
        middle however it turns. The buckle does not: it is before it.
        """
        at = self.swing.at(seconds)
        across = at["lead_hip"] - at["hips"]
        turned = np.arctan2(-across[1], across[0])
        front = np.array([np.sin(turned), np.cos(turned), 0.0])
        at["buckle"] = at["hips"] + PELVIS_FRONT_CM * front
        if self.camera.view == "face_on":
            half = np.hypot(PELVIS_WIDE_CM * np.cos(turned), PELVIS_DEEP_CM * np.sin(turned))
            edge = np.array([half, 0.0, 0.0])
            at["lead_hip"], at["trail_hip"] = at["hips"] + edge, at["hips"] - edge
        return at

    def picture(self, places: FloatArray, seconds: float) -> FloatArray:
        """(..., 3) centimetres to (..., 2) pixels of the picture taken at that moment."""
        seen = self.camera.picture(places)
        if self.shake is None:
            return seen
        middle = np.array([self.camera.width, self.camera.height]) / 2
        return self.shake.moved(seen, middle, seconds)

    def shown(self, point: str, seconds: float) -> FloatArray:
        """(2,) where a point lies in the picture taken at that moment, each row in its own time."""
        place = self.picture(self.seen_at(seconds)[point], seconds)
        if self.camera.readout_s == 0.0:
            return place
        late = self.camera.readout_s * (place[1] / self.camera.height - 0.5)
        return self.picture(self.seen_at(seconds + late)[point], seconds + late)

    def moves(self) -> dict[FilmEvent, CameraMove]:
        """Where the camera truly looked at each event."""
        found: dict[FilmEvent, CameraMove] = {}
        for event in FILM_EVENTS if self.shake else ():
            first, at = (self.seconds(self.frame_of(e)) for e in ("address", event))
            (right, down), turned = self.shake.since(first, at) if self.shake else ((0.0, 0.0), 0.0)
            found[event] = CameraMove(
                right=float(right), down=float(down), turned_deg=math.degrees(turned), sd_px=0.0
            )
        return found

    def truths(self, numbers: FilmNumbers) -> dict[str, float]:
        """Measure to what a ruler held beside the player would say at its moment."""
        found = {}
        for measure in numbers.of_view(self.camera.view):
            at = {e: self.seen_at(self.swing.seconds[e]) for _, e in measure.wants}
            places = np.array([at[event][point] for point, event in measure.wants])
            found[measure.id] = value_of(measure, self.camera.plane(places))
        return found

    def marked(
        self,
        numbers: FilmNumbers,
        rng: Generator,
        off_px: float = 2.0,
        *,
        page_px: float | None = None,
        zoom: float | None = None,
        told_cm: float | None = None,
        followed_px: float | None = None,
        off_frames: float = 0.0,
    ) -> Film:
        """All points that the measures want, touched.

        off_px : how far off what is touched lies, pixels of the film, one standard deviation
        page_px, zoom : how far off the touch itself is, pixels of the page, and how many of them
            a pixel of the film was shown as
        told_cm : where the camera is said to stand beside its place
        followed_px : how far off it is where a camera in the hand looked, one standard deviation;
            None: nobody followed it
        off_frames : how far off an event is marked, pictures, one standard deviation
        """
        frames = self._frames_marked(rng, off_frames)
        if page_px is not None and zoom is not None:
            off_px = float(np.hypot(off_px, page_px / zoom))
        shown: dict[str, dict[FilmEvent, float]] = {}
        points: dict[str, dict[FilmEvent, tuple[float, float]]] = {}
        for measure in numbers.of_view(self.camera.view):
            for point, event in measure.wants:
                seconds = self.seconds(frames[event])
                touched = _touched(self.shown(point, seconds), rng, off_px)
                points.setdefault(point, {}).setdefault(event, touched)
                if zoom is not None:
                    shown.setdefault(point, {})[event] = zoom
        first = self.seconds(self.frame_of("address"))
        start, end = (_touched(self.picture(e, first), rng, off_px) for e in self.camera.stick())
        return Film(
            view=self.camera.view,
            width=self.camera.width,
            height=self.camera.height,
            fps=self.camera.fps,
            events=frames,
            points=points,
            zoom=shown,
            scale=ScaleSeen(by="known", start=start, end=end, cm=100.0, zoom=zoom),
            ground=(start, end),
            ground_zoom=zoom,
            distance_cm=self.camera.distance_cm,
            off_line_cm=told_cm,
            held=self.shake is not None,
            moves={} if followed_px is None else self._followed(rng, followed_px),
        )

    def _frames_marked(self, rng: Generator, off: float) -> dict[FilmEvent, int]:
        """Event to the picture it is taken for, in the order of a swing."""
        frames, before = {}, -1
        for event in FILM_EVENTS:
            late = round(float(rng.normal(0, off))) if off > 0 else 0
            before = frames[event] = max(before + 1, self.frame_of(event) + late)
        return frames

    def _followed(self, rng: Generator, sd_px: float) -> dict[FilmEvent, CameraMove]:
        """As what stands still tells it, this far off."""
        return {
            event: move.model_copy(
                update={
                    "right": move.right + float(rng.normal(0, sd_px)),
                    "down": move.down + float(rng.normal(0, sd_px)),
                    "sd_px": sd_px,
                }
            )
            for event, move in self.moves().items()
            if event != "address"
        }


def _touched(place: FloatArray, rng: Generator, off_px: float) -> tuple[float, float]:
    x, y = place + rng.normal(0, off_px, 2)
    return float(x), float(y)


def with_films(
    student: SimulatedStudent,
    case: Case,
    knowledge: Knowledge,
    rng: Generator,
    *,
    fps: float = 120.0,
    anyone: bool = False,
    care: Care = CAREFUL,
) -> Case:
    """One swing from both sides; `anyone` as for `swing`."""
    filmed = swing(student.severity, rng.spawn(1)[0], rng, anyone=anyone)
    return case.model_copy(
        update={"films": tuple(_film(filmed, view, fps, care, knowledge, rng) for view in VIEWS)}
    )


def _film(
    filmed: Swing, view: FilmView, fps: float, care: Care, knowledge: Knowledge, rng: Generator
) -> Film:
    """One side of a swing, taken and touched with this care."""
    turned = np.radians(rng.uniform(*care.off_deg)) * rng.choice([-1.0, 1.0])
    camera = Camera(view, fps, tilt_deg=float(rng.normal(0, 1)))
    off_line = float(np.tan(turned)) * camera.distance_cm
    told = off_line + rng.normal(0, TOLD_CM) if rng.random() < care.told else None
    return Filmed(filmed, replace(camera, off_line_cm=off_line)).marked(
        knowledge.film, rng, care.touch_px, told_cm=told
    )
