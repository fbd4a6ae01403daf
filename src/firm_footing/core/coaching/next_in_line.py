"""What comes after the first cause, once it is held?

Not a second task: one sentence, so that the student knows what is left for later. Weight comes
before hands, hands before path, path before face; common practice, no source.
"""

from collections.abc import Mapping

from firm_footing.core.knowledge import Cause, Knowledge

LIKELY = 0.25
"""A cause less likely than this is not promised."""
HANDS = ("hands", "chest", "club", "grip", "aim")
FACE = ("grip",)
PATH = ("aim", "club")


def place_in_line(cause: Cause) -> int:
    """0 weight, 1 hands, 2 path, 3 face."""
    if cause.place in FACE:
        return 3
    if cause.place in PATH:
        return 2
    return 1 if cause.place in HANDS else 0


def next_in_line(first: str, present: Mapping[str, float], knowledge: Knowledge) -> str | None:
    """The cause to come after `first`; None where no other is likely.

    present : cause id to P(present). What `first` brings about goes with it and is left out.
    """
    gone = {first, *_brought_about(first, knowledge)}
    rest = [c for c in knowledge.causes if c.id not in gone and present.get(c.id, 0.0) >= LIKELY]
    if not rest:
        return None
    return min(rest, key=lambda c: (place_in_line(c), -present[c.id])).id


def _brought_about(cause: str, knowledge: Knowledge) -> set[str]:
    found: set[str] = set()
    open_ends = [cause]
    while open_ends:
        for follower in knowledge.cause[open_ends.pop()].upstream_of:
            if follower not in found:
                found.add(follower)
                open_ends.append(follower)
    return found
