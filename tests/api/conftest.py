"""A lesson with a baseline of eight balls; a machine and a tablet beside it."""

from collections.abc import Iterator

import pytest
from fastapi.testclient import TestClient
from sqlalchemy import Engine

from firm_footing.api.app import create_app
from firm_footing.api.security.guard import LOOPBACK_NAMES
from firm_footing.core.knowledge import Knowledge
from tests.api.asking import ADDRESS, Json, hit


@pytest.fixture
def baseline(client: TestClient, lesson: Json) -> Json:
    hit(client, lesson, lesson["blocks"][0]["id"], [-5.0, -4, -6, -3, -5, -7, -4, -5])
    return lesson


@pytest.fixture
def pair(knowledge: Knowledge, engine: Engine) -> Iterator[tuple[TestClient, TestClient]]:
    """The machine itself, and a tablet on the same network."""
    names = (*LOOPBACK_NAMES, "192.168.1.5")
    app = create_app(engine, knowledge, screens=None, names=names, address=ADDRESS)
    with (
        TestClient(app) as machine,
        TestClient(app, base_url=ADDRESS, client=("192.168.1.77", 5000)) as tablet,
    ):
        yield machine, tablet
