"""What did colleagues' casebooks teach? Each is kept as it was saved, and can be put away again."""

from collections.abc import Sequence
from hashlib import sha256
from typing import Final

from sqlmodel import Session, col, select

from firm_footing.core.knowledge import Knowledge
from firm_footing.core.learning.learned import Learned, unknown_in
from firm_footing.store.changes.idempotency import end_of_change
from firm_footing.store.errors import not_found, refused
from firm_footing.store.own_tables import ColleagueCasebook, LearnedLayer

MOST: Final = 40


def colleagues_of(session: Session) -> Sequence[ColleagueCasebook]:
    """All that were added, the first first."""
    order = col(ColleagueCasebook.added_at), col(ColleagueCasebook.id)
    return session.exec(select(ColleagueCasebook).order_by(*order)).all()


def usable_of(session: Session, known: Knowledge) -> list[ColleagueCasebook]:
    """Those whose causes are all known here."""
    return [c for c in colleagues_of(session) if unknown_in(c.learned, known) is None]


def add_colleague(session: Session, name: str, learned: Learned, known: Knowledge) -> None:
    """Once, however often the same file is added; a newer one of the same lessons in its place.

    Raises
    ------
    RefusedError
        It holds nothing, names a cause that is not known here, holds lessons of one's own, or none
        but such as a casebook here holds with more; or there are too many.

    """
    if learned.outcomes == 0:
        raise refused("This casebook knows no outcome yet.", "file", "Nothing was added.")
    if unknown := unknown_in(learned, known):
        said = f"It was made with other knowledge: nothing is called '{unknown}' here."
        raise refused(said, "file", "Save it again with this version.")
    own = session.get(LearnedLayer, 1)
    if own is not None and own.learned is not None and _share_a_lesson(own.learned, learned):
        said = "Lessons of your own are in this casebook."
        raise refused(said, "file", "Nothing was added: they teach here.")
    there = colleagues_of(session)
    older = [c for c in there if _share_a_lesson(c.learned, learned)]
    if any(set(learned.lessons) < set(c.learned.lessons) for c in older):
        said = "A newer casebook with the same lessons is here already."
        raise refused(said, "file", "Nothing was added.")
    if len(there) - len(older) >= MOST:
        raise refused(f"There are {MOST} already.", "file", "Put one away first.")
    for one in older:
        session.delete(one)
    session.flush()
    same = sha256(learned.model_dump_json().encode()).hexdigest()[:32]
    session.add(ColleagueCasebook(id=same, name=name, learned=learned))
    end_of_change(session)


def _share_a_lesson(one: Learned, other: Learned) -> bool:
    """Whether a lesson is in both; files of before lessons were marked are held side by side."""
    if one.lessons and other.lessons:
        return not set(one.lessons).isdisjoint(other.lessons)
    return one.everything == other.everything


def put_away_colleague(session: Session, which: str) -> None:
    """It teaches nothing any more.

    Raises
    ------
    NotFoundError
        There is none of that id.

    """
    found = session.get(ColleagueCasebook, which)
    if found is None:
        raise not_found("casebook")
    session.delete(found)
    end_of_change(session)
