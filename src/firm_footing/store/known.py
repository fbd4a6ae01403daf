"""Which of the stored words are still known? The others cost their field, and are told.

The knowledge is data and changes: a cause, a drill or a club that a site added may be missing here.
What is kept stays as it is in the file; what is worked with holds only what is known.
"""

from collections.abc import Container, Iterable, Mapping
from dataclasses import replace
from typing import Any, Final, TypeVar

from sqlmodel import Session, SQLModel

from firm_footing.core.case.past import Taught
from firm_footing.core.coaching.drills import EMPTY, Worked
from firm_footing.core.knowledge import Knowledge
from firm_footing.store.lesson_content import LessonContent
from firm_footing.store.tables import FilmMarks, Lesson, LoggedBlock

KNOWLEDGE: Final = "knowledge"
"""Where a session keeps the knowledge that it reads against."""
TAUGHT: Final = "taught"
"""Where a session keeps what the casebook taught, and rankings use."""
WORKED: Final = "worked"
"""Where a session keeps what became of the lessons with each drill."""
ANY_CLUB: Final = "7i"
"""Read in the place of a club that is not known, and told so."""
AnyRow = TypeVar("AnyRow", bound=SQLModel)
T = TypeVar("T")


def knowledge_of(session: Session) -> Knowledge | None:
    """The knowledge that this session reads against; None: what is kept is read as it is."""
    found: Knowledge | None = session.info.get(KNOWLEDGE)
    return found


def taught_of(session: Session) -> Taught:
    """What the casebook taught; nothing where it is not used."""
    found: Taught = session.info.get(TAUGHT, Taught())
    return found


def worked_of(session: Session) -> Worked:
    """What became of the lessons with each drill; empty where it is not used."""
    found: Worked = session.info.get(WORKED, EMPTY)
    return found


class _Known:
    """Keeps what the knowledge has, and tells of the rest."""

    def __init__(self, known: Knowledge, told: Iterable[str]) -> None:
        self.known = known
        self.told = list(told)

    def keeps(self, field: str, value: str | None, there: Container[str]) -> bool:
        """Whether it is empty or known; told where it is not."""
        if value is None or value == "" or value in there:
            return True
        read_as = f", read as {self.known.club[ANY_CLUB].name.lower()}" if field == "club" else ""
        self.told.append(f"{field}: {value:.40}{read_as}")
        return False

    def of(self, field: str, value: str | None, there: Container[str]) -> str | None:
        """A value, None where it is not known."""
        return value if self.keeps(field, value, there) else None

    def some(self, field: str, values: Iterable[str], there: Container[str]) -> tuple[str, ...]:
        """Those of the values that are known."""
        return tuple(v for v in values if self.keeps(field, v, there))

    def keys(self, field: str, values: Mapping[str, T], there: Container[str]) -> dict[str, T]:
        """Those whose keys are known."""
        return {k: v for k, v in values.items() if self.keeps(field, k, there)}

    def lesson(self, lesson: Lesson) -> Lesson:
        """A lesson's own words."""
        known, listen, sheet = self.known, lesson.listen, lesson.sheet
        forces = {t.id for t in known.cautions.force_tests}
        heard = {
            "misses": self.some("miss", listen.misses, {m.id for m in known.misses}),
            "corrected": self.some("belief", listen.corrected, known.check),
            "past": tuple(p for p in listen.past if p.decided in known.cause),
        }
        home = {
            "rehearsal": self.of("rehearsal", sheet.rehearsal, known.drill),
            "ball_drill": self.of("drill with balls", sheet.ball_drill, known.drill),
        }
        felt = self.keys("feel test", lesson.cue.felt, forces)
        return _with(
            lesson,
            drill=self.of("drill", lesson.drill, known.drill),
            aid=self.of("aid", lesson.aid, known.drill),
            primary=self.of("measure of the retest", lesson.primary, known.measure),
            lacking=self.some("equipment", lesson.lacking, {e.id for e in known.equipment}),
            cue=lesson.cue.model_copy(update={"felt": felt}),
            listen=listen.model_copy(update=heard),
            sheet=sheet.model_copy(update=home),
        )

    def block(self, block: LoggedBlock) -> LoggedBlock:
        """A block's club and drill."""
        club = self.of("club", block.club, self.known.club) or ANY_CLUB
        return _with(block, club=club, drill=self.of("drill", block.drill, self.known.drill))

    def film(self, film: FilmMarks) -> FilmMarks:
        """What was touched in a film."""
        measured = {m.id for m in self.known.film.measures}
        touched = {
            "points": self.keys("point on film", film.marks.points, self.known.film.point),
            "felt": self.keys("felt on film", film.marks.felt, measured),
        }
        return _with(film, marks=film.marks.model_copy(update=touched))


def with_known_only(content: LessonContent, known: Knowledge) -> LessonContent:
    """The lesson without what the knowledge does not have, each told in `unreadable`."""
    has = _Known(known, content.unreadable)
    return replace(
        content,
        lesson=has.lesson(content.lesson),
        blocks=[has.block(block) for block in content.blocks],
        films=[has.film(film) for film in content.films if film.marks is not None],
        answers=[a for a in content.answers if has.keeps("look", a.check_id, known.check)],
        decisions=[d for d in content.decisions if has.keeps("cause", d.cause, known.cause)],
        past=tuple(p for p in content.past if p.decided in known.cause),
        repetitions=[r for r in content.repetitions if has.keeps("drill", r.drill, known.drill)],
        unreadable=tuple(dict.fromkeys(has.told)),
    )


def _with(row: AnyRow, **values: Any) -> AnyRow:
    """The row, or where something is another one a copy that is in no database."""
    if all(getattr(row, name) == value for name, value in values.items()):
        return row
    return type(row)(**{name: getattr(row, name) for name in type(row).model_fields} | values)
