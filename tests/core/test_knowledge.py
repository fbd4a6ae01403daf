"""Do the knowledge files hold what they must, and is a wrong one named clearly?"""

import re
from collections.abc import Callable
from typing import Any

import pytest

from firm_footing.core.case import Case, Reading
from firm_footing.core.diagnosis.diagnosis import diagnose
from firm_footing.core.knowledge import Knowledge, KnowledgeError, build_knowledge
from tests.core.sub_knowledge import real_files

Edit = Callable[[dict[str, Any]], object]


def entry(files: dict[str, Any], name: str, entry_id: str) -> dict[str, Any]:
    return next(e for e in files[name] if e["id"] == entry_id)


def option(files: dict[str, Any], question: str, option_id: str) -> dict[str, Any]:
    return next(o for o in files["schools"][question]["options"] if o["id"] == option_id)


def test_all_of_the_trade_is_there(knowledge: Knowledge) -> None:
    sizes = [len(x) for x in (knowledge.causes, knowledge.checks, knowledge.drills)]
    assert sizes == [30, 67, 38]
    assert len(knowledge.mechanisms) == 9
    assert len(knowledge.signs) == 14
    assert len(knowledge.clubs) == 17


def test_every_look_is_drawn_sound_and_unsound(knowledge: Knowledge) -> None:
    for check in knowledge.checks:
        if check.view == "belief":  # what somebody tries to do is no sight
            continue
        pair = knowledge.poses.pair(check.id)
        assert pair is not None, check.id
        assert pair[0] != pair[1], check.id


def test_every_entry_says_where_it_is_from(knowledge: Knowledge) -> None:
    for kind in ("causes", "mechanisms", "checks", "drills", "signs", "feel_tests", "misses"):
        for e in getattr(knowledge, kind):
            assert re.search("common practice|published|estimate", e.source), e.id


WRONG: list[tuple[Edit, str]] = [
    (
        lambda f: f["film"]["finder"].update(top_before_s=[0.45, 0.15]),
        r"film.yaml: .*top_before_s: wants at least < at most",
    ),
    (
        lambda f: f["film"]["finder"].update(slower=[2, 4]),
        r"film.yaml: .*slower: wants 1, and then what plays slower",
    ),
    (
        lambda f: f["traces"]["measured"].pop("started_pct"),
        r"traces.yaml: .*started_pct",
    ),
    (
        lambda f: entry(f, "causes", "over_effort")["upstream_of"].append("over_efort"),
        r"causes.yaml: entry 'over_effort': no cause is called 'over_efort'",
    ),
    (
        lambda f: entry(f, "causes", "hang_back")["upstream_of"].append("weak_grip"),
        r"causes.yaml: upstream links run in a circle: .*hang_back",
    ),
    (
        lambda f: option(f, "heel_or_knee", "heel_first").update(drops_links={}),
        r"causes.yaml: upstream links run in a circle: .*trail_knee_fires",
    ),
    (
        lambda f: option(f, "trail_hip", "held_back").update(
            drops_links={"weak_grip": ["trail_heel_pops"]}
        ),
        r"schools.yaml: trail_hip › entry 'held_back': no cause downstream of 'weak_grip'",
    ),
    (
        lambda f: option(f, "heel_or_knee", "undecided").update(even_of=["toe_first"]),
        r"schools.yaml: heel_or_knee › entry 'undecided': no option is called 'toe_first'",
    ),
    (
        lambda f: option(f, "start", "angles_first").update(begins_with=["weak_grp"]),
        r"schools.yaml: start › entry 'angles_first': no cause is called 'weak_grp'",
    ),
    (
        lambda f: entry(f, "checks", "arms_tense")["points"].update(chest_rush="by_nature"),
        r"checks.yaml: entry 'arms_tense': .*by_nature: only beside a cause that the look shows",
    ),
    (
        lambda f: entry(f, "checks", "shaft_flat_down").update(points_stuck={}),
        r"checks.yaml: entry 'shaft_flat_down': .*a look must point to some cause",
    ),
    (
        lambda f: entry(f, "causes", "hang_back").update(you="You stay on your right foot."),
        r"causes.yaml: entry 'hang_back': 'right foot' is a real side",
    ),
    (
        lambda f: entry(f, "checks", "hips_first_head_back").update(
            correction="The hips may lead, but not too far."
        ),
        r"checks.yaml: entry 'hips_first_head_back': 'lead' names no foot here",
    ),
    (
        lambda f: entry(f, "checks", "drives_trail_leg").pop("correction"),
        r"checks.yaml: entry 'drives_trail_leg': .*a belief, and nothing else, has a correction",
    ),
    (
        lambda f: entry(f, "checks", "grip_weak")["points"].update(weak_grp="strong"),
        r"checks.yaml: entry 'grip_weak': no cause is called 'weak_grp'",
    ),
    (
        lambda f: entry(f, "checks", "grip_weak").update(harmless=1.2),
        r"checks.yaml: entry 'grip_weak' › harmless",
    ),
    (
        lambda f: entry(f, "drills", "belt_stick").update(limits=["elbow"]),
        r"drills.yaml: entry 'belt_stick' › limits › 0: Input should be 'knee'",
    ),
    (
        lambda f: entry(f, "drills", "fit_check").update(targets=["weak_grip"]),
        r"causes.yaml: entry 'club_fit': no drill serves it",
    ),
    (
        lambda f: entry(f, "checks", "lead_toe_up_at_impact").update(
            shows=None, harmless=None, base=0.1
        ),
        r"causes.yaml: entry 'lead_toe_lifts': no check shows it",
    ),
    (
        lambda f: f["causes"].append(entry(f, "causes", "aim_off")),
        r"causes.yaml: entry 'aim_off': the id stands twice",
    ),
    (
        lambda f: f["numbers"]["prior"].update(causes_present=[0.5, 0.6]),
        r"numbers.yaml: prior › causes_present: .*sum to 1",
    ),
    (
        lambda f: entry(f, "causes", "aim_off").update(colour="red"),
        r"causes.yaml: entry 'aim_off' › colour: Extra inputs are not permitted",
    ),
    (
        lambda f: f["corridors"]["lead_pct"]["steady"].update(top=[30, 10]),
        r"corridors.yaml: .*steady.top: wants 0 <= low < high",
    ),
    (
        lambda f: entry(f, "drills", "bottle_guard").update(equipment=["flask"]),
        r"drills.yaml: entry 'bottle_guard': no equipment is called 'flask'",
    ),
    (
        lambda f: f["poses"]["drills"].pop("bottle_guard"),
        r"poses.yaml: drills: 'bottle_guard' has no drawing",
    ),
    (
        lambda f: f["poses"]["drills"]["bottle_guard"][0]["pose"].update(elbow=3),
        r"bottle_guard: face_on has no 'elbow'",
    ),
    (
        lambda f: f["poses"]["drills"]["hip_stick"][0]["things"][0].pop("to_x"),
        r"a stick has two ends",
    ),
    (
        lambda f: f["corridors"]["drills"].update(stay_led="stay_lead"),
        r"corridors.yaml: drills: no drill is called 'stay_led'",
    ),
    (
        lambda f: f["traces"]["signs"]["shift_after_top_s"].pop("steady"),
        r"traces.yaml: shift_after_top_s: pressure school 'steady' is missing",
    ),
    (
        lambda f: f["poses"]["checks"]["grip_weak"]["unsound"].update(thumbs=2),
        r"poses.yaml: .*grip_weak: hand has no 'thumbs'",
    ),
    (
        lambda f: f["cues"]["causes"]["backs_up"].update(force="lateral", leg="lead"),
        r"cues.yaml: .*give 'force' with 'leg', or 'pushing' with 'moved', or 'say'",
    ),
    (
        lambda f: f["cues"]["causes"]["backs_up"].pop("moved"),
        r"cues.yaml: .*give 'force' with 'leg'",
    ),
    (
        lambda f: entry(f, "feel_tests", "pads")["asks"].append(
            {"check": "toes_up", "question": "Up?"}
        ),
        r"feel_tests.yaml: entry 'pads': no check is called 'toes_up'",
    ),
    (
        lambda f: f["cues"]["causes"]["late_shift"].update(does=["stay_trail"]),
        r"cues.yaml: causes › 'late_shift': its cue does 'stay_trail', which it forbids",
    ),
    (
        lambda f: entry(f, "misses", "slice")["rescues"].pop(),
        r"misses.yaml: entry 'slice': every rescue does what 'aim_off' forbids",
    ),
    (
        lambda f: entry(f, "drills", "distance_reset")["on_course"].update(
            does=["further_from_ball"]
        ),
        r"drills.yaml: entry 'distance_reset': its thought does 'further_from_ball'",
    ),
    (
        lambda f: f["measures"]["measures"][5]["share"].update(at_least=3),
        r"measures.yaml: .*a number counts by one limit",
    ),
    (
        lambda f: f["measures"]["measures"][5]["share"].update(never=["fat"]),
        r"measures.yaml: .*a word counts or it never does",
    ),
    (
        lambda f: f["measures"]["measures"][-1]["share"].update(any_of=["luck"]),
        r"measures.yaml: entry 'any_miss': no share is called 'luck'",
    ),
    (
        lambda f: f["felt"][0]["options"][0]["answers"].update(toes_up="yes"),
        r"felt.yaml: entry 'at_address': no check is called 'toes_up'",
    ),
]


@pytest.mark.parametrize(("edit", "message"), WRONG, ids=[m[:40] for _, m in WRONG])
def test_a_wrong_entry_is_named(edit: Edit, message: str) -> None:
    files = real_files()
    edit(files)
    with pytest.raises(KnowledgeError, match=message):
        build_knowledge(files)


def test_adding_a_cause_touches_no_code() -> None:
    files = real_files()
    new = entry(files, "causes", "reach_to_ball") | {
        "id": "cold_hands",
        "name": "Hands are cold",
        "upstream_of": ["early_release"],
    }
    files["causes"].append(new)
    files["cues"]["causes"]["cold_hands"] = {"say": "Gloves on between balls."}
    entry(files, "drills", "grip_reset")["targets"].append("cold_hands")
    files["checks"].append(
        entry(files, "checks", "grip_weak")
        | {"id": "fingers_blue", "points": {"cold_hands": "strong"}, "shows": "cold_hands"}
    )
    knowledge = build_knowledge(files)
    case = Case(
        handedness="right",
        readings=(Reading(check="fingers_blue", answer="yes", source="mat"),),
    )
    assert diagnose(case, knowledge).start_with == "cold_hands"
    assert knowledge.version != build_knowledge(real_files()).version
