"""How are balls written as a table that reads back the same?"""

import csv
from collections.abc import Iterable
from io import StringIO
from typing import Final

from firm_footing.core.case import Block, real_shot
from firm_footing.core.frame import Handedness
from firm_footing.files.shot_tables.columns import OWN_UNIT
from firm_footing.files.shot_tables.headings import FIELDS

ALONGSIDE: Final = ("block", "kind", "club", "drill")


def write_balls(blocks: Iterable[Block], hand: Handedness) -> str:
    """Comma-separated text: one row a ball, headings as the case format names them, with units.

    Real sides, + to the right; only columns that hold something.
    """
    rows = []
    for number, block in enumerate(blocks, 1):
        beside = {"block": number, "kind": block.kind, "club": block.club, "drill": block.drill}
        for shot in block.shots:
            seen = real_shot(shot, hand).model_dump(mode="json", exclude_none=True)
            rows.append(beside | seen)
    used = [f for f in FIELDS if f != "club" and any(f in row for row in rows)]
    names = [*ALONGSIDE, *used]
    out = StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow([*ALONGSIDE, *(_heading(f) for f in used)])
    writer.writerows([["" if row.get(n) is None else row[n] for n in names] for row in rows])
    return out.getvalue()


def _heading(field: str) -> str:
    unit = OWN_UNIT[field]
    return f"{field} [{unit}]" if unit else field
