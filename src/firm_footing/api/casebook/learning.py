"""Was it right, what pays, and what was learned?"""

from collections.abc import Callable, Container
from datetime import UTC, datetime
from typing import Final

from fastapi import APIRouter, Request, Response

from firm_footing.api.casebook.learner import Learner
from firm_footing.api.casebook.schemas import (
    BandOut,
    ConfirmedOut,
    DrillPays,
    LearnedChange,
    LearnedOut,
    LookPays,
    MovedCause,
    PartOut,
    PaysOut,
    RightOut,
)
from firm_footing.api.context import Known, Store, WritingByContent
from firm_footing.api.errors import responses
from firm_footing.api.security.intake import ParsedOnceRoute
from firm_footing.api.sheets.attachments import attached_as
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.learning.learned import Learned
from firm_footing.core.learning.reliability import reliability
from firm_footing.core.patterns.shares import share_of
from firm_footing.core.text.learned import moved_visibly, what_moved
from firm_footing.store.casebook import DecidedCase, decided_cases
from firm_footing.store.errors import refused
from firm_footing.store.learning import choose, learning_choice
from firm_footing.store.pays import ToldByLook, minutes_of_stages, proposed_looks, told_by_look

router = APIRouter(route_class=ParsedOnceRoute, tags=["casebook"])
MOST: Final = 12
"""Rows of a list, the first of their order."""


@router.get("/casebook/right", summary="How often the decisions came true")
def read_right(session: Store, known: Known) -> RightOut:
    """Of all decisions whose fate is known."""
    told = [c for c in decided_cases(session, known) if c.outcome is not None]
    said = [(c.said, c.came_true) for c in told if c.said is not None]
    return RightOut(
        bands=[BandOut.model_validate(band) for band in reliability(said)],
        by_miss=_parts(told, lambda c: [c.shape or "not seen"]),
        by_club=_parts(told, lambda c: [c.club] if c.club else []),
        by_source=_parts(told, lambda c: list(c.outcome.known_by) if c.outcome else []),
    )


@router.get("/casebook/pays", summary="What the time of the lessons brought")
def read_pays(session: Store, known: Known) -> PaysOut:
    """Of the lessons that are over; drills by what became of the decision."""
    cases = decided_cases(session, known)
    told = [c for c in cases if c.outcome is not None and c.drill in known.drill]
    looks = [_pays(t, known) for t in told_by_look(session, known)]
    taken = {look.check for look in looks}
    never = [_pays(t, known) for t in proposed_looks(session, known) if t.check not in taken]
    for some in (looks, never):
        some.sort(key=lambda look: -look.bits / look.seconds)
    return PaysOut(
        lessons=len(cases),
        looks=looks[:MOST],
        never=never[:MOST],
        drills=[
            DrillPays(drill=part.word, lessons=part.share.of, share=part.share)
            for part in _parts(told, lambda c: [c.drill] if c.drill else [])
        ],
        minutes=minutes_of_stages(session),
    )


def _pays(told: ToldByLook, known: Knowledge) -> LookPays:
    seconds = known.check[told.check].seconds
    return LookPays(check=told.check, lessons=told.lessons, bits=told.bits, seconds=seconds)


def _parts(cases: list[DecidedCase], words: Callable[[DecidedCase], list[str]]) -> list[PartOut]:
    """Decisions by a word, those with the most first."""
    found: dict[str, list[bool]] = {}
    for case in cases:
        for word in words(case):
            found.setdefault(word, []).append(case.came_true)
    in_order = sorted(found.items(), key=lambda part: (-len(part[1]), part[0]))
    return [
        PartOut(word=word, share=ConfirmedOut.model_validate(share_of(sum(came), len(came))))
        for word, came in in_order[:MOST]
    ]


@router.get("/casebook/learned", summary="What the lessons taught")
def read_learned(request: Request, session: Store, known: Known) -> LearnedOut:
    """How common each cause is here, as far as that is another than the files say."""
    learner: Learner = request.app.state.learner
    learned, made_at = learner.in_use.learned, learner.in_use.made_at
    chosen = learning_choice(session)
    out = LearnedOut(
        use=chosen.use,
        since=chosen.since,
        waiting=learner.waiting,
        made_at=made_at,
        least=known.casebook.least_outcomes,
    )
    return out if learned is None else out.model_copy(update=_taught(learned, chosen.held, known))


def _taught(learned: Learned, held: Container[str], known: Knowledge) -> dict[str, object]:
    return {
        "outcomes": learned.outcomes,
        "students": round(learned.everything.lessons),
        "said": list(what_moved(learned, known)),
        "moved": [
            MovedCause(
                cause=cause,
                shipped=found.shipped,
                here=found.here,
                expected=learned.everything.expected.get(cause, 0.0),
                held=cause in held,
            )
            for cause, found in moved_visibly(learned)
        ],
        "decided": {c: d.decided for c, d in learned.decisions.items()},
    }


@router.put(
    "/casebook/learned", summary="Use it, hold it still, begin anew", responses=responses(409, 422)
)
def change_learned(
    request: Request, session: WritingByContent, known: Known, change: LearnedChange
) -> LearnedOut:
    """What was learned is made anew at once where decisions begin, or cease, to teach."""
    before = learning_choice(session)
    new: dict[str, object] = {}
    if change.use is not None:
        new["use"] = change.use
    if change.held is not None:
        if unknown := [c for c in change.held if c not in known.cause]:
            raise refused(f"No cause is called '{unknown[0]}'.", "held", "Nothing was changed.")
        new["held"] = tuple(dict.fromkeys(change.held))
    if change.anew is not None:
        new["since"] = datetime.now(UTC) if change.anew else None
    choose(session, before.model_copy(update=new))
    learner: Learner = request.app.state.learner
    if change.anew is not None:
        learner.catch_up()
    learner.look_again()
    return read_learned(request, session, known)


@router.get(
    "/casebook/learned.json",
    summary="What the lessons taught, for `firm-footing rank --learned`",
    response_class=Response,
    responses=responses(409),
)
def export_learned(request: Request) -> Response:
    """Without names, notes and dates."""
    learner: Learner = request.app.state.learner
    learned = learner.in_use.learned
    if learned is None:
        raise refused("No lesson has taught anything yet.", "learned", "Nothing is lost.")
    headers = attached_as("learned", datetime.now(UTC).date(), ".json")
    text = learned.model_dump_json(indent=1) + "\n"
    return Response(text, media_type="application/json", headers=headers)
