"""In which words is a cause cued to this student?"""

from collections.abc import Iterable

from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.coaching import Leg, Way


def way_of(felt: Iterable[Way]) -> Way:
    """Pushing or being moved: what the student said more often; pushing when they are even."""
    said = list(felt)
    return "moved" if said.count("moved") > said.count("pushing") else "pushing"


def cues_for(
    cause: str, felt: Iterable[Way], dominant: Leg | None, knowledge: Knowledge
) -> tuple[str, ...]:
    """Sentences for a cause, the best first.

    The cause's own force and leg in the student's language; then the other leg when it is the
    dominant one, which leads the cue; then the other language.

    Parameters
    ----------
    felt : what they answered to the force tests
    dominant : the leg they are steadier on, None when not known

    """
    cue = knowledge.cues.causes[cause]
    if cue.say is not None:
        return (cue.say,)
    assert cue.force is not None
    assert cue.leg is not None
    by_leg = knowledge.cues.sentences[cue.force]
    way = way_of(felt)
    other: Way = "pushing" if way == "moved" else "moved"
    legs: list[Leg] = [cue.leg]
    if dominant is not None and dominant != cue.leg:
        legs.append(dominant)
    said = [by_leg[leg][w] for w in (way, other) for leg in legs]
    return tuple(dict.fromkeys(said))
