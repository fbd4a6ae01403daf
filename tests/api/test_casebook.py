"""The casebook learns: what is an outcome, what moves, and what takes it back."""

import io
import zipfile
from collections.abc import Sequence

import pytest
from fastapi import FastAPI
from fastapi.testclient import TestClient
from sqlmodel import Session, select

from firm_footing.api.casebook.learner import Learner
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.learning.counts import lesson_seen
from firm_footing.core.learning.learned import learn
from firm_footing.files.case_files import in_si, parse_case
from firm_footing.store.tables import Decision
from tests.api.asking import Json, change, decide, get

RUSH = "early_lead_rush"


def of(client: TestClient, kind: str, lesson: Json, **more: object) -> None:
    body = {"kind": kind, **more}
    client.post(f"/api/lessons/{lesson['id']}/changes", json=body).raise_for_status()


def begin(client: TestClient, name: str) -> Json:
    student = client.post("/api/students", json={"name": name, "handedness": "right"}).json()
    made: Json = client.post(f"/api/students/{student['id']}/lessons", json={}).json()
    return made


def decided(
    client: TestClient, name: str, cause: str = RUSH, look: str = "lead_rush_early"
) -> Json:
    """A lesson in which one look was answered yes and the cause was decided on."""
    lesson = begin(client, name)
    body = {"check_id": look, "answer": "yes", "source": "film"}
    of(client, "answer", lesson, id=f"a-{name}", body=body)
    decide(client, lesson, cause)
    return lesson


def came_back(client: TestClient, lesson: Json, verdict: str) -> None:
    body = {"due_on": "2026-11-30", "verdict": verdict}
    of(client, "follow-up", lesson, body=body)


def book(client: TestClient, app: FastAPI, causes: Sequence[str] = (RUSH,) * 12) -> list[Json]:
    lessons = [decided(client, f"s{i}", cause) for i, cause in enumerate(causes)]
    for lesson in lessons:
        came_back(client, lesson, "confirmed")
    studied(app)
    return lessons


def studied(app: FastAPI) -> None:
    learner: Learner = app.state.learner
    learner.catch_up()


def learned(client: TestClient) -> Json:
    found: Json = client.get("/api/casebook/learned").raise_for_status().json()
    return found


def roots(client: TestClient, lesson: Json, **how: object) -> dict[str, float]:
    found = client.get(f"/api/lessons/{lesson['id']}/diagnosis", params=how).raise_for_status()  # type: ignore[arg-type]
    return {c["id"]: c["root"] for c in found.json()["ranking"]["causes"]}


def choose(client: TestClient, **values: object) -> Json:
    found: Json = client.put("/api/casebook/learned", json=values).raise_for_status().json()
    return found


def test_what_comes_back_moves_a_number_and_the_page_says_which(
    client: TestClient, app: FastAPI
) -> None:
    new = begin(client, "new")
    before = roots(client, new)
    book(client, app)
    found = learned(client)
    assert (found["outcomes"], found["students"], found["decided"]) == (12, 12, {RUSH: 12})
    moved = {m["cause"]: m for m in found["moved"]}
    assert moved[RUSH]["here"] > 2 * moved[RUSH]["shipped"]
    begun = get(client, new, "diagnosis")["ranking"]["causes"]
    assert next(c["probability"] for c in begun if c["id"] == RUSH) == pytest.approx(
        moved[RUSH]["here"]
    )
    assert any("Rushes" in s for s in found["said"])
    assert roots(client, new)[RUSH] > 2 * before[RUSH]
    assert roots(client, new, learned=False) == pytest.approx(before, abs=1e-12)


def test_pages_that_are_open_are_told_once_a_lesson_was_studied(
    client: TestClient, app: FastAPI
) -> None:
    """A second lesson begun at once ranks with what the first found without a change."""
    new = begin(client, "new")
    studied(app)
    before = get(client, new, "revision")
    book(client, app, causes=(RUSH,))
    after = get(client, new, "revision")
    assert after["revision"] == before["revision"]
    assert after["taught"] != before["taught"]
    studied(app)
    assert get(client, new, "revision") == after


def test_switched_off_or_held_the_ranking_is_the_shipped_one(
    client: TestClient, app: FastAPI
) -> None:
    new = begin(client, "new")
    before = roots(client, new)
    book(client, app)
    everything = [m["cause"] for m in learned(client)["moved"]]
    taught = roots(client, new)
    assert choose(client, use=False)["use"] is False
    assert roots(client, new) == pytest.approx(before, abs=1e-12)
    choose(client, use=True, held=[RUSH])
    assert roots(client, new)[RUSH] < (before[RUSH] + taught[RUSH]) / 2
    assert [m["cause"] for m in learned(client)["moved"] if m["held"]] == [RUSH]
    assert RUSH in everything
    refused = client.put("/api/casebook/learned", json={"held": ["no_cause"]})
    assert refused.status_code == 409
    assert learned(client)["use"] is True


def test_an_eye_that_calls_knees_is_learned_kept_with_decisions_and_held_still(
    client: TestClient, app: FastAPI
) -> None:
    """What comes back says each time that the knee was not it."""
    knee, cause = "trail_knee_at_ball", "trail_knee_fires"
    before = roots(client, decided(client, "first", cause, knee))[cause]
    for lesson in [decided(client, f"s{i}", cause, knee) for i in range(18)]:
        came_back(client, lesson, "rejected")
    studied(app)
    found = learned(client)
    (moved,) = (look for look in found["looks"] if look["look"] == knee)
    assert moved["answers"] == 18
    assert moved["false_yes"]["here"] > 2 * moved["false_yes"]["files"]
    assert any(
        s.startswith("Trail knee at the ball: your eye sees it where it is not")
        for s in found["said"]
    )
    new = decided(client, "new", cause, knee)
    taught = roots(client, new)[cause]
    assert taught < roots(client, new, learned=False)[cause]
    assert roots(client, new, learned=False)[cause] == pytest.approx(before, abs=1e-12)
    exported = client.get("/api/casebook/learned.json").json()
    assert knee in {look for look, _, _ in exported["eye"]}
    choose(client, held=[cause])
    eye_only = roots(client, new)[cause]
    held = choose(client, held=[cause, knee])["looks"]
    assert [look["look"] for look in held if look["held"]] == [knee]
    assert eye_only < roots(client, new)[cause]
    with Session(app.state.engine) as session:
        kept = session.exec(select(Decision).where(Decision.lesson_id == new["id"])).one()
    assert knee in {look for look, _, _ in kept.eye}


def test_a_colleague_s_casebook_teaches_how_common_causes_are_and_nothing_else(
    client: TestClient, app: FastAPI, knowledge: Knowledge
) -> None:
    """As if their students were one's own; not their eye, and not their decisions."""
    knee, cause = "trail_knee_at_ball", "trail_knee_fires"
    new = begin(client, "new")
    before = roots(client, new)
    for lesson in [decided(client, f"k{i}", cause, knee) for i in range(14)]:
        came_back(client, lesson, "rejected")
    book(client, app)
    theirs = client.get("/api/casebook/learned.json").json()
    assert theirs["eye"]
    own = learned(client)
    refused = client.post("/api/casebook/colleagues", json=theirs)
    assert refused.json()["message"] == "Lessons of your own are in this casebook."
    part = theirs | {"lessons": theirs["lessons"][:3], "everything": {"lessons": 3.0}}
    assert client.post("/api/casebook/colleagues", json=part).status_code == 409
    choose(client, anew=True)
    assert roots(client, new) == pytest.approx(before, abs=1e-12)

    url = "/api/casebook/colleagues"
    for _ in range(2):  # the same file twice is one
        found = client.post(url, json=theirs, params={"name": "Range"}).raise_for_status().json()
    (there,) = found["colleagues"]
    assert (there["name"], there["outcomes"], there["known"]) == ("Range", 26, True)
    assert (found["outcomes"], found["decided"], found["looks"]) == (0, {}, [])
    assert found["said"][0] == "No outcome of your own is known yet."
    here = {m["cause"]: m["here"] for m in found["moved"]}
    assert here[RUSH] == pytest.approx(
        next(m["here"] for m in own["moved"] if m["cause"] == RUSH), rel=0.15
    )
    assert roots(client, new)[RUSH] > 1.5 * before[RUSH]
    newer = theirs | {"outcomes": 27, "lessons": [*theirs["lessons"], "0" * 16]}
    (there,) = client.post(url, json=newer, params={"name": "R"}).json()["colleagues"]
    assert there["outcomes"] == 27  # in the place of the older one
    refused = client.post(url, json=theirs)  # not in the place of the newer one
    assert refused.json()["message"] == "A newer casebook with the same lessons is here already."
    another = theirs | {"lessons": ["1" * 16], "outcomes": 5}
    beside = client.post(url, json=another, params={"name": "A"}).json()["colleagues"]
    assert [c["outcomes"] for c in beside] == [27, 5]
    client.delete(f"{url}/{beside[1]['id']}").raise_for_status()
    assert choose(client, pooled=False)["moved"] == []
    assert roots(client, new) == pytest.approx(before, abs=1e-12)
    assert choose(client, pooled=True)["moved"] == found["moved"]
    assert client.get("/api/casebook/learned.json").json()["everything"]["lessons"] == 0
    assert client.delete(f"{url}/{there['id']}").raise_for_status().json()["moved"] == []
    assert client.delete(f"{url}/{there['id']}").status_code == 404


@pytest.mark.parametrize(
    ("change", "status", "says"),
    [
        ({"outcomes": 0}, 409, "knows no outcome yet"),
        ({"eye": [["no_such_look", 2.0, 1.0]]}, 409, "nothing is called 'no_such_look'"),
        ({"format": "another"}, 422, "format"),
        ({"measured": {"lessons": -1}}, 422, "lessons"),
    ],
)
def test_a_colleague_s_casebook_that_cannot_be_read_is_not_added(
    client: TestClient, app: FastAPI, change: Json, status: int, says: str
) -> None:
    book(client, app)
    theirs = client.get("/api/casebook/learned.json").json()
    refused = client.post("/api/casebook/colleagues", json=theirs | change)
    assert refused.status_code == status
    assert says in refused.text
    assert learned(client)["colleagues"] == []


def test_begun_anew_nothing_teaches_until_that_is_taken_back(
    client: TestClient, app: FastAPI
) -> None:
    book(client, app)
    assert choose(client, anew=True)["outcomes"] == 0
    again = choose(client, anew=False)
    assert (again["outcomes"], again["since"]) == (12, None)
    assert client.get("/api/casebook").json()["decided"]["of"] == 12  # they were never gone


def test_a_student_who_is_deleted_takes_their_part_along(client: TestClient, app: FastAPI) -> None:
    lessons = book(client, app)
    client.delete(f"/api/students/{lessons[0]['student']['id']}").raise_for_status()
    studied(app)
    assert learned(client)["outcomes"] == 11


def test_a_correction_counts_backwards(client: TestClient, app: FastAPI) -> None:
    lessons = book(client, app)
    sure = {m["cause"]: m["here"] for m in learned(client)["moved"]}[RUSH]
    for lesson in lessons[:6]:
        came_back(client, lesson, "rejected")
    studied(app)
    less = {m["cause"]: m["here"] for m in learned(client)["moved"]}.get(RUSH, 0.0)
    assert less < sure
    for lesson in lessons[:6]:
        of(client, "undo", lesson)
    studied(app)
    assert {m["cause"]: m["here"] for m in learned(client)["moved"]}[RUSH] == sure


def test_a_decision_keeps_what_it_was_made_with(
    client: TestClient, app: FastAPI, session: Session
) -> None:
    first = book(client, app)[0]
    lesson = decided(client, "after")
    made_with = {d.lesson_id: dict(d.how_common) for d in session.exec(select(Decision)).all()}
    assert made_with[first["id"]] == {}
    assert made_with[lesson["id"]][RUSH] > 2


def retest(client: TestClient, lesson: Json, after: Sequence[float]) -> None:
    block = lesson["blocks"][0]["id"]
    for i, start in enumerate([-7.0, -6, -5, -8, -6, -7, -6, -5]):
        body: Json = {"block_id": block, "observed": {"start_deg": start}}
        of(client, "shot", lesson, id=f"b{i}-{lesson['id'][:8]}", body=body)
    change(client, lesson, primary="start_deg")
    again = f"re-{lesson['id'][:8]}"
    of(client, "block", lesson, id=again, body={"kind": "retest", "club": "7i"})
    for i, start in enumerate(after):
        body = {"block_id": again, "observed": {"start_deg": start}}
        of(client, "shot", lesson, id=f"r{i}-{lesson['id'][:8]}", body=body)


def test_a_retest_is_an_outcome_once_the_lesson_is_over(client: TestClient, app: FastAPI) -> None:
    lesson = decided(client, "one")
    retest(client, lesson, [0.0, 1, -1, 0, 0, 1, 0, -1])
    studied(app)
    assert client.get("/api/casebook").json()["cases"][0]["fate"] is None
    change(client, lesson, finished=True)
    studied(app)
    case = client.get("/api/casebook").json()["cases"][0]
    assert (case["fate"], case["known_by"]) == ("confirmed", ["retest"])
    assert client.get("/api/casebook/right").json()["by_source"][0]["word"] == "retest"
    second = client.post(f"/api/lessons/{lesson['id']}/reopen", json={}).json()
    assert get(client, second, "last")["measured"] == {"retest": "confirmed"}
    lines = [
        e
        for c in get(client, second, "diagnosis")["ranking"]["causes"]
        for e in c["for"]
        if e["evidence"].startswith("history:")
    ]
    assert any("by the retest" in e["text"] for e in lines)


def test_what_a_later_lesson_measures_says_something_of_the_earlier_decision(
    client: TestClient, app: FastAPI
) -> None:
    """Of the same cause only, and as long as the later lesson stands."""
    first = decided(client, "one")
    change(client, first, finished=True)
    second = client.post(f"/api/lessons/{first['id']}/reopen", json={}).json()
    decide(client, second, RUSH)
    retest(client, second, [0.0, 1, -1, 0, 0, 1, 0, -1])
    change(client, second, finished=True)
    studied(app)

    def fates() -> dict[str, tuple[str | None, list[str]]]:
        cases = client.get("/api/casebook").json()["cases"]
        return {c["lesson_id"]: (c["fate"], c["known_by"]) for c in cases}

    assert fates() == {
        first["id"]: ("confirmed", ["later_lesson"]),
        second["id"]: ("confirmed", ["retest"]),
    }
    whole = client.get("/api/casebook").json()["decided"]
    assert (whole["came"], whole["of"]) == (2, 2)
    came_back(client, first, "rejected")  # what is heard weighs less than what was measured
    assert fates()[first["id"]] == (None, [])
    decide(client, second, "late_shift")
    studied(app)
    assert fates()[first["id"]] == ("rejected", ["follow_up"])


def test_what_pays_counts_looks_drills_and_minutes(client: TestClient, app: FastAPI) -> None:
    lesson = decided(client, "one")
    change(client, lesson, drill="feet_together_pause")
    client.post(
        f"/api/lessons/{lesson['id']}/clock",
        json={"stage": "look", "seconds": 90, "now_in": "look"},
    ).raise_for_status()
    came_back(client, lesson, "confirmed")
    studied(app)
    pays = client.get("/api/casebook/pays").raise_for_status().json()
    assert [look["check"] for look in pays["looks"]] == ["lead_rush_early"]
    assert pays["looks"][0]["bits"] > 0.2
    assert "lead_rush_early" not in {look["check"] for look in pays["never"]}
    assert pays["never"][0]["bits"] > 0
    by_time = [look["bits"] / look["seconds"] for look in pays["never"]]
    assert by_time == sorted(by_time, reverse=True)
    assert [(d["drill"], d["share"]["came"]) for d in pays["drills"]] == [
        ("feet_together_pause", 1)
    ]
    assert pays["minutes"] == {"look": 1.5}


def test_a_drill_that_worked_comes_before_one_that_did_not(
    client: TestClient, app: FastAPI
) -> None:
    late = ("late_shift", "shift_starts_after_top")
    new = decided(client, "new", *late)
    cards = [c["drill"] for c in get(client, new, "coaching")["cards"] if c["withheld"] is None]
    first, second = cards[:2]
    for i in range(12):
        lesson = decided(client, f"s{i}", *late)
        drill, fate = (second, "confirmed") if i % 2 else (first, "rejected")
        change(client, lesson, drill=drill)
        came_back(client, lesson, fate)
    studied(app)
    found = {c["drill"]: c for c in get(client, new, "coaching")["cards"]}
    assert "cause confirmed in 6 of 6 lessons with it" in found[second]["pros"]
    assert "cause confirmed in 0 of 6 lessons with it" in found[first]["cons"]
    assert next(iter(found)) == second
    choose(client, use=False)
    again = [c["drill"] for c in get(client, new, "coaching")["cards"] if c["withheld"] is None]
    assert again == cards


def test_the_cases_it_saves_teach_the_command_the_same(
    client: TestClient, app: FastAPI, knowledge: Knowledge
) -> None:
    """Studied lessons are kept in two bytes a number: within half a per cent of the whole way."""
    book(client, app, [RUSH, RUSH, RUSH, "late_shift"] * 4)
    packed = client.get("/api/casebook/cases.zip").raise_for_status().content
    seen = []
    with zipfile.ZipFile(io.BytesIO(packed)) as archive:
        for name in archive.namelist():
            file = parse_case(archive.read(name), knowledge)
            assert file.outcome is not None
            key = str(file.student.key)
            seen.append(lesson_seen(in_si(file), file.outcome, key, name, knowledge))
    whole = learn(seen, knowledge)
    kept = client.get("/api/casebook/learned.json").raise_for_status().json()
    for cause, found in whole.causes.items():
        assert kept["causes"][cause]["factor"] == pytest.approx(found.factor, rel=5e-3), cause
    assert whole.causes[RUSH].factor > 1.5


def test_what_was_learned_goes_into_a_file_that_rank_reads(
    client: TestClient, app: FastAPI
) -> None:
    assert client.get("/api/casebook/learned.json").status_code == 409
    book(client, app)
    saved = client.get("/api/casebook/learned.json").raise_for_status()
    assert "s1" not in saved.text
    assert saved.json()["causes"][RUSH]["factor"] > 2


def test_a_case_file_brings_its_decision_and_what_became_of_it(
    client: TestClient, app: FastAPI
) -> None:
    file = {
        "format": "firm-footing-case",
        "version": 1,
        "student": {"handedness": "left"},
        "checks": {"lead_rush_early": "yes"},
        "outcome": {"decided": RUSH, "fate": "partly", "known_by": ["later_lesson"]},
    }
    lesson = client.post("/api/cases", json=file).raise_for_status().json()
    assert [d["cause"] for d in lesson["decisions"]] == [RUSH]
    assert lesson["follow_up"]["verdict"] == "partly"
    studied(app)
    case = client.get("/api/casebook").json()["cases"][0]
    assert (case["fate"], case["known_by"]) == ("partly", ["follow_up"])
    assert learned(client)["decided"] == {RUSH: 1}
    unknown = file | {"outcome": {"decided": "no_cause", "fate": "partly", "known_by": ["word"]}}
    assert client.post("/api/cases", json=unknown).status_code == 409
    assert len(client.get("/api/casebook").json()["cases"]) == 1
