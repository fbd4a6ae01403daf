"""The API does what its description says, for input nobody thought of."""

import tempfile
from pathlib import Path
from uuid import uuid4

import pytest
import schemathesis
from fastapi import FastAPI
from hypothesis import HealthCheck, settings
from schemathesis.specs.openapi.checks import allow_header_conformance

from firm_footing.api.app import create_app
from firm_footing.files.knowledge_files import load_knowledge
from firm_footing.store.database import open_database
from tests import sizes

FOLDER = tempfile.TemporaryDirectory()


def application() -> FastAPI:
    engine = open_database(Path(FOLDER.name) / "a.db")
    return create_app(engine, load_knowledge(), screens=None)


EXCLUDED = [
    allow_header_conformance,  # the framework answers 405 route by route, not address by address
]
APP = application()
schema = schemathesis.openapi.from_asgi("/api/openapi.json", APP)


@schema.parametrize()
@settings(max_examples=sizes.of(3, 12), deadline=None, suppress_health_check=list(HealthCheck))
def test_every_route_keeps_its_promise(case: schemathesis.Case) -> None:
    if "Idempotency-Key" in (case.headers or {}):
        case.headers["Idempotency-Key"] = str(
            uuid4()
        )  # one sent again is answered as the first time
    case.call_and_validate(excluded_checks=EXCLUDED)


@pytest.mark.parametrize("path", sorted(APP.openapi()["paths"]))
def test_every_route_is_described(path: str) -> None:
    for method, operation in APP.openapi()["paths"][path].items():
        assert operation["summary"], (method, path)
        assert operation["tags"], (method, path)
        if "{" in path:
            shapes = {c: r for c, r in operation["responses"].items() if c.startswith("4")}
            assert "404" in shapes
            for response in shapes.values():
                content = response["content"]["application/json"]["schema"]
                assert content["$ref"].endswith("/ErrorShape")
