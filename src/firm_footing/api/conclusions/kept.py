"""What was concluded of a lesson as it is, worked out once however many devices ask."""

from collections import OrderedDict
from collections.abc import Callable, Collection, Hashable
from threading import Lock
from typing import Any, Final, TypeVar

from sqlmodel import Session

from firm_footing.core.case.past import PastDecision
from firm_footing.store.changes.steps import revision_of
from firm_footing.store.earlier import past_of
from firm_footing.store.known import taught_of
from firm_footing.store.lessons import get_lesson
from firm_footing.store.students import get_student
from firm_footing.store.tables import Student

T = TypeVar("T")
MOST: Final = 24


class _Answer:
    """One answer, and whose turn it is to work it out."""

    def __init__(self) -> None:
        self.flip, self.value = Lock(), None


class KeptConclusions:
    """The last answers: who asks while one is being worked out waits for it.

    One is worked out at a time: two at once take twice the memory, and are no sooner there.
    """

    def __init__(self) -> None:
        self._answers: OrderedDict[Hashable, Any] = OrderedDict()
        self._lock, self._reasoning = Lock(), Lock()

    @property
    def reasoning(self) -> Lock:
        """Held while something is being concluded."""
        return self._reasoning

    def get_or_compute(self, key: Hashable, work_out: Callable[[], T]) -> T:
        """The answer of this key; an error is not kept."""
        with self._lock:
            answer = self._answers.setdefault(key, _Answer())
            self._answers.move_to_end(key)
            while len(self._answers) > MOST:
                self._answers.popitem(last=False)
        with answer.flip:
            if answer.value is None:
                with self._reasoning:
                    answer.value = work_out()
            found: T = answer.value
            return found


def version_of(session: Session, lesson_id: str) -> tuple[Hashable, ...]:
    """Another one whenever what is concluded may be another: after a change of lesson or student.

    Raises
    ------
    NotFoundError
        There is no such lesson.

    """
    lesson = get_lesson(session, lesson_id)
    student = get_student(session, lesson.student_id)
    revision = revision_of(session, lesson_id)
    return version(student, past_of(session, lesson), taught_of(session), lesson_id, revision)


def version(
    student: Student,
    past: Collection[PastDecision],
    taught: Hashable,
    lesson_id: str,
    revision: int,
) -> tuple[Hashable, ...]:
    """The same of a lesson already read.

    past : what became of earlier decisions; taught : what the casebook taught
    """
    return lesson_id, revision, tuple(past), taught, student.model_dump_json()
