"""Do the knowledge files fit together, and where not?

`build_knowledge` takes the parsed contents of every file (it opens none itself) and returns one
frozen `Knowledge`, or raises `KnowledgeError` naming file and entry.
"""

import hashlib
import json
from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property
from typing import Any, TypeVar

from pydantic import TypeAdapter, ValidationError

from firm_footing.core.knowledge.causes import Cause, Mechanism
from firm_footing.core.knowledge.clubs import Club, ClubsFile
from firm_footing.core.knowledge.coaching import Cautions, Drill, Equipment, Schools
from firm_footing.core.knowledge.cross_check import problems_of
from firm_footing.core.knowledge.cues import Cues
from firm_footing.core.knowledge.film import FilmNumbers
from firm_footing.core.knowledge.looks import Check
from firm_footing.core.knowledge.measures import Measure, MeasuresFile
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
from firm_footing.core.knowledge.vocabulary import Mode

FILES = (
    "causes",
    "mechanisms",
    "checks",
    "drills",
    "equipment",
    "schools",
    "corridors",
    "signs",
    "traces",
    "feel_tests",
    "felt",
    "film",
    "cautions",
    "misses",
    "measures",
    "cues",
    "poses",
    "clubs",
    "plausible",
    "numbers",
)
"""Names of the knowledge files, without `.yaml`."""

T = TypeVar("T")


class KnowledgeError(ValueError):
    """A knowledge file is wrong; the message names file and entry."""


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
        if check.shows is None:
            return {c: numbers.pointer[s] for c, s in check.pointers(mode).items()}
        return {
            c: numbers.pointer_shown if c == check.shows else numbers.pointer_beside[s]
            for c, s in check.pointers(mode).items()
        }

    @cached_property
    def upstream(self) -> dict[str, tuple[str, ...]]:
        """Cause id to the causes that can bring it about directly."""
        return {
            c.id: tuple(u.id for u in self.causes if c.id in u.upstream_of) for c in self.causes
        }


def build_knowledge(files: Mapping[str, Any]) -> Knowledge:
    """Validate parsed files (name without ending -> content) into one `Knowledge`.

    Raises
    ------
    KnowledgeError
        Naming the file and the entry that is wrong, for the first thing found wrong.

    """
    missing = [name for name in FILES if name not in files]
    if missing:
        raise KnowledgeError(f"knowledge/{missing[0]}.yaml: the file is missing")
    clubs = _parse(ClubsFile, "clubs", files)
    knowledge = Knowledge(
        causes=_parse(tuple[Cause, ...], "causes", files),
        mechanisms=_parse(tuple[Mechanism, ...], "mechanisms", files),
        checks=_parse(tuple[Check, ...], "checks", files),
        drills=_parse(tuple[Drill, ...], "drills", files),
        equipment=_parse(tuple[Equipment, ...], "equipment", files),
        schools=_parse(Schools, "schools", files),
        corridors=_parse(Corridors, "corridors", files),
        signs=_parse(tuple[Sign, ...], "signs", files),
        traces=_parse(TraceNumbers, "traces", files),
        feel_tests=_parse(tuple[FeelTest, ...], "feel_tests", files),
        felt=_parse(tuple[FeltQuestion, ...], "felt", files),
        film=_parse(FilmNumbers, "film", files),
        cautions=_parse(Cautions, "cautions", files),
        misses=_parse(tuple[Miss, ...], "misses", files),
        measures=_parse(MeasuresFile, "measures", files).measures,
        cues=_parse(Cues, "cues", files),
        poses=_parse(Poses, "poses", files),
        clubs=clubs.with_heads(),
        plausible=_parse(Plausible, "plausible", files),
        numbers=_parse(Numbers, "numbers", files),
        version=_version(files),
    )
    for problem in problems_of(knowledge):
        raise KnowledgeError(problem)
    return knowledge


def _version(files: Mapping[str, Any]) -> str:
    """A short fingerprint of the content: the same words and numbers give the same version."""
    text = json.dumps({name: files[name] for name in FILES}, sort_keys=True, default=str)
    return hashlib.sha256(text.encode()).hexdigest()[:12]


def _parse(kind: type[T], name: str, files: Mapping[str, Any]) -> T:
    raw = files[name]
    try:
        return TypeAdapter(kind).validate_python(raw)
    except ValidationError as error:
        first = error.errors()[0]
        raise KnowledgeError(
            f"knowledge/{name}.yaml: {_place(raw, first['loc'])}: {first['msg']}"
        ) from error


def _place(raw: Any, path: tuple[int | str, ...]) -> str:
    """The entry's id and the key inside it, as one would say it."""
    words: list[str] = []
    value = raw
    for step in path:
        try:
            value = value[step]
        except (KeyError, IndexError, TypeError):
            value = None
        if isinstance(step, int) and isinstance(value, dict) and "id" in value:
            words.append(f"entry '{value['id']}'")
        else:
            words.append(str(step))
    return " › ".join(words) or "whole file"
