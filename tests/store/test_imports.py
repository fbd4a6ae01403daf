"""Many balls at once: each only once, in the right block, taken back in one step."""

from itertools import pairwise

import pytest
from sqlmodel import Session

from firm_footing.core.case import Shot
from firm_footing.store import imports, lessons, shots
from firm_footing.store.changes import history, steps
from firm_footing.store.errors import NotFoundError
from firm_footing.store.imports import Incoming, ids_of, take_in
from firm_footing.store.lesson_reading import content_of
from firm_footing.store.students import add_student
from firm_footing.store.tables import Lesson, Student


@pytest.fixture
def lesson_id(session: Session) -> str:
    student = add_student(session, Student(name="Perrin Vale", handedness="right"))
    return lessons.add_lesson(session, Lesson(student_id=student.id)).id


def ball(key: str, club: str | None = None, carry: float = 120.0) -> Incoming:
    return Incoming(key, club, Shot(carry_m=carry))


def first_block(session: Session, lesson_id: str) -> str:
    return content_of(session, lesson_id).blocks[0].id


def taken(session: Session, lesson_id: str, *balls: Incoming) -> tuple[int, int]:
    found = take_in(session, lesson_id, first_block(session, lesson_id), balls)
    return found.added, found.already


def in_blocks(session: Session, lesson_id: str) -> list[tuple[str, list[float | None]]]:
    content = content_of(session, lesson_id)
    return [(b.club, [s.observed.carry_m for s in content.shots[b.id]]) for b in content.blocks]


def test_ids_are_the_same_for_the_same_balls_of_the_same_lesson() -> None:
    one, twin, other = ball("row 1"), ball("row 1"), ball("row 2")
    assert ids_of("a", [one, other]) == ids_of("a", [one, other])
    assert len(set(ids_of("a", [one, twin, other]))) == 3
    assert set(ids_of("a", [one])).isdisjoint(ids_of("b", [one]))
    # the order of other rows does not matter
    assert ids_of("a", [other, one])[1] == ids_of("a", [one])[0]


def test_balls_are_added_once_in_their_order(session: Session, lesson_id: str) -> None:
    rows = [ball(str(i), carry=100.0 + i) for i in range(4)]
    assert taken(session, lesson_id, *rows) == (4, 0)
    assert taken(session, lesson_id, *rows, ball("new", carry=150.0)) == (1, 4)
    assert in_blocks(session, lesson_id) == [("7i", [100, 101, 102, 103, 150])]


def test_a_ball_changed_by_hand_is_not_overwritten(session: Session, lesson_id: str) -> None:
    taken(session, lesson_id, ball("row"))
    content = content_of(session, lesson_id)
    (kept,) = content.shots[content.blocks[0].id]
    shots.put_shot(session, lesson_id, kept.id, kept.block_id, Shot(carry_m=99.0), {})
    assert taken(session, lesson_id, ball("row")) == (0, 1)
    assert in_blocks(session, lesson_id) == [("7i", [99])]


def test_an_empty_block_takes_the_club_and_others_get_their_own(
    session: Session, lesson_id: str
) -> None:
    taken(session, lesson_id, ball("1", "8i"), ball("2", "d"), ball("3", None), ball("4", "d"))
    assert [(c, len(b)) for c, b in in_blocks(session, lesson_id)] == [("8i", 2), ("d", 2)]
    taken(session, lesson_id, ball("5", "d"))
    assert [(c, len(b)) for c, b in in_blocks(session, lesson_id)] == [("8i", 2), ("d", 3)]


def test_one_undo_takes_back_balls_blocks_and_club(session: Session, lesson_id: str) -> None:
    taken(session, lesson_id, ball("1", "8i"), ball("2", "d"))
    assert history.undo(session, lesson_id) == "2 imported balls"
    assert in_blocks(session, lesson_id) == [("7i", [])]
    history.redo(session, lesson_id)
    assert [(c, len(b)) for c, b in in_blocks(session, lesson_id)] == [("8i", 1), ("d", 1)]


def test_the_revision_is_another_one_after_every_change(session: Session, lesson_id: str) -> None:
    seen = [steps.revision_of(session, lesson_id)]
    for change in (
        lambda: taken(session, lesson_id, ball("1")),
        lambda: history.undo(session, lesson_id),
        lambda: history.redo(session, lesson_id),
        lambda: lessons.change_lesson(session, lesson_id, {"complaint": "Left."}),
    ):
        change()
        seen.append(steps.revision_of(session, lesson_id))
    assert all(a != b for a, b in pairwise(seen))
    taken(session, lesson_id, ball("1"))  # nothing new
    assert steps.revision_of(session, lesson_id) == seen[-1]


def test_nothing_comes_into_a_block_of_another_lesson(session: Session, lesson_id: str) -> None:
    with pytest.raises(NotFoundError):
        take_in(session, lesson_id, "elsewhere", [ball("1")])
    assert in_blocks(session, lesson_id) == [("7i", [])]


def test_columns_are_remembered_and_the_last_agreement_counts(session: Session) -> None:
    assert imports.remembered(session, "f") is None
    imports.remember(session, "f", [{"heading": "Carry", "field": "carry"}])
    imports.remember(session, "f", [{"heading": "Carry", "field": None}])
    assert imports.remembered(session, "f") == [{"heading": "Carry", "field": None}]
