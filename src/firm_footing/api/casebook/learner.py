"""Who studies lessons that are over, while nothing else is asked?

One thread, once a change has been made and some quiet seconds have passed. What is concluded is
concluded one at a time: a page waits for the study of one lesson at most, some tenths of a second.
"""

import logging
from collections.abc import Callable
from threading import Event, Lock, Thread
from time import sleep
from typing import Final

from sqlalchemy import Engine
from sqlmodel import Session

from firm_footing.api.conclusions.kept import KeptConclusions
from firm_footing.core.knowledge import Knowledge
from firm_footing.store.changes.idempotency import SENDER, Sender
from firm_footing.store.database import take_turn
from firm_footing.store.known import KNOWLEDGE
from firm_footing.store.learning import (
    LayerInUse,
    ToStudy,
    is_learned,
    keep,
    layer_in_use,
    learn_from_lessons,
    lessons_to_study,
    study,
)
from firm_footing.store.own_tables import LearnedLayer, StudiedLesson

QUIET_S: Final = 2.0
"""Without a change before the studying begins: the next ball often comes before."""
LOG: Final = logging.getLogger(__name__)


class Learner:
    """Keeps what the casebook taught up to date.

    in_use : what rankings use of it now
    waiting : lessons still to be studied
    times_kept : how often something that it worked out was kept
    tell : called then, for the pages that are open
    """

    def __init__(
        self, engine: Engine, known: Knowledge, kept: KeptConclusions, tell: Callable[[], None]
    ) -> None:
        self._engine, self._known, self._kept, self._tell = engine, known, kept, tell
        self._changed, self._at_it = Event(), Lock()
        self._unreadable: set[ToStudy] = set()
        self.waiting = self.times_kept = 0
        with self._session() as session:
            self.in_use: LayerInUse = layer_in_use(session, known)

    def start(self) -> None:
        """From now on by itself."""
        self._changed.set()
        Thread(target=self._keep_up, daemon=True, name="learner").start()

    def wake(self) -> None:
        """Something was changed; from any thread."""
        self._changed.set()

    def catch_up(self) -> None:
        """Study every lesson that waits, then make what they teach anew where anything changed."""
        with self._at_it:
            with self._session() as session:
                found = lessons_to_study(session, self._known)
            to_do = [lesson for lesson in found if lesson not in self._unreadable]
            for done, lesson in enumerate(to_do):
                self.waiting = len(to_do) - done
                self._study(lesson)
            self.waiting = 0
            with self._session() as session:
                is_learned_already = is_learned(session, self._known)
            if not is_learned_already:
                with self._session() as session:
                    layer = learn_from_lessons(session, self._known)
                self._keep(layer)
                self.look_again()
            if to_do or not is_learned_already:
                self.times_kept += 1
                self._tell()

    def look_again(self) -> None:
        """What rankings use may be another: it was made anew, or chosen otherwise."""
        with self._session() as session:
            self.in_use = layer_in_use(session, self._known)

    def _study(self, lesson: ToStudy) -> None:
        """One lesson; one that cannot be studied is left until it is changed."""
        try:
            with self._kept.reasoning, self._session() as session:
                found = study(session, lesson, self._known)
            if found is not None:
                self._keep(found)
                return
        except Exception:
            LOG.exception("lesson %s could not be studied", lesson.lesson_id)
        self._unreadable.add(lesson)

    def _keep(self, found: StudiedLesson | LearnedLayer) -> None:
        """Changes of lessons wait for the writing only, not for the working out."""
        with self._session() as session:
            take_turn(session)
            keep(session, found)

    def _keep_up(self) -> None:
        while True:
            self._changed.wait()
            while self._changed.is_set():
                self._changed.clear()
                sleep(QUIET_S)
            try:
                self.catch_up()
            except Exception:
                LOG.exception("what the casebook teaches could not be made anew")

    def _session(self) -> Session:
        session = Session(self._engine, expire_on_commit=False)
        session.info.update({KNOWLEDGE: self._known, SENDER: Sender()})
        return session
