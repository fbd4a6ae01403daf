"""Do the knowledge files fit together, and where not?

`build_knowledge` takes the parsed contents of every file (it opens none itself) and returns one
frozen `Knowledge`, or raises `KnowledgeError` naming file and entry.
"""

import hashlib
import json
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from functools import cached_property
from graphlib import CycleError, TopologicalSorter
from typing import Any, TypeVar

from pydantic import TypeAdapter, ValidationError

from firm_footing.core.knowledge.causes import Cause, Mechanism
from firm_footing.core.knowledge.clubs import Club, ClubsFile
from firm_footing.core.knowledge.coaching import Cautions, Cues, Drill, Equipment, Miss, Schools
from firm_footing.core.knowledge.looks import Check
from firm_footing.core.knowledge.numbers import Numbers
from firm_footing.core.knowledge.plausible import Plausible
from firm_footing.core.knowledge.poses import Poses
from firm_footing.core.knowledge.pressure import Corridors, FeelTest, Sign, TraceNumbers
from firm_footing.core.knowledge.vocabulary import DIMENSIONS, Mode

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
    "cautions",
    "misses",
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
    cautions: Cautions
    misses: tuple[Miss, ...]
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
        cautions=_parse(Cautions, "cautions", files),
        misses=_parse(tuple[Miss, ...], "misses", files),
        cues=_parse(Cues, "cues", files),
        poses=_parse(Poses, "poses", files),
        clubs=clubs.with_heads(),
        plausible=_parse(Plausible, "plausible", files),
        numbers=_parse(Numbers, "numbers", files),
        version=_version(files),
    )
    for problem in _problems(knowledge):
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


def _problems(k: Knowledge) -> Iterator[str]:
    """Every reference that leads nowhere and every gap, in words."""
    for name in (
        "causes",
        "mechanisms",
        "checks",
        "drills",
        "equipment",
        "signs",
        "feel_tests",
        "misses",
        "clubs",
    ):
        yield from _twice(name, (entry.id for entry in getattr(k, name)))
    yield from _cause_problems(k)
    yield from _look_problems(k)
    yield from _coaching_problems(k)
    yield from _coverage_problems(k)


def _twice(name: str, ids: Iterable[str]) -> Iterator[str]:
    seen: set[str] = set()
    for entry_id in ids:
        if entry_id in seen:
            yield f"knowledge/{name}.yaml: entry '{entry_id}': the id stands twice"
        seen.add(entry_id)


def _unknown(where: str, known: Iterable[str], used: Iterable[str], kind: str) -> Iterator[str]:
    for wanted in sorted(set(used) - set(known)):
        yield f"knowledge/{where}: no {kind} is called '{wanted}'"


def _cause_problems(k: Knowledge) -> Iterator[str]:
    for c in k.causes:
        where = f"causes.yaml: entry '{c.id}'"
        yield from _unknown(where, k.cause, c.upstream_of, "cause")
        yield from _unknown(where, k.cause, [c.opposite_of] if c.opposite_of else [], "cause")
        yield from _unknown(where, k.mechanism, (w.mechanism for w in c.workings), "mechanism")
        yield from _unknown(where, DIMENSIONS, c.effect_stuck, "dimension of the delivery")
        sides = {s.id for s in c.sides}
        yield from _unknown(where, sides, (w.side for w in c.workings if w.side), "side")
        if c.effect_stuck and not c.skill:
            yield f"knowledge/{where}: effect_stuck needs 'skill: true'"
    try:
        graph = {c.id: c.upstream_of for c in k.causes}
        tuple(TopologicalSorter(graph).static_order())
    except CycleError as error:
        circle = " → ".join(reversed(error.args[1]))
        yield f"knowledge/causes.yaml: upstream links run in a circle: {circle}"


def _look_problems(k: Knowledge) -> Iterator[str]:
    for check in k.checks:
        where = f"checks.yaml: entry '{check.id}'"
        yield from _unknown(where, k.cause, check.all_pointers(), "cause")
        yield from _unknown(where, k.cause, [check.shows] if check.shows else [], "cause")
        two_modes = {c.id for c in k.causes if c.skill}
        for cause in {**check.points_thrown, **check.points_stuck}:
            if cause not in two_modes:
                yield f"knowledge/{where}: '{cause}' has no two modes"
    for sign in k.signs:
        where = f"signs.yaml: entry '{sign.id}'"
        yield from _unknown(where, k.check, [*sign.answers, *sign.only_if], "check")
    two_way = [k.numbers.two_way.mechanism]
    yield from _unknown("numbers.yaml: two_way", k.mechanism, two_way, "mechanism")
    for group in k.numbers.dependent_looks.groups:
        where = f"numbers.yaml: dependent_looks › entry '{group.id}'"
        yield from _unknown(where, k.check, group.checks, "check")


def _coaching_problems(k: Knowledge) -> Iterator[str]:
    things = {e.id for e in k.equipment}
    for caution in k.cautions.general:
        where = f"cautions.yaml: entry '{caution.id}'"
        yield from _unknown(where, things, caution.equipment, "equipment")
    for d in k.drills:
        where = f"drills.yaml: entry '{d.id}'"
        removed = d.constraint.removes if d.constraint else ()
        named = [*d.targets, *d.not_for, *d.care_with, *removed]
        yield from _unknown(where, k.cause, named, "cause")
        yield from _unknown(where, things, d.equipment, "equipment")
    for question in ("pressure", "heel_toe", "lead_foot", "start"):
        for option in getattr(k.schools, question).options:
            where = f"schools.yaml: {question} › entry '{option.id}'"
            yield from _unknown(where, k.cause, option.cause_weight, "cause")
            yield from _unknown(where, k.check, option.check_base, "check")
            yield from _unknown(where, k.drill, option.prefers_drills, "drill")
    schools = {o.id for o in k.schools.pressure.options}
    yield from _unknown("corridors.yaml", schools, k.corridors.lead_pct, "pressure school")
    yield from _unknown("corridors.yaml: drills", k.drill, k.corridors.drills, "drill")
    starts = k.traces.signs.shift_after_top_s
    yield from _unknown("traces.yaml: shift_after_top_s", schools, starts, "pressure school")
    for school in sorted(schools - set(starts)):
        yield f"knowledge/traces.yaml: shift_after_top_s: pressure school '{school}' is missing"
    yield from _unknown("cues.yaml: causes", k.cause, k.cues.causes, "cause")
    yield from _unknown("poses.yaml: checks", k.check, k.poses.checks, "check")
    yield from _unknown("poses.yaml: drills", k.drill, k.poses.drills, "drill")
    for test in k.feel_tests:
        where = f"feel_tests.yaml: entry '{test.id}'"
        yield from _unknown(where, k.check, (ask.check for ask in test.asks), "check")


def _coverage_problems(k: Knowledge) -> Iterator[str]:
    for d in k.drills:
        if not k.poses.drills.get(d.id):
            yield f"knowledge/poses.yaml: drills: '{d.id}' has no drawing"
    shown = {check.shows for check in k.checks}
    drilled = {cause for drill in k.drills for cause in drill.targets}
    for c in k.causes:
        if c.id not in shown:
            yield f"knowledge/causes.yaml: entry '{c.id}': no check shows it"
        if c.id not in drilled:
            yield f"knowledge/causes.yaml: entry '{c.id}': no drill serves it"
        if c.id not in k.cues.causes:
            yield f"knowledge/cues.yaml: causes: '{c.id}' has no cue"
