"""How many statements does the database get for a ball and the ranking that follows?"""

from fastapi.testclient import TestClient
from sqlalchemy import Engine, event

from tests.api.asking import Json


def test_a_ball_with_its_ranking_takes_at_most_twelve_statements(
    client: TestClient, engine: Engine, lesson: Json
) -> None:
    said: list[str] = []
    event.listen(engine, "before_cursor_execute", lambda *told: said.append(told[2]))
    ball = {"block_id": lesson["blocks"][0]["id"], "observed": {"start": "pull"}}
    for i in range(2):
        said.clear()
        client.post(
            f"/api/lessons/{lesson['id']}/changes?diagnosis=true",
            json={"kind": "shot", "id": f"b{i}", "body": ball},
            headers={"Idempotency-Key": f"w{i}", "page-id": "p"},
        ).raise_for_status()
        assert len([s for s in said if not s.startswith("BEGIN")]) <= 12, said
