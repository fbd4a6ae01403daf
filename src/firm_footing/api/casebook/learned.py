"""What was learned, and what is done with it?"""

from collections.abc import Container
from datetime import UTC, datetime
from typing import Annotated

from fastapi import APIRouter, Body, Query, Request, Response
from sqlmodel import Session

from firm_footing.api.casebook.learner import Learner
from firm_footing.api.casebook.schemas import (
    ColleagueOut,
    LearnedChange,
    LearnedOut,
    MovedCause,
    MovedLook,
)
from firm_footing.api.changes.schemas import PersonName
from firm_footing.api.context import Known, RowId, Store, WritingByContent
from firm_footing.api.errors import responses
from firm_footing.api.security.intake import ParsedOnceRoute
from firm_footing.api.sheets.attachments import attached_as
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.learning.eye import EVERY_LOOK
from firm_footing.core.learning.learned import Learned, unknown_in
from firm_footing.core.text.learned import looks_moved, moved_visibly, what_moved
from firm_footing.store.colleagues import add_colleague, colleagues_of, put_away_colleague
from firm_footing.store.errors import refused
from firm_footing.store.learning import choose, learning_choice
from firm_footing.store.own_tables import ColleagueCasebook

router = APIRouter(route_class=ParsedOnceRoute, tags=["casebook"])


@router.get("/casebook/learned", summary="What the lessons taught")
def read_learned(request: Request, session: Store, known: Known) -> LearnedOut:
    """How common causes are here and how this eye is, where that is another than the files say."""
    learner: Learner = request.app.state.learner
    learned, made_at = learner.in_use.learned, learner.in_use.made_at
    chosen = learning_choice(session)
    out = LearnedOut(
        use=chosen.use,
        pooled=chosen.pooled,
        colleagues=[_colleague(c, known) for c in colleagues_of(session)],
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
        "looks": [
            MovedLook.model_validate(found).model_copy(update={"held": found.look in held})
            for found in looks_moved(learned, known)
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
        there = {*known.cause, *known.check, EVERY_LOOK}
        if unknown := [c for c in change.held if c not in there]:
            said = f"No cause and no look is called '{unknown[0]}'."
            raise refused(said, "held", "Nothing was changed.")
        new["held"] = tuple(dict.fromkeys(change.held))
    if change.pooled is not None:
        new["pooled"] = change.pooled
    if change.anew is not None:
        new["since"] = datetime.now(UTC) if change.anew else None
    choose(session, before.model_copy(update=new))
    if change.anew is None and change.pooled is None:
        request.app.state.learner.look_again()
        return read_learned(request, session, known)
    return _made_anew(request, session, known)


def _made_anew(request: Request, session: Session, known: Knowledge) -> LearnedOut:
    """What was learned as it is after a choice: made anew where that is of other things now."""
    learner: Learner = request.app.state.learner
    learner.catch_up()
    learner.look_again()
    return read_learned(request, session, known)


@router.post(
    "/casebook/colleagues",
    summary="Add what a colleague's lessons taught",
    responses=responses(409, 422),
)
def add(
    request: Request,
    session: WritingByContent,
    known: Known,
    learned: Annotated[Learned, Body()],
    name: Annotated[PersonName, Query(description="What it is called here")] = "A colleague",
) -> LearnedOut:
    """What `learn` or a casebook saved; the same file is added once."""
    add_colleague(session, name, learned, known)
    return _made_anew(request, session, known)


@router.delete(
    "/casebook/colleagues/{colleague_id}",
    summary="Put a colleague's casebook away",
    responses=responses(404, 422),
)
def put_away(
    request: Request, session: WritingByContent, known: Known, colleague_id: RowId
) -> LearnedOut:
    """It teaches nothing any more."""
    put_away_colleague(session, colleague_id)
    return _made_anew(request, session, known)


def _colleague(found: ColleagueCasebook, known: Knowledge) -> ColleagueOut:
    return ColleagueOut(
        id=found.id,
        name=found.name,
        outcomes=found.learned.outcomes,
        students=round(found.learned.everything.lessons),
        known=unknown_in(found.learned, known) is None,
    )


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
