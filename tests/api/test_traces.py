"""Traces through the API: kept once, changed, undone, judged, and evidence at once."""

from typing import Any

import pytest
from fastapi.testclient import TestClient

from firm_footing.core.case import Trace
from tests.core.swings import SEEN, swing

Json = dict[str, Any]


def body(trace: Trace, **more: object) -> Json:
    kept = {"columns": trace.columns, "samples": trace.samples, "events": trace.events}
    return {"recorded": kept, **more}


def put(client: TestClient, lesson: Json, trace: Trace, name: str = "t1", **more: object) -> Any:
    return client.post(
        f"/api/lessons/{lesson['id']}/changes",
        json={"kind": "trace", "id": name, "body": body(trace, **more)},
    )


def traces(client: TestClient, lesson: Json) -> Json:
    return client.get(f"/api/lessons/{lesson['id']}/traces").raise_for_status().json()  # type: ignore[no-any-return]


def signs(read: Json) -> set[str]:
    return {s["id"] for s in read["signs"] if s["there"]}


def test_a_trace_is_kept_once_and_counts_at_once(client: TestClient, lesson: Json) -> None:
    for _ in range(2):
        seen = put(client, lesson, swing(changed=SEEN["retreat"])).raise_for_status().json()
    assert seen["traces"] == 1
    assert seen["undo"] == "trace 1"
    (kept,) = traces(client, lesson)["traces"]
    assert signs(kept["read"]) == {"retreat", "weak"}
    assert kept["counts"]
    told = client.get(f"/api/lessons/{lesson['id']}/diagnosis").json()["ranking"]
    backs_up = next(c for c in told["causes"] if c["id"] == "backs_up")
    assert backs_up["for"][0]["evidence"] == "trace:0"


def test_a_moved_event_takes_the_sign_away_and_undo_brings_it_back(
    client: TestClient, lesson: Json
) -> None:
    put(client, lesson, swing(changed=SEEN["retreat"]))
    moved = client.post(
        f"/api/lessons/{lesson['id']}/changes",
        json={
            "kind": "trace-change",
            "id": "t1",
            "body": {"events": {"address": -1.05, "top": -0.25, "impact": -0.05}},
        },
    )
    assert moved.status_code == 200
    (kept,) = traces(client, lesson)["traces"]
    assert signs(kept["read"]) == set()
    assert kept["read"]["events"]["impact"] == {"t_s": -0.05, "how": "given", "sd_s": 0.005}
    client.post(f"/api/lessons/{lesson['id']}/changes", json={"kind": "undo"})
    (kept,) = traces(client, lesson)["traces"]
    assert signs(kept["read"]) == {"retreat", "weak"}
    client.post(
        f"/api/lessons/{lesson['id']}/changes",
        json={"kind": "trace-change", "id": "t1", "body": {"events": {}}},
    )
    (kept,) = traces(client, lesson)["traces"]
    assert kept["named"] == []
    assert kept["read"]["events"]["top"]["how"] == "estimated"


@pytest.mark.parametrize(
    ("change", "says"),
    [
        ({"events": {"top": 0.2, "impact": 0.0}}, "must come after"),
        ({"events": {"top": -30}}, "lies outside"),
        ({"block_id": "nobody"}, "This block is not there any more"),
    ],
)
def test_a_wrong_change_is_refused_and_changes_nothing(
    client: TestClient, lesson: Json, change: Json, says: str
) -> None:
    put(client, lesson, swing())
    before = traces(client, lesson)
    refused = client.post(
        f"/api/lessons/{lesson['id']}/changes",
        json={"kind": "trace-change", "id": "t1", "body": change},
    )
    assert refused.status_code in (404, 409, 422)
    assert says in refused.json()["message"]
    assert traces(client, lesson) == before


def test_what_is_no_swing_is_refused(client: TestClient, lesson: Json) -> None:
    short = swing().model_copy(update={"samples": ((0.0, 50.0),)})
    assert "Only 1 samples" in put(client, lesson, short).json()["message"]
    uneven = swing().model_copy(update={"samples": ((0.0, 50.0), (0.1,))})
    assert "as many values" in put(client, lesson, uneven).json()["message"]
    assert traces(client, lesson) == {"traces": [], "together": None}


def test_feet_are_exchanged_only_when_asked(client: TestClient, lesson: Json) -> None:
    text = "\n".join(
        ["t,right_pct", *(f"{t:.3f},{lead:.2f}" for t, lead in swing(named=()).samples)]
    )
    url = f"/api/lessons/{lesson['id']}/traces"
    preview = client.post(f"{url}/preview", json={"text": text}).json()
    assert preview["maybe_swapped"]
    assert preview["count"] == len(swing().samples)
    kept_as = {"kind": "trace", "id": "t1", "body": {"recorded": preview["recorded"]}}
    client.post(f"/api/lessons/{lesson['id']}/changes", json=kept_as).raise_for_status()
    (kept,) = traces(client, lesson)["traces"]
    assert kept["read"]["maybe_swapped"]
    assert not kept["swapped"]
    swapped = {"kind": "trace-change", "id": "t1", "body": {"swapped": True}}
    client.post(f"/api/lessons/{lesson['id']}/changes", json=swapped)
    (kept,) = traces(client, lesson)["traces"]
    assert signs(kept["read"]) == set()
    assert not kept["read"]["maybe_swapped"]


def test_a_table_with_a_bad_row_is_previewed_and_nothing_is_kept(
    client: TestClient, lesson: Json
) -> None:
    lines = ["t;lead_pct", *(f"{t:.3f};{x:.1f}" for t, x in swing(named=()).samples)]
    lines[7] = "-1.5;slip"
    url = f"/api/lessons/{lesson['id']}/traces/preview"
    found = client.post(url, json={"text": "\n".join(lines)}).json()
    assert found["problem"] is None
    assert [(b["line"], b["cell"]) for b in found["bad"]] == [(8, "slip")]
    assert found["rate_hz"] == pytest.approx(200, abs=1)
    assert traces(client, lesson)["traces"] == []
    refused = client.post(url, json={"text": "nothing"}).json()
    assert refused["message"].startswith("No row of headings")
    assert "Nothing was changed" in refused["hint"]


def test_a_trace_with_a_drill_is_judged_by_it_and_only_compared(
    client: TestClient, lesson: Json
) -> None:
    url = f"/api/lessons/{lesson['id']}"
    client.post(
        f"{url}/changes",
        json={"kind": "block", "id": "b2", "body": {"kind": "trial", "drill": "stay_lead"}},
    )
    put(client, lesson, swing("stay_lead"), block_id="b2")
    (kept,) = traces(client, lesson)["traces"]
    assert kept["read"]["corridor_drill"] == "stay_lead"
    assert set(kept["read"]["measures"]["deviation_pct"].values()) == {0.0}
    assert not kept["counts"]
    causes = client.get(f"{url}/diagnosis").json()["ranking"]["causes"]
    assert not any(e["evidence"] == "trace:0" for c in causes for e in c["for"] + c["against"])


def test_where_a_feel_says_otherwise_it_is_shown(client: TestClient, lesson: Json) -> None:
    put(client, lesson, swing(changed=SEEN["retreat"]))
    url = f"/api/lessons/{lesson['id']}"
    answer = {"check_id": "lead_peak_then_retreat", "answer": "no", "source": "feel"}
    client.post(
        f"{url}/changes", json={"kind": "answer", "id": "a1", "body": answer}
    ).raise_for_status()
    (kept,) = traces(client, lesson)["traces"]
    said = {a["check_id"]: a for a in kept["read"]["answers"]}["lead_peak_then_retreat"]
    assert (said["answer"], said["otherwise"]) == ("yes", ["feel"])
    told = client.get(f"{url}/diagnosis").json()
    assert told["contradictions"] == ["lead_peak_then_retreat"]


def test_several_swings_and_the_odd_one(client: TestClient, lesson: Json) -> None:
    for seed in range(3):
        put(client, lesson, swing(noise=1, seed=seed), f"t{seed}")
    put(client, lesson, swing(changed=SEEN["reversed"]), "odd")
    found = traces(client, lesson)["together"]
    assert found["odd"] == "odd"
    assert len(found["t_s"]) == len(found["mean_pct"]) == len(found["sd_pct"])
    client.post(
        f"/api/lessons/{lesson['id']}/changes", json={"kind": "trace-gone", "id": "odd"}
    ).raise_for_status()
    assert traces(client, lesson)["together"]["odd"] is None


def test_a_lesson_with_traces_goes_out_as_a_case_and_comes_back(
    client: TestClient, lesson: Json
) -> None:
    put(client, lesson, swing(changed=SEEN["rush"]))
    file = client.get(f"/api/lessons/{lesson['id']}/case").json()
    again = client.post("/api/cases", json=file).json()
    assert signs(traces(client, again)["traces"][0]["read"]) == {"rush"}
    assert client.get(f"/api/lessons/{again['id']}/case").json()["traces"] == file["traces"]


def test_five_numbers_typed_are_kept_judged_and_exchanged(client: TestClient, lesson: Json) -> None:
    said = {"address": 50, "top": 46, "lead_arm_level_down": 60, "impact": 52}
    body = {"recorded": {"typed_pct": said}, "name": "Typed"}
    client.post(
        f"/api/lessons/{lesson['id']}/changes", json={"kind": "trace", "id": "typed", "body": body}
    ).raise_for_status()
    (kept,) = traces(client, lesson)["traces"]
    assert signs(kept["read"]) >= {"weak"}
    assert kept["read"]["measures"]["lead_pct"]["impact"] == pytest.approx(52, abs=1.5)
    client.post(
        f"/api/lessons/{lesson['id']}/changes",
        json={"kind": "trace-change", "id": "typed", "body": {"swapped": True}},
    ).raise_for_status()
    (other,) = traces(client, lesson)["traces"]
    assert other["read"]["measures"]["lead_pct"]["impact"] == pytest.approx(48, abs=1.5)
    few = {"recorded": {"typed_pct": {"impact": 52}}}
    sent = {"kind": "trace", "id": "typed2", "body": few}
    refused = client.post(f"/api/lessons/{lesson['id']}/changes", json=sent)
    assert refused.status_code == 409
    assert "two more" in refused.json()["message"]
    sent["body"] = {"recorded": {"typed_pct": {"impact": 152}}}
    assert client.post(f"/api/lessons/{lesson['id']}/changes", json=sent).status_code == 422


def test_columns_that_are_not_understood_are_asked_and_remembered(
    client: TestClient, lesson: Json
) -> None:
    url = f"/api/lessons/{lesson['id']}/traces/preview"
    sound = swing()
    rows = [f"{row[0]},{row[1]}" for row in sound.samples]
    text = "\n".join(["Clock,Plate A", *rows])
    asked = client.post(url, json={"text": text}).raise_for_status().json()
    assert (asked["columns"], asked["recorded"]) == ([None, None], None)
    assert "no column of time" in asked["problem"]
    assert asked["fields"]["lead_pct"] == "Lead foot, share of both"
    assert asked["rows"][0] == rows[0].split(",")
    said = {"text": text, "columns": ["t", "lead_pct"]}
    read = client.post(url, json=said).raise_for_status().json()
    assert read["problem"] is None
    assert read["recorded"]["columns"] == ["t", "lead_pct"]
    again = client.post(url, json={"text": text}).raise_for_status().json()
    assert again["columns"] == ["t", "lead_pct"]  # remembered by the headings
