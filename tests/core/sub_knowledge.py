"""Smaller knowledge for oracles: the real files cut down to a few causes."""

from copy import deepcopy
from typing import Any

import yaml

from firm_footing.core.knowledge import Knowledge, build_knowledge
from firm_footing.core.knowledge.build import FILES
from firm_footing.files.knowledge_files import KNOWLEDGE_FOLDER


def real_files() -> dict[str, Any]:
    return deepcopy(_READ)


POINTERS, BY_NATURE = ("points", "points_thrown", "points_stuck"), "by_nature"
_READ = {
    name: yaml.safe_load((KNOWLEDGE_FOLDER / f"{name}.yaml").read_text(encoding="utf-8"))
    for name in FILES
}


def cut_down(causes: set[str], files: dict[str, Any] | None = None) -> Knowledge:
    """The knowledge of these causes alone: their links, their checks, their drills."""
    f = files or real_files()
    f["causes"] = [c for c in f["causes"] if c["id"] in causes]
    for cause in f["causes"]:
        cause["upstream_of"] = [u for u in cause["upstream_of"] if u in causes]
        if cause.get("opposite_of") not in causes:
            cause.pop("opposite_of", None)
    for check in f["checks"]:
        for key in POINTERS:
            check[key] = {c: s for c, s in check.get(key, {}).items() if c in causes}
        if check.get("shows") not in causes and "shows" in check:
            del check["shows"]
            check["base"] = check.pop("harmless")
            for key in POINTERS:
                check[key] = {c: "strong" if s == BY_NATURE else s for c, s in check[key].items()}
    f["checks"] = [c for c in f["checks"] if any(c[key] for key in POINTERS)]
    checks = {c["id"] for c in f["checks"]}
    for drill in f["drills"]:
        for key in ("targets", "not_for", "care_with"):
            drill[key] = [c for c in drill.get(key, ()) if c in causes]
        if not causes.issuperset(drill.get("constraint", {}).get("removes", ())):
            del drill["constraint"]
    f["drills"] = [d for d in f["drills"] if d["targets"]]
    drills = {d["id"] for d in f["drills"]}
    f["cues"]["causes"] = {c: cue for c, cue in f["cues"]["causes"].items() if c in causes}
    for miss in f["misses"]:
        for rescue in miss["rescues"]:
            rescue["causes"] = [c for c in rescue.get("causes", ()) if c in causes]
    f["poses"]["checks"] = {}
    f["poses"]["drills"] = {d: p for d, p in f["poses"]["drills"].items() if d in drills}
    f["signs"], f["feel_tests"], f["felt"], f["corridors"]["drills"] = [], [], [], {}
    for measure in f["film"]["measures"]:
        answers = measure.get("answers", ())
        measure["answers"] = [a for a in answers if a["check"] in checks]
    for group in f["numbers"]["dependent_checks"]["groups"]:
        group["checks"] = [c for c in group["checks"] if c in checks]
    for question in f["schools"].values():
        for option in question["options"]:
            for key, known in (("cause_weight", causes), ("check_base", checks)):
                option[key] = {k: v for k, v in option.get(key, {}).items() if k in known}
            option["begins_with"] = [c for c in option.get("begins_with", ()) if c in causes]
            option["drops_links"] = {
                above: [c for c in below if c in causes]
                for above, below in option.get("drops_links", {}).items()
                if above in causes
            }
    return build_knowledge(f)


def without_discounts(files: dict[str, Any]) -> None:
    """Every answer counts whole, whatever it was one look with: as a network has it."""
    looks = files["numbers"]["dependent_checks"]
    looks["discount"] = 0.0
    for group in looks["groups"]:
        group.pop("discount", None)
