"""Which lessons did the student have before this one, and what did they decide?"""

from sqlmodel import Session, col, select

from firm_footing.store.tables import Block, Decision, FollowUp, Lesson, LoggedShot


def earlier_lessons(session: Session, lesson: Lesson, most: int = 5) -> list[Lesson]:
    """The same student's lessons before this one, the newest first."""
    return list(
        session.exec(
            select(Lesson)
            .where(Lesson.student_id == lesson.student_id, Lesson.started_at < lesson.started_at)
            .order_by(col(Lesson.started_at).desc())
            .limit(most)
        )
    )


def decided_before(
    session: Session, lesson: Lesson, most: int = 5
) -> list[tuple[Lesson, Decision, FollowUp | None]]:
    """The same student's earlier lessons that came to a decision, the newest first."""
    rows = session.exec(
        select(Lesson, Decision, FollowUp)
        .join(Decision, col(Decision.lesson_id) == Lesson.id)
        .outerjoin(FollowUp, col(FollowUp.lesson_id) == Lesson.id)
        .where(Lesson.student_id == lesson.student_id, Lesson.started_at < lesson.started_at)
        .order_by(col(Lesson.started_at).desc(), col(Decision.decided_at).desc())
    )
    last: dict[str, tuple[Lesson, Decision, FollowUp | None]] = {}
    for earlier, decision, follow_up in rows:
        last.setdefault(earlier.id, (earlier, decision, follow_up))
    return list(last.values())[:most]


def first_with_club(session: Session, lesson: Lesson, club: str) -> str | None:
    """The student's first lesson whose baseline has balls with this club; None when it is this."""
    return session.exec(
        select(Lesson.id)
        .join(Block, col(Block.lesson_id) == Lesson.id)
        .join(LoggedShot, col(LoggedShot.block_id) == Block.id)
        .where(
            Lesson.student_id == lesson.student_id,
            Lesson.started_at < lesson.started_at,
            Block.kind == "baseline",
            Block.club == club,
        )
        .order_by(col(Lesson.started_at))
        .limit(1)
    ).first()
