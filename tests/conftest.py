import gc
import shutil
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from fastapi import FastAPI
from fastapi.testclient import TestClient
from hypothesis import HealthCheck, settings
from sqlalchemy import Engine
from sqlmodel import Session

from firm_footing.api.app import begin_with, create_app
from firm_footing.core.knowledge import Knowledge
from firm_footing.files.knowledge_files import load_knowledge
from firm_footing.store.database import close_database, open_database

settings.register_profile(
    "steady", deadline=None, derandomize=True, suppress_health_check=[HealthCheck.too_slow]
)
settings.load_profile("steady")


@pytest.fixture(scope="session")
def knowledge() -> Knowledge:
    return load_knowledge()


@pytest.fixture(scope="session")
def empty_database(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """Migrated once; every test gets a copy."""
    path = tmp_path_factory.mktemp("database") / "empty.db"
    close_database(open_database(path))
    return path


@pytest.fixture
def engine(empty_database: Path, tmp_path: Path) -> Iterator[Engine]:
    path = tmp_path / "own.db"
    shutil.copy(empty_database, path)
    engine = open_database(path)
    yield engine
    engine.dispose()


@pytest.fixture(scope="session")
def app(knowledge: Knowledge, empty_database: Path) -> FastAPI:
    """Its routes are put together once, which takes longer than most tests do."""
    made = create_app(open_database(empty_database), knowledge, screens=None)
    gc.freeze()  # as the server does: what stays is not looked through again and again
    return made


@pytest.fixture
def client(app: FastAPI, engine: Engine) -> Iterator[TestClient]:
    """The API on an empty database."""
    begin_with(app, engine)
    with TestClient(app) as client:
        yield client


@pytest.fixture
def session(engine: Engine) -> Iterator[Session]:
    with Session(engine, expire_on_commit=False) as session:
        yield session


@pytest.fixture
def lesson(client: TestClient) -> dict[str, Any]:
    """A new lesson of a right-handed student, as the API shows it."""
    student = client.post("/api/students", json={"name": "Oda", "handedness": "right"}).json()
    return client.post(f"/api/students/{student['id']}/lessons", json={}).json()  # type: ignore[no-any-return]
