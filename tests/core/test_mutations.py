"""What `scripts/mutations.py` takes away is still there to be taken away."""

import importlib.util
import sys
from pathlib import Path

ROOT = Path(__file__).parents[2]


def test_every_mutation_finds_its_place_once() -> None:
    spec = importlib.util.spec_from_file_location("mutations", ROOT / "scripts" / "mutations.py")
    assert spec is not None
    assert spec.loader is not None
    mutations = importlib.util.module_from_spec(spec)
    sys.modules["mutations"] = mutations
    spec.loader.exec_module(mutations)
    for one in mutations.MUTATIONS:
        whole = (ROOT / one.file).read_text(encoding="utf-8")
        assert whole.count(one.old) == 1, one.name
        for test in one.tests:
            folder = ROOT / "web" if one.file.startswith("web/") else ROOT
            assert (folder / test).is_file(), test
