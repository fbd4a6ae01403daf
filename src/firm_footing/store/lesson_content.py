"""What is in a lesson?"""

from dataclasses import dataclass, field

from firm_footing.core.case import Trace
from firm_footing.core.case.past import PastDecision, Taught
from firm_footing.core.coaching.drills import Worked
from firm_footing.store.tables import (
    CheckAnswer,
    Decision,
    FilmMarks,
    FollowUp,
    Lesson,
    LoggedBlock,
    LoggedShot,
    Note,
    PressureTrace,
    Repetition,
    Student,
)


@dataclass(frozen=True)
class LessonContent:
    """A lesson with everything in it, each part in the order it happened.

    past : what became of the decisions of the student's lessons before
    taught : what the casebook taught
    worked : what became of the lessons with each drill, as the casebook has it
    has_stills, has_earlier : whether it has stills; whether the student had a lesson before
    unreadable : what it holds that could not be read, or is not known here, and is left out
    """

    lesson: Lesson
    student: Student
    blocks: list[LoggedBlock]
    shots: dict[str, list[LoggedShot]]
    answers: list[CheckAnswer]
    traces: list[PressureTrace]
    recordings: dict[str, Trace]
    films: list[FilmMarks]
    notes: list[Note]
    decisions: list[Decision]
    repetitions: list[Repetition]
    follow_up: FollowUp | None
    used_s: dict[str, float]
    stage: str | None
    past: tuple[PastDecision, ...] = ()
    taught: Taught = field(default_factory=Taught)
    worked: Worked = field(default_factory=dict)
    has_stills: bool = False
    has_earlier: bool = False
    unreadable: tuple[str, ...] = ()
