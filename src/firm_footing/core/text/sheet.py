"""What does the student take home? One cause, one rehearsal, one ball drill, one thought."""

from collections.abc import Collection, Sequence
from dataclasses import dataclass

from firm_footing.core.coaching.cautions import (
    cautions_for,
    general_cautions,
    leave_out,
    without_a_drill,
)
from firm_footing.core.coaching.practice import PracticeDay, near_event, plan_practice
from firm_footing.core.knowledge import Drill, Knowledge
from firm_footing.core.knowledge.vocabulary import Limit
from firm_footing.core.patterns import Pattern
from firm_footing.core.text.missed import missed_words

NOTHING_NEW = "Nothing new before the event: aim, ball place and stance, then play."
STRIKE_NAMED_MM, LOST_NAMED_PCT, LOW_NAMED_CM = 6.0, 4.0, -1.0
"""From here on a strike, a loss, a low point is part of the miss."""


@dataclass(frozen=True)
class Sheet:
    """One page.

    miss, cause, thought : in plain words; `thought` may be empty
    rescue : for one ball, when the miss comes back on the course; may be empty
    cause_id : of the cause decided on
    cue : the one kept
    corrections : what puts the beliefs right that were corrected in the lesson
    rehearsal, ball_drill : ids of drills, None where none serves or none was tried
    without_a_drill : what to rehearse instead where none serves, else ''
    home_work : for what is stiff
    days : until the check-in
    cautions : always printed
    """

    cause_id: str
    miss: str
    cause: str
    cue: str
    corrections: tuple[str, ...]
    rehearsal: str | None
    ball_drill: str | None
    without_a_drill: str
    home_work: tuple[str, ...]
    thought: str
    rescue: str
    days: tuple[PracticeDay, ...]
    cautions: tuple[str, ...]


def sheet_of(
    cause_id: str,
    pattern: Pattern,
    drills: Sequence[str],
    cue: str,
    event_in: int | None,
    minor: bool,
    knowledge: Knowledge,
    others_serve: bool = False,
    corrected: Sequence[str] = (),
    misses: Sequence[str] = (),
    minutes: int | None = None,
    limits: Collection[Limit] = (),
) -> Sheet:
    """The page as it is proposed; every word of it may be changed.

    Parameters
    ----------
    drills : ids of those to take home: they serve, and were tried in the lesson or chosen for home
    others_serve : whether some serve that nobody tried
    event_in : days until the next event, None without one
    minor : whether a guardian has to agree
    corrected : ids of beliefs that were put right in the lesson
    misses : ids of those the student told, the usual one first
    minutes : of practice on a day; None: as usual
    limits : of the student's body

    """
    serving = [knowledge.drill[d] for d in drills]
    first = serving[0] if serving else None
    rehearsal = next((d for d in serving if d.ball != "all"), first)  # every drill begins dry
    with_ball = [d for d in serving if d.ball != "none"]
    ball = next((d for d in with_ball if d is not rehearsal), with_ball[0] if with_ball else None)
    numbers = knowledge.numbers.coaching.practice
    cause = knowledge.cause[cause_id]
    near = near_event(event_in, numbers)
    return Sheet(
        cause_id=cause_id,
        miss=miss_words(pattern),
        cause=cause.you,
        cue=cue,
        corrections=tuple(
            c.correction for c in knowledge.checks if c.id in corrected and c.correction
        ),
        rehearsal=rehearsal.id if rehearsal else None,
        ball_drill=ball.id if ball else None,
        without_a_drill="" if others_serve else without_a_drill(serving, knowledge),
        home_work=tuple(
            limit.home_work
            for limit in knowledge.cautions.limits
            if limit.home_work and limit.id in limits
        ),
        thought=_thought(cause_id, cue, serving, near, knowledge),
        rescue="" if near else rescue_for(cause_id, misses, knowledge),
        days=plan_practice(event_in, ball is not None, numbers, minutes),
        cautions=_cautions([rehearsal, ball], minor, knowledge),
    )


def _thought(
    cause_id: str, cue: str, serving: Sequence[Drill], near: bool, knowledge: Knowledge
) -> str:
    """At most one, finished at set-up where there is such a one; near an event nothing else."""
    at_setup = knowledge.cues.causes[cause_id].say
    if knowledge.cause[cause_id].group == "setup" and at_setup:
        return at_setup
    may_go = [d.on_course for d in serving if d.on_course is not None]
    chosen = next((c for c in may_go if c.at_setup), None)
    if near:
        return chosen.say if chosen else NOTHING_NEW
    chosen = chosen or next(iter(may_go), None)
    return chosen.say if chosen else cue


def rescue_for(cause: str, misses: Sequence[str], knowledge: Knowledge) -> str:
    """Of the first miss that was told and is still known, one that does not feed the cause.

    One that was made for the cause before all others; '' where no miss was told.
    """
    known = {m.id: m.rescues for m in knowledge.misses}
    forbidden = set(knowledge.cues.causes[cause].forbids)
    offered = next((known[miss] for miss in misses if miss in known), ())
    fits = [r for r in offered if not forbidden & set(r.does)]
    own = [r for r in fits if cause in r.causes]
    general = [r for r in fits if not r.causes]
    return next((r.say for r in (*own, *general, *fits)), "")


def _cautions(drills: Sequence[Drill | None], minor: bool, knowledge: Knowledge) -> tuple[str, ...]:
    limited = [leave_out(d, knowledge) for d in drills if d is not None and d.limits]
    own = [
        said
        for d in drills
        if d is not None
        for said in cautions_for(d, knowledge, to_student=True)
    ]
    general = general_cautions(minor, knowledge, to_student=True)
    return tuple(dict.fromkeys([*limited, *own, *general]))


def miss_words(pattern: Pattern) -> str:
    """The pattern as a student would say it: "pull-slice, struck toward the heel, 11 % short"."""
    said = [] if pattern.shape is None else [pattern.shape.replace("-", " and ")]
    strike, low, lost = pattern.heel_toe_mm, pattern.low_point_cm, pattern.carry_lost_pct
    if strike and not pattern.strike_in_words and abs(strike.value) >= STRIKE_NAMED_MM:
        said.append(f"struck toward the {'heel' if strike.value < 0 else 'toe'}")
    missed = missed_words(pattern)
    if missed:
        said.extend(missed)
    elif low is not None and low.value <= LOW_NAMED_CM:
        said.append("the ground before the ball")
    if lost is not None and lost.value >= LOST_NAMED_PCT:
        said.append(f"{lost.value:.0f} % short")
    return ", ".join(said)
