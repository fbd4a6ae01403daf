"""In which words is a cause cued to this student?"""

from collections.abc import Collection, Mapping

from firm_footing.core.case import School
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.cues import CueOf, Force, Leg, Way

USUAL_SCHOOL = School()


def way_of(felt: Mapping[str, Way], force: Force | None, knowledge: Knowledge) -> Way:
    """Pushing or being moved: what the student said of this force, else what they said more often.

    Pushing where both were said as often.

    Parameters
    ----------
    felt : id of a force test to what was answered

    """
    component = {t.id: t.component for t in knowledge.cautions.force_tests}
    own = [way for test, way in felt.items() if force is not None and component[test] == force]
    said = own or list(felt.values())
    return "moved" if said.count("moved") > said.count("pushing") else "pushing"


def cues_for(
    cause: str,
    felt: Mapping[str, Way],
    dominant: Leg | None,
    knowledge: Knowledge,
    school: School = USUAL_SCHOOL,
    hurt: Collection[Leg] = (),
) -> tuple[str, ...]:
    """Sentences for a cause, the best first; a school's own sentence before all others.

    The cause's force and leg, or its own words, in the student's language; then the other leg when
    it is the dominant one, which leads the cue; then the other language; then images.

    Parameters
    ----------
    felt : id of a force test to what they answered
    dominant : the leg they are steadier on, None when not known
    hurt : legs that hurt: what loads one of them comes last

    """
    cue = knowledge.cues.causes[cause]
    chosen = knowledge.schools.chosen(school.model_dump())
    own = [cue.by_school[o.id] for o in chosen if o.id in cue.by_school]
    images = [*cue.images, *(knowledge.cues.images[cue.force] if cue.force else ())]
    way = way_of(felt, cue.force, knowledge)
    said = dict.fromkeys([*own, *_usual(cue, way, dominant, knowledge), *images])
    return tuple(sorted(said, key=lambda text: _loads(text, cue, knowledge) in hurt))


def _loads(text: str, cue: CueOf, knowledge: Knowledge) -> Leg | None:
    """The leg that a sentence loads; None where none is."""
    for by_leg in knowledge.cues.sentences.values():
        for leg, ways in by_leg.items():
            if text in ways.values():
                return leg
    return cue.loads if text in (cue.pushing, cue.moved, *cue.by_school.values()) else None


def _usual(cue: CueOf, way: Way, dominant: Leg | None, knowledge: Knowledge) -> tuple[str, ...]:
    if cue.say is not None:
        return (cue.say,)
    ways: tuple[Way, Way] = ("moved", "pushing") if way == "moved" else ("pushing", "moved")
    if cue.pushing is not None and cue.moved is not None:
        own = {"pushing": cue.pushing, "moved": cue.moved}
        return tuple(own[w] for w in ways)
    assert cue.force is not None
    assert cue.leg is not None
    by_leg = knowledge.cues.sentences[cue.force]
    legs: list[Leg] = [cue.leg]
    if dominant is not None and dominant != cue.leg and not cue.own_leg_only:
        legs.append(dominant)
    return tuple(dict.fromkeys(by_leg[leg][w] for w in ways for leg in legs))
