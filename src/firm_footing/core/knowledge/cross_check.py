"""Does every reference in the knowledge lead somewhere, and is nothing left out?"""

import re
from collections.abc import Iterable, Iterator
from graphlib import CycleError, TopologicalSorter
from itertools import product

from firm_footing.core.knowledge.library import Knowledge
from firm_footing.core.knowledge.vocabulary import DIMENSIONS


def problems_of(k: Knowledge) -> Iterator[str]:
    """Every reference that leads nowhere and every gap, in words."""
    for name in (
        "causes",
        "mechanisms",
        "checks",
        "drills",
        "equipment",
        "signs",
        "feel_tests",
        "felt",
        "misses",
        "measures",
        "clubs",
    ):
        yield from _twice(name, (entry.id for entry in getattr(k, name)))
    yield from _cause_problems(k)
    yield from _look_problems(k)
    yield from _film_problems(k)
    yield from _coaching_problems(k)
    yield from _coverage_problems(k)
    yield from _side_problems(k)


def _twice(name: str, ids: Iterable[str]) -> Iterator[str]:
    seen: set[str] = set()
    for entry_id in ids:
        if entry_id in seen:
            yield f"knowledge/{name}.yaml: entry '{entry_id}': the id stands twice"
        seen.add(entry_id)


def _unknown(where: str, known: Iterable[str], used: Iterable[str], kind: str) -> Iterator[str]:
    for wanted in sorted(set(used) - set(known)):
        yield f"knowledge/{where}: no {kind} is called '{wanted}'"


def _film_problems(k: Knowledge) -> Iterator[str]:
    yield from _twice("film", (m.id for m in k.film.measures))
    yield from _twice("film", (p.id for p in k.film.points))
    for m in k.film.measures:
        where = f"film.yaml: entry '{m.id}'"
        yield from _unknown(where, k.check, (a.check for a in m.answers), "check")
        shown = (m.felt_on, m.since) if m.felt_on else ()
        bases = k.poses.bases[m.view]
        yield from _unknown(where, bases, (base for base in shown if base), "base of the figure")


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
    yield from _circles(k)


def _circles(k: Knowledge) -> Iterator[str]:
    """Whatever schools are chosen, no cause brings itself about by way of others.

    A mixture of views that is in order is so in each of its views.
    """
    questions = k.schools.questions.values()
    for options in product(*({o.dropped for o in q.options if not o.even_of} for q in questions)):
        dropped = frozenset().union(*options)
        graph = {c.id: [b for b in c.upstream_of if (c.id, b) not in dropped] for c in k.causes}
        try:
            tuple(TopologicalSorter(graph).static_order())
        except CycleError as error:
            circle = " → ".join(reversed(error.args[1]))
            yield f"knowledge/causes.yaml: upstream links run in a circle: {circle}"
            return


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
    for group in k.numbers.dependent_checks.groups:
        where = f"numbers.yaml: dependent_checks › entry '{group.id}'"
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
        yield from _unknown(where, _school_ids(k), d.schools, "school")
    yield from _school_problems(k)
    schools = {o.id for o in k.schools.pressure.options}
    yield from _unknown("corridors.yaml", schools, k.corridors.lead_pct, "pressure school")
    yield from _unknown("corridors.yaml: drills", k.drill, k.corridors.drills, "drill")
    starts = k.traces.signs.shift_after_top_s
    yield from _unknown("traces.yaml: shift_after_top_s", schools, starts, "pressure school")
    for school in sorted(schools - set(starts)):
        yield f"knowledge/traces.yaml: shift_after_top_s: pressure school '{school}' is missing"
    yield from _unknown("cues.yaml: causes", k.cause, k.cues.causes, "cause")
    for cause, cue in k.cues.causes.items():
        yield from _unknown(
            f"cues.yaml: causes › '{cause}'", _school_ids(k), cue.by_school, "school"
        )
    yield from _thought_problems(k)
    feet = {o.id for o in k.schools.heel_toe.options}
    counts = k.traces.signs.heel_back_counts
    yield from _unknown("traces.yaml: heel_back_counts", feet, counts, "heel-and-toe school")
    for school in sorted(feet - set(counts)):
        yield f"knowledge/traces.yaml: heel_back_counts: heel-and-toe school '{school}' is missing"
    yield from _unknown("poses.yaml: checks", k.check, k.poses.checks, "check")
    yield from _unknown("poses.yaml: drills", k.drill, k.poses.drills, "drill")
    for felt in k.felt:
        where = f"felt.yaml: entry '{felt.id}'"
        yield from _unknown(where, k.check, {c for o in felt.options for c in o.answers}, "check")
    for measure in k.measures:
        where = f"measures.yaml: entry '{measure.id}'"
        shares = {m.id for m in k.measures if m.share and not m.share.any_of}
        parts = measure.share.any_of if measure.share else ()
        yield from _unknown(where, shares, parts, "share")
        numbers = {m.id for m in k.measures if m.number}
        yield from _unknown(where, numbers, (t.of for t in measure.tails), "number")
    for test in k.feel_tests:
        where = f"feel_tests.yaml: entry '{test.id}'"
        yield from _unknown(where, k.check, (ask.check for ask in test.asks), "check")


def _school_problems(k: Knowledge) -> Iterator[str]:
    for name, question in k.schools.questions.items():
        for option in question.options:
            where = f"schools.yaml: {name} › entry '{option.id}'"
            yield from _unknown(where, k.cause, option.cause_weight, "cause")
            yield from _unknown(where, k.check, option.check_base, "check")
            yield from _unknown(where, k.cause, option.begins_with, "cause")
            yield from _unknown(where, {o.id for o in question.options}, option.even_of, "option")
            for above, below in option.drops_links.items():
                yield from _unknown(where, k.cause, [above], "cause")
                brings = k.cause[above].upstream_of if above in k.cause else ()
                yield from _unknown(where, brings, below, f"cause downstream of '{above}'")


def _thought_problems(k: Knowledge) -> Iterator[str]:
    """Of every cause, cue, drill and rescue together: nothing that is said feeds the cause."""
    for miss in k.misses:
        named = (c for rescue in miss.rescues for c in rescue.causes)
        yield from _unknown(f"misses.yaml: entry '{miss.id}'", k.cause, named, "cause")
    for cause, cue in k.cues.causes.items():
        forbidden = set(cue.forbids)
        for act in sorted(forbidden & set(cue.does)):
            yield f"knowledge/cues.yaml: causes › '{cause}': its cue does '{act}', which it forbids"
        for d in k.drills:
            thought = d.on_course
            if thought and cause in d.targets:
                for act in sorted(forbidden & set(thought.does)):
                    yield (
                        f"knowledge/drills.yaml: entry '{d.id}': its thought does '{act}', which "
                        f"'{cause}' forbids"
                    )
        for miss in k.misses:
            if all(forbidden & set(rescue.does) for rescue in miss.rescues):
                yield (
                    f"knowledge/misses.yaml: entry '{miss.id}': every rescue does what "
                    f"'{cause}' forbids"
                )


def _school_ids(k: Knowledge) -> set[str]:
    return {o.id for question in k.schools.questions.values() for o in question.options}


REAL_SIDE = re.compile(
    r"\b(left|right)(?= (foot|feet|heel|toes?|knee|leg|hip|hand|arm|shoulder|side)\b)"
)
NO_SIDE = re.compile(
    r"\b(lead|trail)\b(?! (?!(the|to|at|and|but|or|with|by|in|on)\b)\w)", re.IGNORECASE
)
"""Lead and trail that would come out as left and right where no side is meant."""


def _side_problems(k: Knowledge) -> Iterator[str]:
    """Every sentence can be said with lead and trail, and with left and right."""
    for name in (
        "causes",
        "mechanisms",
        "checks",
        "drills",
        "signs",
        "feel_tests",
        "felt",
        "misses",
    ):
        for entry in getattr(k, name):
            for text in _sentences(entry.model_dump()):
                where = f"knowledge/{name}.yaml: entry '{entry.id}'"
                if found := REAL_SIDE.search(text):
                    yield f"{where}: '{found[0]} {found[2]}' is a real side: say lead or trail"
                if found := NO_SIDE.search(text):
                    yield f"{where}: '{found[0]}' names no foot here: '{text}'"


def _sentences(value: object) -> Iterator[str]:
    """Every text of more than one word in it."""
    if isinstance(value, dict):
        value = tuple(value.values())
    if isinstance(value, str):
        if " " in value:
            yield value
    elif isinstance(value, list | tuple):
        for part in value:
            yield from _sentences(part)


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
