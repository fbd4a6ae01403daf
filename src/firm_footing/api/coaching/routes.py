"""What is drilled, how is it said, and did it help?"""

from dataclasses import replace
from typing import Annotated, NamedTuple

from fastapi import APIRouter, Query

from firm_footing.api.coaching.schemas import (
    CardOut,
    ClockIn,
    ClockOut,
    CoachingOut,
    ComparedOut,
    LadderOut,
    MovedMeasureOut,
    RetestOut,
    RetestResultOut,
    SetupChangeOut,
    TargetOut,
)
from firm_footing.api.conclusions.views import why_withheld
from firm_footing.api.context import Known, RowId, Store, Writing
from firm_footing.api.errors import responses
from firm_footing.api.event_days import event_in
from firm_footing.api.security.intake import ParsedOnceRoute
from firm_footing.api.traces.views import compared_view
from firm_footing.core.case import Case
from firm_footing.core.coaching.before_after import Compared, Comparison, compare, compared_club
from firm_footing.core.coaching.cards import Card, cards_for
from firm_footing.core.coaching.cautions import general_cautions, without_a_drill
from firm_footing.core.coaching.compare_traces import TracesCompared, lay_over
from firm_footing.core.coaching.cues import cues_for
from firm_footing.core.coaching.drills import Worked, situation_of
from firm_footing.core.coaching.ladder import climb
from firm_footing.core.coaching.next_in_line import next_in_line
from firm_footing.core.coaching.practice import near_event
from firm_footing.core.coaching.predicted import moves_of
from firm_footing.core.coaching.setup_gate import setup_changes
from firm_footing.core.coaching.transfer import targets_for
from firm_footing.core.diagnosis.diagnosis import Diagnosis, diagnose
from firm_footing.core.inference.trace_answers import counts, counts_as_retest, read_traces
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.cues import Leg
from firm_footing.core.knowledge.vocabulary import Limit
from firm_footing.core.patterns import read_pattern
from firm_footing.core.text.retest import retest_words
from firm_footing.store import coaching, earlier
from firm_footing.store.cases import case_of
from firm_footing.store.lesson_content import LessonContent
from firm_footing.store.lesson_reading import content_of

router = APIRouter(route_class=ParsedOnceRoute, tags=["coaching"])
ERRORS = responses(404, 409, 422)


@router.get("/lessons/{lesson_id}/coaching", summary="Drills, ladder, cues", responses=ERRORS)
def read_coaching(session: Store, known: Known, lesson_id: RowId) -> CoachingOut:
    """For the cause decided on last; before a decision, for the one to start with."""
    content = content_of(session, lesson_id)
    case = case_of(content)
    found = diagnose(case, known, content.lesson.at_hand)
    decided = content.decisions[-1].cause if content.decisions else None
    cause = decided or found.causes[0].id
    lesson = content.lesson
    done = [r.result for r in content.repetitions if r.drill == lesson.drill]
    ladder = None
    drill = None if lesson.drill is None else known.drill.get(lesson.drill)  # it may be gone since
    if drill is not None:
        before = earlier.repeated_before(session, lesson, drill.id)
        climbed = climb([*before, *done], drill, known.numbers.coaching.ladder)
        ladder = LadderOut.model_validate(
            replace(climbed, passes=done.count("pass"), fails=len(done) - done.count("pass"))
        ).model_copy(update={"before": len(before)})
    cards = cards_of(cause, case, found, conditions_of(content), known)
    return CoachingOut(
        cause=cause,
        decided=decided is not None,
        cards=[_card(c, known) for c in cards],
        without_a_drill=without_a_drill([c for c in cards if c.withheld is None], known),
        ladder=ladder,
        cues=list(cues_of(content, cause, known)),
        next_in_line=next_in_line(cause, {c.id: c.probability for c in found.causes}, known),
        cautions=list(general_cautions(content.student.age_group == "junior", known)),
        setup_changes=[SetupChangeOut.model_validate(s) for s in setup_changes(case, known)],
    )


LEG_LIMITS: tuple[Limit, ...] = ("knee", "hip", "ankle")


def cues_of(content: LessonContent, cause: str, known: Knowledge) -> tuple[str, ...]:
    """Cues for a cause in this student's language, none that loads a leg that hurts first."""
    student, lesson = content.student, content.lesson
    sides = conditions_of(content).sides
    hurt = {sides[limit] for limit in LEG_LIMITS if limit in student.limits and limit in sides}
    return cues_for(cause, lesson.cue.felt, student.dominant_leg, known, lesson.school, hurt=hurt)


class DrillConditions(NamedTuple):
    """Equipment that is not here, of a limit the one leg it is on, and which drills worked."""

    lacking: tuple[str, ...]
    sides: dict[Limit, Leg]
    worked: Worked


def conditions_of(content: LessonContent) -> DrillConditions:
    """Of a lesson."""
    student = content.student
    sides: dict[Limit, Leg] = {}
    for limit, detail in student.limit_details.items():
        if detail.side in ("left", "right"):
            sides[limit] = "trail" if detail.side == student.handedness else "lead"
    return DrillConditions(content.lesson.lacking, sides, content.worked)


def cards_of(
    cause: str, case: Case, found: Diagnosis, conditions: DrillConditions, known: Knowledge
) -> tuple[Card, ...]:
    """Drills for a cause, given all that was concluded, what is not here, and which leg is hurt."""
    present = {c.id: c.probability for c in found.causes}
    path = found.pattern.path_deg.value if found.pattern.path_deg else None
    return cards_for(cause, known, situation_of(case, present, path, *conditions))


def _card(card: Card, known: Knowledge) -> CardOut:
    return CardOut(
        drill=card.drill,
        pros=list(card.pros),
        cons=list(card.cons),
        cautions=list(card.cautions),
        withheld=None if card.withheld is None else why_withheld(card.withheld, known),
        instead=card.instead,
    )


@router.get("/lessons/{lesson_id}/retest", summary="Before and after", responses=ERRORS)
def read_retest(session: Store, known: Known, lesson_id: RowId) -> RetestOut | None:
    """The newest retest beside the baseline of the same club; null without a baseline."""
    content = content_of(session, lesson_id)
    case = case_of(content)
    found = retest_of(session, content, case, known)
    if found is None:
        return None
    said = retest_words(found, case.handedness, known, content.lesson.primary_before)
    numbers = known.numbers.coaching.retest
    return RetestOut(
        club=found.club,
        measures=[_compared(m) for m in found.measures],
        primary=found.primary,
        fixed=found.fixed,
        result=None if found.result is None else RetestResultOut.model_validate(found.result),
        headline=said.headline,
        more=list(said.more),
        since_first=said.since_first,
        chosen_late=said.chosen_late,
        level=numbers.level,
        power=found.power,
        balls=numbers.balls,
        traces=compared_view(traces_compared(case, known)),
        setup_only=near_event(event_in(content.lesson), known.numbers.coaching.practice),
    )


def retest_of(
    session: Store, content: LessonContent, case: Case, known: Knowledge
) -> Comparison | None:
    """The newest retest beside its baseline, balls with targets of their own left out."""
    elsewhere = {i for i, block in enumerate(content.blocks) if block.own_targets}
    retests = [b for i, b in enumerate(case.blocks) if b.kind == "retest" and i not in elsewhere]
    club = compared_club(case, retests)
    first = club and earlier.first_with_club(session, content.lesson, club)
    return compare(
        case,
        content.lesson.primary,
        _predicted(session, content),
        known,
        elsewhere,
        case_of(content_of(session, first)) if first else None,
    )


def traces_compared(case: Case, known: Knowledge) -> TracesCompared | None:
    """Swings of the baseline beside those of the retest."""
    if not case.traces:
        return None
    pattern = read_pattern(case.baselines, known, case.handicap)
    read = list(read_traces(case, pattern, known))
    retested = [r for i, r in read if counts_as_retest(case, i)]
    return lay_over([r for i, r in read if counts(case, i)], retested, known.numbers)


@router.get("/targets", summary="A target for every ball", responses=responses(422))
def read_targets(
    known: Known,
    seed: Annotated[str, Query(min_length=1, max_length=80, description="The block's id")],
    balls: Annotated[int, Query(ge=1, le=200)] = 20,
) -> list[TargetOut]:
    """The same ones for the same seed, whether the block has arrived already or not."""
    targets = targets_for(seed, balls, known.numbers.coaching.transfer)
    return [TargetOut.model_validate(t) for t in targets]


def _predicted(session: Store, content: LessonContent) -> dict[str, float]:
    """How far each number moves without the cause, as the last decision said.

    Before a decision, as that of the lesson said which this one takes up. The carry as a part of
    itself.
    """
    decisions = content.decisions
    if not decisions and content.lesson.reopens is not None:
        before = earlier.decided_before(session, content.lesson)
        decisions = [b.decision for b in before if b.lesson.id == content.lesson.reopens]
    return moves_of(decisions[-1].prediction if decisions else None)


def _compared(measure: Compared) -> ComparedOut:
    series = measure.series
    return ComparedOut(
        name=measure.name,
        word=series.measure.name,
        share=series.is_share,
        before=series.before,
        after=series.after,
        first=measure.first.before if measure.first else (),
        change=None if measure.moved is None else MovedMeasureOut.model_validate(measure.moved),
        predicted=measure.predicted,
        sure=measure.sure,
        about=series.by_word,
        shown_before=series.shown_before if series.before else None,
        shown_after=series.shown_after if series.after else None,
    )


@router.get("/lessons/{lesson_id}/clock", summary="Time by stage", responses=ERRORS)
def read_clock(session: Store, known: Known, lesson_id: RowId) -> ClockOut:
    """Minutes planned and seconds used."""
    content = content_of(session, lesson_id)
    plan = known.numbers.coaching.lesson
    minutes = content.lesson.listen.minutes
    return ClockOut(
        used_s=content.used_s,
        planned_min={s: round(m * minutes / plan.minutes) for s, m in plan.shares.items()},
        minutes=minutes,
        keep_for_retest=plan.keep_for_retest,
    )


@router.post("/lessons/{lesson_id}/clock", summary="Time has gone by", responses=ERRORS)
def add_time(session: Writing, known: Known, lesson_id: RowId, sent: ClockIn) -> ClockOut:
    """Seconds spent in a stage; it cannot be undone."""
    coaching.add_time(session, lesson_id, sent.stage, sent.seconds, sent.now_in)
    return read_clock(session, known, lesson_id)
