"""What is drilled, how is it said, and did it help?"""

from typing import Annotated, NamedTuple

from fastapi import APIRouter, Query

from firm_footing.api.coaching_shapes import (
    CardOut,
    ChangeOut,
    ClockIn,
    ClockOut,
    CoachingOut,
    ComparedOut,
    LadderOut,
    RepetitionIn,
    RetestOut,
    SetupChangeOut,
    TargetOut,
    VerdictOnRetest,
)
from firm_footing.api.conclusion_views import why_withheld
from firm_footing.api.context import Known, RowId, Store, Writing
from firm_footing.api.errors import responses
from firm_footing.api.event_days import event_in
from firm_footing.api.outcome import ChangedLesson, Outcome
from firm_footing.api.trace_views import compared_view
from firm_footing.core.case import Case
from firm_footing.core.coaching.before_after import Compared, Comparison, compare
from firm_footing.core.coaching.cards import Card, cards_for
from firm_footing.core.coaching.cautions import general_cautions, without_a_drill
from firm_footing.core.coaching.cues import cues_for
from firm_footing.core.coaching.drills import situation_of
from firm_footing.core.coaching.ladder import climb
from firm_footing.core.coaching.next_in_line import next_in_line
from firm_footing.core.coaching.practice import near_event
from firm_footing.core.coaching.setup_gate import setup_changes
from firm_footing.core.coaching.trace_over_trace import TracesCompared, lay_over
from firm_footing.core.coaching.transfer import targets_for
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.cues import Leg
from firm_footing.core.knowledge.vocabulary import Limit
from firm_footing.core.pattern import read_pattern
from firm_footing.core.reasoning import Diagnosis, diagnose
from firm_footing.core.reasoning.traces import counts, counts_as_retest, read_traces
from firm_footing.store import coaching, lessons
from firm_footing.store.cases import case_of
from firm_footing.store.errors import refused
from firm_footing.store.lessons import LessonContent

router = APIRouter(tags=["coaching"])
ERRORS = responses(404, 409, 422)


@router.get("/lessons/{lesson_id}/coaching", summary="Drills, ladder, cues", responses=ERRORS)
def read_coaching(session: Store, known: Known, lesson_id: RowId) -> CoachingOut:
    """For the cause decided on last; before a decision, for the one to start with."""
    content = lessons.content_of(session, lesson_id)
    case = case_of(content)
    found = diagnose(case, known, content.lesson.at_hand)
    decided = content.decisions[-1].cause if content.decisions else None
    cause = decided or found.causes[0].id
    lesson = content.lesson
    done = [r.result for r in content.repetitions if r.drill == lesson.drill]
    ladder = None
    drill = None if lesson.drill is None else known.drill.get(lesson.drill)  # it may be gone since
    if drill is not None:
        climbed = climb(done, drill, known.numbers.coaching.ladder)
        ladder = LadderOut.model_validate(climbed)
    cards = cards_of(cause, case, found, place_of(content), known)
    return CoachingOut(
        cause=cause,
        decided=decided is not None,
        cards=[_card(c, known) for c in cards],
        without_a_drill=without_a_drill([c for c in cards if c.withheld is None], known),
        ladder=ladder,
        cues=list(cues_for(cause, lesson.cue.felt, case.dominant_leg, known, case.school)),
        next_in_line=next_in_line(cause, {c.id: c.probability for c in found.causes}, known),
        cautions=list(general_cautions(content.student.age_group == "junior", known)),
        setup_changes=[SetupChangeOut.model_validate(s) for s in setup_changes(case, known)],
    )


class Place(NamedTuple):
    """Equipment that is not here, and of a limit the one leg it is on."""

    lacking: tuple[str, ...]
    sides: dict[Limit, Leg]


def place_of(content: LessonContent) -> Place:
    """Of a lesson."""
    student = content.student
    sides: dict[Limit, Leg] = {}
    for limit, detail in student.limit_details.items():
        if detail.side in ("left", "right"):
            sides[limit] = "trail" if detail.side == student.handedness else "lead"
    return Place(content.lesson.lacking, sides)


def cards_of(
    cause: str, case: Case, found: Diagnosis, place: Place, known: Knowledge
) -> tuple[Card, ...]:
    """Drills for a cause, given all that was concluded, what is not here, and which leg is hurt."""
    present = {c.id: c.probability for c in found.causes}
    path = found.pattern.path_deg.value if found.pattern.path_deg else None
    return cards_for(cause, known, situation_of(case, present, path, *place))


def _card(card: Card, known: Knowledge) -> CardOut:
    return CardOut(
        drill=card.drill,
        pros=list(card.pros),
        cons=list(card.cons),
        cautions=list(card.cautions),
        withheld=None if card.withheld is None else why_withheld(card.withheld, known),
        instead=card.instead,
    )


@router.put(
    "/lessons/{lesson_id}/repetitions/{repetition_id}", summary="Tap a repetition", responses=ERRORS
)
def put_repetition(
    session: Writing,
    known: Known,
    outcome: Outcome,
    lesson_id: RowId,
    repetition_id: RowId,
    sent: RepetitionIn,
) -> ChangedLesson:
    """The client makes the id, so a repeated request counts it once."""
    if sent.drill not in known.drill:
        raise refused(f"No drill is called '{sent.drill}'.", "drill", "Nothing was changed.")
    coaching.put_repetition(session, lesson_id, repetition_id, sent.drill, sent.result, sent.real)
    return outcome(lesson_id)


@router.get("/lessons/{lesson_id}/retest", summary="Before and after", responses=ERRORS)
def read_retest(session: Store, known: Known, lesson_id: RowId) -> RetestOut | None:
    """The newest retest beside the baseline of the same club; null without a baseline."""
    content = lessons.content_of(session, lesson_id)
    case = case_of(content)
    found = retest_of(content, case, known)
    if found is None:
        return None
    return RetestOut(
        club=found.club,
        measures=[_compared(m) for m in found.measures],
        primary=found.primary,
        fixed=found.fixed,
        verdict=None if found.verdict is None else VerdictOnRetest.model_validate(found.verdict),
        level=known.numbers.coaching.retest.level,
        partial=[m.name for m in found.measures if m.sure and m.as_predicted],
        still=[m.name for m in found.measures if m.should_move and not m.sure],
        traces=compared_view(traces_compared(case, known)),
        setup_only=near_event(event_in(content.lesson), known.numbers.coaching.practice),
    )


def retest_of(content: LessonContent, case: Case, known: Knowledge) -> Comparison | None:
    """The newest retest beside its baseline, balls with targets of their own left out."""
    elsewhere = {i for i, block in enumerate(content.blocks) if block.own_targets}
    return compare(case, content.lesson.primary, _predicted(content), known, elsewhere)


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


def _predicted(content: LessonContent) -> dict[str, float]:
    """What the last decision said the pattern would be without its cause."""
    said = content.decisions[-1].prediction if content.decisions else None
    without = (said or {}).get("without") or {}
    return {name: each["value"] for name, each in without.items() if each is not None}


def _compared(measure: Compared) -> ComparedOut:
    change = measure.change
    return ComparedOut(
        name=measure.name,
        before=measure.before,
        after=measure.after,
        change=None if change is None else ChangeOut.model_validate(change),
        predicted=measure.predicted,
        sure=measure.sure,
    )


@router.get("/lessons/{lesson_id}/clock", summary="Time by stage", responses=ERRORS)
def read_clock(session: Store, known: Known, lesson_id: RowId) -> ClockOut:
    """Minutes planned and seconds used."""
    content = lessons.content_of(session, lesson_id)
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
