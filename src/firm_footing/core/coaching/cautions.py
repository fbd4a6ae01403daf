"""What has to be said before a drill is done?"""

from collections.abc import Mapping, Sized

from firm_footing.core.knowledge import Drill, Knowledge
from firm_footing.core.knowledge.coaching import Caution

CARE = "Take care: “{}” is possible here, and this drill can feed it. Watch the finish."


def general_cautions(
    minor: bool, knowledge: Knowledge, *, to_student: bool = False
) -> tuple[str, ...]:
    """Sentences that go with every drill of this student.

    minor : whether a guardian has to agree
    to_student : as they stand on the student's page
    """
    return tuple(
        said(c, to_student)
        for c in knowledge.cautions.general
        if c.always or (c.for_minors and minor)
    )


def said(caution: Caution, to_student: bool) -> str:
    """A caution to the instructor, or to the student."""
    return caution.to_student if to_student and caution.to_student else caution.sentence


def cautions_for(
    drill: Drill,
    knowledge: Knowledge,
    present: Mapping[str, float] | None = None,
    *,
    to_student: bool = False,
) -> tuple[str, ...]:
    """Sentences that go with this drill beyond the general ones: its limits first, by name.

    present : cause id to P(present): a drill that can feed a possible cause says so
    """
    possible = knowledge.numbers.possible_from
    care = [c for c in drill.care_with if (present or {}).get(c, 0.0) >= possible]
    found = [CARE.format(knowledge.cause[c].name.lower()) for c in care]
    found += [said(c, to_student) for c in knowledge.cautions.general if _touches(c, drill)]
    if drill.limits:
        found.insert(0, leave_out(drill, knowledge))
    return tuple(found)


def without_a_drill(serving: Sized, knowledge: Knowledge) -> str:
    """What is left to do where no drill serves; '' while one does."""
    return "" if len(serving) > 0 else knowledge.cautions.without_a_drill.sentence


def leave_out(drill: Drill, knowledge: Knowledge) -> str:
    """The sentence that names the limits for which a drill is left out."""
    names = [n.name.lower() for n in knowledge.cautions.limits if n.id in drill.limits]
    return f"Leave out “{drill.name.lower()}” when any of these hurts or is unsure: " + (
        ", ".join(sorted(names)) + "."
    )


def _touches(caution: Caution, drill: Drill) -> bool:
    return (
        bool(set(caution.limits) & set(drill.limits))
        or bool(set(caution.equipment) & set(drill.equipment))
        or (caution.with_balls and drill.ball != "none")
    )
