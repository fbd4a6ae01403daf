"""A lesson with a baseline of eight balls."""

import pytest
from fastapi.testclient import TestClient

from tests.api.asking import Json, hit


@pytest.fixture
def baseline(client: TestClient, lesson: Json) -> Json:
    hit(client, lesson, lesson["blocks"][0]["id"], [-5.0, -4, -6, -3, -5, -7, -4, -5])
    return lesson
