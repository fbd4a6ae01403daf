"""A film file, and beside it what is true of every picture: points, events, measures."""

import json
from collections.abc import Iterator
from pathlib import Path
from typing import Any, Final

import av
import numpy as np
from numpy.random import Generator

from firm_footing.core.frame import Handedness
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.film import FILM_EVENTS
from firm_footing.simulators.film.drawing import Picture, Quality, pictures
from firm_footing.simulators.film.marking import Filmed

CODECS: Final = {".mp4": "libx264", ".webm": "libvpx-vp9"}
"""Ending of the file to how it is written."""
KEYS_A_SECOND: Final = 1
"""Whole pictures, from which a player decodes on to the one that it is asked for: as phones do."""


def record(
    filmed: Filmed,
    hand: Handedness,
    quality: Quality,
    rng: Generator,
    to: Path,
    plays_at: float | None,
) -> None:
    """Write the film.

    plays_at : pictures a second that the file claims; None: those it was filmed with

    Raises
    ------
    ValueError
        The ending names no film that this can write.

    """
    codec = CODECS.get(to.suffix.lower())
    if codec is None:
        raise ValueError(f"A film ends in {' or '.join(CODECS)}, not in '{to.suffix}'.")
    size = filmed.camera.width, filmed.camera.height
    drawn = pictures(filmed, hand, quality, rng)
    write(drawn, size, to, codec, plays_at or filmed.camera.fps)


def write(
    drawn: Iterator[Picture],
    size: tuple[int, int],
    to: Path,
    codec: str,
    fps: float,
    preset: str = "veryfast",
) -> None:
    """Pictures of this width and height into a file; a key picture a second.

    preset : of H.264, how much work makes the file smaller
    """
    with av.open(str(to), "w") as container:
        stream: Any = container.add_stream(codec, rate=round(fps))
        stream.width, stream.height = size
        stream.pix_fmt = "yuv420p"
        stream.gop_size = max(1, round(fps / KEYS_A_SECOND))
        if codec == "libx264":
            stream.options = {"preset": preset, "crf": "24"}
        else:
            stream.options = {"deadline": "realtime", "cpu-used": "8", "crf": "34", "b:v": "0"}
        for picture in drawn:
            frame = av.VideoFrame.from_ndarray(np.ascontiguousarray(picture), format="rgb24")
            container.mux(stream.encode(frame))
        container.mux(stream.encode())


def truth_of(filmed: Filmed, hand: Handedness, knowledge: Knowledge) -> dict[str, Any]:
    """What is true of a film: real sides, as the file shows them."""
    nothing = np.random.default_rng(0)
    marks = filmed.marked(knowledge.film, nothing, off_px=0.0, followed_px=0.0)
    real = marks.mirrored() if hand == "left" else marks
    taken = np.array([filmed.seconds(frame) for frame in range(filmed.frames)])
    points: dict[str, list[list[float]]] = {}
    for name, at in filmed.swing.at(taken).items():
        seen = np.array([filmed.picture(place, t) for place, t in zip(at, taken, strict=True)])
        if hand == "left":
            seen[:, 0] = filmed.camera.width - seen[:, 0]
        points[name] = np.round(seen, 2).tolist()
    return {
        "view": filmed.camera.view,
        "handedness": hand,
        "fps": filmed.camera.fps,
        "frames": filmed.frames,
        "events": {event: filmed.frame_of(event) for event in FILM_EVENTS},
        "points": points,
        "measures": {k: round(v, 2) for k, v in filmed.truths(knowledge.film).items()},
        "marks": real.model_dump(mode="json"),
    }


def write_truth(truth: dict[str, Any], beside: Path) -> Path:
    """The truth as JSON, named after the film."""
    path = beside.with_suffix(".truth.json")
    path.write_text(json.dumps(truth, indent=1), encoding="utf-8")
    return path
