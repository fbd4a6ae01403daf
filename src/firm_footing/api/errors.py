"""How is an error told? In one JSON shape, made in one place."""

import re
from typing import Any

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from pydantic import BaseModel, Field
from sqlalchemy.exc import IntegrityError, OperationalError
from starlette.exceptions import HTTPException

from firm_footing.files.case_files import BadCaseError, first_problem
from firm_footing.store.errors import ConflictError, NotFoundError, StoreError

NOTHING_KEPT = "Nothing was changed."
IN_A_CHANGE = re.compile(r"^body\.[a-z-]+\.(body\.)?")
"""Where a change's kind stands in a place: the page knows what it sent."""


class ErrorShape(BaseModel):
    """Every error has this shape."""

    code: str = Field(examples=["not_found"])
    message: str = Field(examples=["This lesson is not there any more."])
    hint: str = Field(examples=["Go back to the day page and open it from there."])
    where: str = Field(examples=["lesson_id"])
    theirs: Any = Field(None, description="Of a conflict: what is kept")
    mine: Any = Field(None, description="Of a conflict: what was sent")


def responses(*codes: int) -> dict[int | str, dict[str, Any]]:
    """The error answers of a route, for OpenAPI."""
    words = {400: "Not readable", 404: "Not found", 409: "Refused", 422: "Bad input"}
    words |= {401: "Not paired", 503: "Out of reach for now"}
    return {code: {"model": ErrorShape, "description": words[code]} for code in (400, 503, *codes)}


def responses_of_stream(*codes: int) -> dict[int | str, dict[str, Any]]:
    """The same of a route that streams: its errors are JSON, what it streams is not."""
    shape = {"application/json": {"schema": {"$ref": "#/components/schemas/ErrorShape"}}}
    said = responses(*codes)
    return {c: {"description": one["description"], "content": shape} for c, one in said.items()}


def add_handlers(app: FastAPI) -> None:
    """Turn every error into the one shape."""

    @app.exception_handler(StoreError)
    async def of_store(_request: Request, error: StoreError) -> JSONResponse:
        status = 404 if isinstance(error, NotFoundError) else 409
        if isinstance(error, ConflictError):
            return JSONResponse(ErrorShape(**vars(error)).model_dump(), status_code=status)
        return answer(status, error.code, error.message, error.hint, error.where)

    @app.exception_handler(BadCaseError)
    async def of_case(_request: Request, error: BadCaseError) -> JSONResponse:
        return _problem(409, "refused", error)

    @app.exception_handler(RequestValidationError)
    async def of_input(request: Request, error: RequestValidationError) -> JSONResponse:
        first = first_problem(error.errors())
        if request.url.path.endswith("/changes"):
            first = BadCaseError(IN_A_CHANGE.sub("", first.place), first.problem, first.remedy)
        return _problem(422, "bad_input", first)

    @app.exception_handler(HTTPException)
    async def of_http(_request: Request, error: HTTPException) -> JSONResponse:
        hint = "The address or the way it was called is not known; see /api/openapi.json."
        told = answer(error.status_code, "http", f"{error.detail}.", hint, "url")
        told.headers.update(error.headers or {})
        return told

    @app.exception_handler(OperationalError)
    async def of_database(_request: Request, error: OperationalError) -> JSONResponse:
        said = str(error.orig)
        busy = "The database is busy." if "locked" in said else "The database failed at this."
        what = "The disk is full." if "full" in said else busy
        return answer(503, "busy", what, f"{NOTHING_KEPT} It is worth trying again.", "database")

    @app.exception_handler(IntegrityError)
    async def of_rows(_request: Request, _error: IntegrityError) -> JSONResponse:
        said = "An id in this is taken by something else, or what it belongs to is gone."
        return answer(409, "refused", said, f"{NOTHING_KEPT} Send it under a new id.", "id")


def _problem(status: int, code: str, problem: BadCaseError) -> JSONResponse:
    place = problem.place.removeprefix("body.")
    hint = f"Nothing was changed. To mend it: {problem.remedy}."
    return answer(status, code, f"{place}: {problem.problem}.", hint, place)


def answer(status: int, code: str, message: str, hint: str, where: str) -> JSONResponse:
    """An error in the one shape."""
    shape = ErrorShape(code=code, message=message, hint=hint, where=where)
    return JSONResponse(shape.model_dump(exclude={"theirs", "mine"}), status_code=status)
