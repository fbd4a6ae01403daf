"""Do the knowledge files fit together, and where not?

`build_knowledge` takes the parsed contents of every file (it opens none itself) and returns one
frozen `Knowledge`, or raises `KnowledgeError` naming file and entry.
"""

from collections.abc import Collection
from dataclasses import dataclass
from functools import cached_property

from firm_footing.core.knowledge.casebook import CasebookNumbers
from firm_footing.core.knowledge.causes import Cause, Mechanism
from firm_footing.core.knowledge.checks import Check
from firm_footing.core.knowledge.clubs import Club
from firm_footing.core.knowledge.coaching import Cautions, Drill, Equipment
from firm_footing.core.knowledge.cues import Cues
from firm_footing.core.knowledge.film import FilmNumbers
from firm_footing.core.knowledge.measures import Measure
from firm_footing.core.knowledge.misses import Miss
from firm_footing.core.knowledge.numbers import Numbers
from firm_footing.core.knowledge.plausible import Plausible
from firm_footing.core.knowledge.poses import Poses
from firm_footing.core.knowledge.pressure import (
    Corridors,
    FeelTest,
    FeltQuestion,
    Sign,
    TraceNumbers,
)
from firm_footing.core.knowledge.schools import CauseLink, Schools
from firm_footing.core.knowledge.vocabulary import Mode


@dataclass(frozen=True, eq=False)
class Knowledge:
    """Everything the trade knows, cross-checked; compared by identity, never changed."""

    causes: tuple[Cause, ...]
    mechanisms: tuple[Mechanism, ...]
    checks: tuple[Check, ...]
    drills: tuple[Drill, ...]
    equipment: tuple[Equipment, ...]
    schools: Schools
    corridors: Corridors
    signs: tuple[Sign, ...]
    traces: TraceNumbers
    feel_tests: tuple[FeelTest, ...]
    felt: tuple[FeltQuestion, ...]
    film: FilmNumbers
    cautions: Cautions
    misses: tuple[Miss, ...]
    measures: tuple[Measure, ...]
    cues: Cues
    poses: Poses
    clubs: tuple[Club, ...]
    plausible: Plausible
    numbers: Numbers
    casebook: CasebookNumbers
    version: str

    @cached_property
    def cause_index(self) -> dict[str, int]:
        """Cause id to its place in `causes`."""
        return {c.id: i for i, c in enumerate(self.causes)}

    @cached_property
    def cause(self) -> dict[str, Cause]:
        """Cause id to cause."""
        return {c.id: c for c in self.causes}

    @cached_property
    def effects(self) -> dict[tuple[str, Mode | None, str | None], tuple[float, ...]]:
        """(cause id, mode, side) to the mean shift of the delivery, order of `DIMENSIONS`."""
        modes: tuple[Mode | None, ...] = (None, "thrown", "stuck")
        return {
            (c.id, mode, side): c.effect_in(mode, side).row()
            for c in self.causes
            for mode in modes
            for side in (None, *(s.id for s in c.sides))
        }

    @cached_property
    def mechanism(self) -> dict[str, Mechanism]:
        """Mechanism id to mechanism."""
        return {m.id: m for m in self.mechanisms}

    @cached_property
    def check(self) -> dict[str, Check]:
        """Check id to check."""
        return {c.id: c for c in self.checks}

    @cached_property
    def drill(self) -> dict[str, Drill]:
        """Drill id to drill."""
        return {d.id: d for d in self.drills}

    @cached_property
    def measure(self) -> dict[str, Measure]:
        """Id to measure of a retest, in the order of the file."""
        return {m.id: m for m in self.measures}

    @cached_property
    def club(self) -> dict[str, Club]:
        """Club id to club."""
        return {c.id: c for c in self.clubs}

    def points(self, check: Check, mode: Mode | None) -> dict[str, float]:
        """Cause id to P(yes | that cause alone is at work), of the causes a look points to."""
        numbers = self.numbers
        beside = numbers.pointer if check.shows is None else numbers.pointer_beside
        return {
            c: numbers.pointer_shown if c == check.shows or s == "by_nature" else beside[s]
            for c, s in check.pointers(mode).items()
        }

    @cached_property
    def disputed_links(self) -> frozenset[CauseLink]:
        """Links that some school does not hold with."""
        options = (o for q in self.schools.questions.values() for o in q.options)
        return frozenset().union(*(o.dropped for o in options))

    def roots_of(self, causes: Collection[str]) -> list[str]:
        """Those of these causes that no other of them brings about, whichever school is right."""
        return [
            c
            for c in causes
            if not any(u in causes and (u, c) not in self.disputed_links for u in self.upstream[c])
        ]

    @cached_property
    def upstream(self) -> dict[str, tuple[str, ...]]:
        """Cause id to the causes that can bring it about directly."""
        return {
            c.id: tuple(u.id for u in self.causes if c.id in u.upstream_of) for c in self.causes
        }
