"""What is a file called that goes out? After the student and the day, so that it is found again."""

import re
import unicodedata
from datetime import date
from urllib.parse import quote


def attached_as(student: str, on: date, ending: str) -> dict[str, str]:
    """Headers that hand a file over; a name in other letters comes with a plain one beside it."""
    words = re.sub(r"[^\w]+", "-", student).strip("-") or "student"
    name = f"{words}-{on.isoformat()}{ending}"
    plain = unicodedata.normalize("NFKD", name).encode("ascii", "ignore").decode()
    plain = plain if plain[:1].isalnum() else f"student-{on.isoformat()}{ending}"
    disposition = f"attachment; filename=\"{plain}\"; filename*=UTF-8''{quote(name)}"
    return {"Content-Disposition": disposition}
