"""How does a case file become a `Case`, and a `Case` a file?

Mirrored once, converted to SI once; both ways, so that what is written reads back the same.
"""

from collections.abc import Callable
from typing import Any

from firm_footing.core.case.evidence import Block, Case, Reading, Shot, ShotReadings
from firm_footing.core.case.file_format import (
    CaseFile,
    FileBlock,
    FileReading,
    FileShot,
    FileStudent,
    FileUnits,
    readings_of,
)
from firm_footing.core.case.film import Film
from firm_footing.core.frame import (
    Handedness,
    mirror_deg,
    neutral_feet,
    to_metres,
    to_metres_a_second,
    to_neutral_word,
    to_real_word,
)

MIRRORED_DEG = (
    "start_deg",
    "curve_deg",
    "divot_direction_deg",
    "spin_axis_deg",
    "path_deg",
    "face_deg",
)
DISTANCES = ("carry", "apex")
SPEEDS = ("ball_speed", "club_speed")
BLOCK_FIELDS = ("kind", "club", "drill", "effort_pct", "surface", "teed", "stance")


def from_file(file: CaseFile) -> Case:
    """The golfer-neutral case in SI of a case file."""
    hand = file.student.handedness
    blocks = tuple(
        Block(
            **_copied(block, BLOCK_FIELDS),
            expected_carry_m=_each(
                block.expected_carry, lambda v: to_metres(v, file.units.distance)
            ),
            shots=tuple(
                neutral_shot(shot, file.student.handedness, file.units) for shot in block.shots
            ),
        )
        for block in file.blocks
    )
    readings = tuple(
        Reading(check=name, answer=r.answer, source=r.source, block=r.block, share=r.share)
        for name, answer in file.checks.items()
        for r in readings_of(answer)
    )
    return Case(
        handedness=hand,
        handicap=file.student.handicap,
        dominant_leg=file.student.dominant_leg,
        limits=file.student.limits,
        school=file.school,
        blocks=blocks,
        readings=readings,
        traces=tuple(
            t.model_copy(update={"columns": neutral_feet(t.columns, hand)}) for t in file.traces
        ),
        films=tuple(_film(film, hand) for film in file.films),
        history=file.history,
    )


def to_file(case: Case, with_limits: bool = False) -> CaseFile:
    """The case file of a case, in metres; bodily limits stay out unless asked for."""
    checks: dict[str, tuple[FileReading, ...]] = {}
    for r in case.readings:
        reading = FileReading(answer=r.answer, source=r.source, block=r.block, share=r.share)
        checks[r.check] = (*checks.get(r.check, ()), reading)
    return CaseFile(
        format="firm-footing-case",
        version=1,
        student=FileStudent(
            handedness=case.handedness,
            handicap=case.handicap,
            dominant_leg=case.dominant_leg,
            limits=case.limits if with_limits else (),
        ),
        school=case.school,
        blocks=tuple(
            FileBlock(
                **_copied(block, BLOCK_FIELDS),
                expected_carry=block.expected_carry_m,
                shots=tuple(real_shot(shot, case.handedness) for shot in block.shots),
            )
            for block in case.blocks
        ),
        traces=case.traces,
        films=tuple(_film(film, case.handedness) for film in case.films),
        history=case.history,
        checks={k: v[0] if len(v) == 1 else v for k, v in checks.items()},
    )


def _film(film: Film, hand: Handedness) -> Film:
    """The other frame's: neutral for a file's, real for a case's."""
    return film.mirrored() if hand == "left" else film


def neutral_shot(shot: FileShot, hand: Handedness, units: FileUnits) -> Shot:
    """A ball as an onlooker saw it, golfer-neutral and in SI."""
    return Shot(
        **_copied(shot, tuple(ShotReadings.model_fields)),
        start=_each(shot.start, lambda w: to_neutral_word(w, hand)),
        curve=_each(shot.curve, lambda w: to_neutral_word(w, hand)),
        **{n: _each(getattr(shot, n), lambda v: mirror_deg(v, hand)) for n in MIRRORED_DEG},
        side_m=_each(shot.side, lambda v: to_metres(mirror_deg(v, hand), units.distance)),
        **{
            f"{n}_m": _each(getattr(shot, n), lambda v: to_metres(v, units.distance))
            for n in DISTANCES
        },
        **{
            f"{n}_mps": _each(getattr(shot, n), lambda v: to_metres_a_second(v, units.speed))
            for n in SPEEDS
        },
    )


def real_shot(shot: Shot, hand: Handedness) -> FileShot:
    """A ball as an onlooker saw it, in metres and metres a second."""
    return FileShot(
        **_copied(shot, tuple(ShotReadings.model_fields)),
        start=_each(shot.start, lambda w: to_real_word(w, hand)),
        curve=_each(shot.curve, lambda w: to_real_word(w, hand)),
        **{n: _each(getattr(shot, n), lambda v: mirror_deg(v, hand)) for n in MIRRORED_DEG},
        side=_each(shot.side_m, lambda v: mirror_deg(v, hand)),
        **{n: getattr(shot, f"{n}_m") for n in DISTANCES},
        **{n: getattr(shot, f"{n}_mps") for n in SPEEDS},
    )


def _copied(source: Any, names: tuple[str, ...]) -> dict[str, Any]:
    return {name: getattr(source, name) for name in names}


def _each(value: Any, change: Callable[[Any], Any]) -> Any:
    return None if value is None else change(value)
