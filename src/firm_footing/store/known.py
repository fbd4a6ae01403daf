"""Which of the stored words are still known? The others cost their field, and are told.

The knowledge is data and changes: a cause, a drill or a club that a site added may be missing here.
What is kept stays as it is in the file; what is worked with holds only what is known.
"""

from collections.abc import Container, Iterable
from dataclasses import replace
from typing import Any, Final, TypeVar

from sqlmodel import Session, SQLModel

from firm_footing.core.knowledge import Knowledge
from firm_footing.store.lesson_content import LessonContent

KNOWLEDGE: Final = "knowledge"
"""Where a session keeps the knowledge that it reads against."""
ANY_CLUB: Final = "7i"
"""Read in the place of a club that is not known, and told so."""
AnyRow = TypeVar("AnyRow", bound=SQLModel)


def knowledge_of(session: Session) -> Knowledge | None:
    """The knowledge that this session reads against; None: what is kept is read as it is."""
    found: Knowledge | None = session.info.get(KNOWLEDGE)
    return found


def with_known_only(content: LessonContent, known: Knowledge) -> LessonContent:
    """The lesson without what the knowledge does not have, each told in `unreadable`."""
    told = list(content.unreadable)

    def keeps(field: str, value: str | None, there: Container[str]) -> bool:
        if value is None or value == "" or value in there:
            return True
        read_as = f", read as {known.club[ANY_CLUB].name.lower()}" if field == "club" else ""
        told.append(f"{field}: {value:.40}{read_as}")
        return False

    def of(field: str, value: str | None, there: Container[str]) -> str | None:
        return value if keeps(field, value, there) else None

    def some(field: str, values: Iterable[str], there: Container[str]) -> tuple[str, ...]:
        return tuple(v for v in values if keeps(field, v, there))

    lesson = content.lesson
    listen, sheet = lesson.listen, lesson.sheet
    forces = {t.id for t in known.cautions.force_tests}
    measured = {m.id for m in known.film.measures}
    felt = {t: w for t, w in lesson.cue.felt.items() if keeps("feel test", t, forces)}
    equipment = {e.id for e in known.equipment}
    lesson = _with(
        lesson,
        drill=of("drill", lesson.drill, known.drill),
        aid=of("aid", lesson.aid, known.drill),
        primary=of("measure of the retest", lesson.primary, known.measure),
        lacking=some("equipment", lesson.lacking, equipment),
        cue=lesson.cue.model_copy(update={"felt": felt}),
        listen=listen.model_copy(
            update={
                "misses": some("miss", listen.misses, {m.id for m in known.misses}),
                "corrected": some("belief", listen.corrected, known.check),
            }
        ),
        sheet=sheet.model_copy(
            update={
                "rehearsal": of("rehearsal", sheet.rehearsal, known.drill),
                "ball_drill": of("drill with balls", sheet.ball_drill, known.drill),
            }
        ),
    )
    blocks = [
        _with(
            block,
            club=of("club", block.club, known.club) or ANY_CLUB,
            drill=of("drill", block.drill, known.drill),
        )
        for block in content.blocks
    ]
    films = [
        _with(
            film,
            marks=film.marks.model_copy(
                update={
                    "points": {
                        p: at
                        for p, at in film.marks.points.items()
                        if keeps("point on film", p, known.film.point)
                    },
                    "felt": {
                        m: cm
                        for m, cm in film.marks.felt.items()
                        if keeps("felt on film", m, measured)
                    },
                }
            ),
        )
        for film in content.films
        if film.marks is not None
    ]
    return replace(
        content,
        lesson=lesson,
        blocks=blocks,
        films=films,
        answers=[a for a in content.answers if keeps("look", a.check_id, known.check)],
        decisions=[d for d in content.decisions if keeps("cause", d.cause, known.cause)],
        repetitions=[r for r in content.repetitions if keeps("drill", r.drill, known.drill)],
        unreadable=tuple(dict.fromkeys(told)),
    )


def _with(row: AnyRow, **values: Any) -> AnyRow:
    """The row, or where something is another one a copy that is in no database."""
    if all(getattr(row, name) == value for name, value in values.items()):
        return row
    return type(row)(**{name: getattr(row, name) for name in type(row).model_fields} | values)
