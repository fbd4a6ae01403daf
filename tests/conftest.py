from collections.abc import Iterator
from typing import Any

import pytest
from fastapi.testclient import TestClient
from hypothesis import HealthCheck, settings
from sqlmodel import Session

from firm_footing.api.app import create_app
from firm_footing.core.knowledge import Knowledge
from firm_footing.files.knowledge_files import load_knowledge
from firm_footing.store.database import open_database

settings.register_profile(
    "steady", deadline=None, derandomize=True, suppress_health_check=[HealthCheck.too_slow]
)
settings.load_profile("steady")


@pytest.fixture(scope="session")
def knowledge() -> Knowledge:
    return load_knowledge()


@pytest.fixture
def client(knowledge: Knowledge) -> Iterator[TestClient]:
    """The API on an empty database in memory."""
    engine = open_database()
    with TestClient(create_app(engine, knowledge, screens=None)) as client:
        yield client
    engine.dispose()


@pytest.fixture
def session() -> Iterator[Session]:
    engine = open_database()
    with Session(engine, expire_on_commit=False) as session:
        yield session
    engine.dispose()


@pytest.fixture
def lesson(client: TestClient) -> dict[str, Any]:
    """A new lesson of a right-handed student, as the API shows it."""
    student = client.post("/api/students", json={"name": "Oda", "handedness": "right"}).json()
    return client.post(f"/api/students/{student['id']}/lessons", json={}).json()  # type: ignore[no-any-return]
