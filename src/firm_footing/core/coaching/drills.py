"""Which drills serve a cause without hurting the student?"""

from collections.abc import Collection, Mapping
from dataclasses import dataclass

from firm_footing.core.case import School
from firm_footing.core.knowledge import Drill, Knowledge
from firm_footing.core.knowledge.vocabulary import Limit

POSSIBLE = 0.2
"""A cause this likely is not to be made worse by a drill for another."""


@dataclass(frozen=True)
class Withheld:
    """A drill kept back, and the flagged limits or the causes it would make worse."""

    drill: str
    limits: tuple[Limit, ...]
    worse_for: tuple[str, ...]
    path_too_far_in_to_out: bool


def drills_for(
    cause: str,
    knowledge: Knowledge,
    limits: Collection[Limit],
    school: School,
    present: Mapping[str, float],
    path_deg: float | None,
) -> tuple[str, ...]:
    """Ids of the drills that serve this cause, the school's favourites first.

    Parameters
    ----------
    limits : bodily limits flagged for the student
    present : cause id to P(present), to keep back drills that another likely cause forbids
    path_deg : club path, + in-to-out, None when not known

    """
    kept_back = {w.drill for w in withheld_for(cause, knowledge, limits, present, path_deg)}
    favourites = _favourites(knowledge, school)
    serving = [d for d in _serving(cause, knowledge) if d.id not in kept_back]
    return tuple(d.id for d in sorted(serving, key=lambda d: d.id not in favourites))


def withheld_for(
    cause: str,
    knowledge: Knowledge,
    limits: Collection[Limit],
    present: Mapping[str, float],
    path_deg: float | None,
) -> list[Withheld]:
    """The drills for this cause that are kept back, with the reasons."""
    found = []
    for drill in _serving(cause, knowledge):
        hurt = tuple(limit for limit in drill.limits if limit in limits)
        worse = tuple(c for c in drill.not_for if present.get(c, 0.0) >= 0.5)
        worse += _opposed(drill, cause, knowledge, present)
        beyond = drill.not_for_path_beyond_deg
        in_to_out = beyond is not None and path_deg is not None and path_deg > beyond
        if hurt or worse or in_to_out:
            found.append(Withheld(drill.id, hurt, worse, in_to_out))
    return found


def _opposed(
    drill: Drill, cause: str, knowledge: Knowledge, present: Mapping[str, float]
) -> tuple[str, ...]:
    """Causes whose remedy is the opposite of this drill's, and that are at least as likely.

    So two opposite remedies are never advised together: neither beside the cause to start with,
    nor for a third cause that one of the drills happens to serve as well.
    """
    found = []
    for target in drill.targets:
        opposite = knowledge.cause[target].opposite_of
        if opposite is None or opposite in drill.not_for or target == cause:
            continue
        likelier = present.get(opposite, 0.0) >= max(present.get(target, 0.0), POSSIBLE)
        if opposite == cause or likelier:
            found.append(opposite)
    return tuple(found)


def _serving(cause: str, knowledge: Knowledge) -> list[Drill]:
    return [d for d in knowledge.drills if cause in d.targets]


def _favourites(knowledge: Knowledge, school: School) -> set[str]:
    schools = knowledge.schools
    chosen = (
        schools.pressure.option(school.pressure),
        schools.heel_toe.option(school.heel_toe),
        schools.lead_foot.option(school.lead_foot),
        schools.start.option(school.start),
    )
    return {drill for option in chosen for drill in option.prefers_drills}
