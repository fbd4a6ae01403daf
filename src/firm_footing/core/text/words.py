"""How is what was read, expected and concluded said to a colleague at the range?

Plain words for numbers of the pattern, with real sides for the student's hand; feet are lead and
trail, which a screen may turn into left and right (`core/frame/words.py`).
"""

from collections.abc import Sequence
from typing import Final

from firm_footing.core.frame import Handedness, side
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.numbers import Numbers
from firm_footing.core.knowledge.vocabulary import Seen

ALMOST_NONE = {"deg": 0.5, "mm": 3.0, "cm": 0.5, "pct": 0.5}
"""Less than this is said to be nothing."""


def probability_word(probability: float, numbers: Numbers) -> str:
    """How sure we are, in words: the id of the band in `numbers.yaml`."""
    bands = sorted(numbers.words_for_probability.items(), key=lambda band: -band[1])
    return next(word for word, least in bands if probability >= least)


def percent(probability: float) -> str:
    """A probability in per cent; nothing is said to be certain: "over 99 %", "under 1 %"."""
    if probability > 0.99:
        return "over 99 %"
    return "under 1 %" if probability < 0.01 else f"{100 * probability:.0f} %"


CAUSE_WORDS: Final = {
    "follows": "may come from another",
    "seen": "not settled yet",
    "seen_hardly_behind": "hardly behind these balls",
}
"""How those of `cause_word` are said that are not said as they are written."""


def cause_words(numbers: Numbers) -> dict[str, str]:
    """How each word of `cause_word` is said."""
    bands = {band: band.replace("_", " ") for band in numbers.words_for_probability}
    return bands | CAUSE_WORDS


def cause_word(
    root: float,
    probability: float,
    seen: Seen | None,
    balls: int,
    n: Numbers,
    *,
    thin: bool = False,
) -> str:
    """One word for one cause; what was seen is never called unlikely.

    thin : too little was seen to carry a decision, so that nothing is more than possible
    """
    word = probability_word(root, n)
    if word in ("very_likely", "likely", "possible"):
        return "possible" if thin else word
    possible = n.decision.nearly_root
    if probability >= possible:
        return "follows"
    if seen in ("yes", "partly"):
        return "seen_hardly_behind" if balls else "seen"
    return word


def degrees(value: float, hand: Handedness) -> str:
    """Golfer-neutral degrees as an onlooker says them: "5° left", or "straight"."""
    if abs(value) < ALMOST_NONE["deg"]:
        return "straight"
    return f"{abs(value):.0f}° {side(value, hand)}"


def _signed(value: float, unit: str, nothing: str, more: str, less: str) -> str:
    """A signed value as one says it: its size within `more` or `less`, or `nothing`."""
    if abs(value) < ALMOST_NONE[unit]:
        return nothing
    return (more if value > 0 else less).format(f"{abs(value):.0f}")


def face(value: float) -> str:
    """Face to path."""
    return _signed(
        value, "deg", "square to the path", "{}° open to the path", "{}° shut to the path"
    )


def strike(value: float) -> str:
    """A place on the face."""
    middle = "from the middle of the face"
    return _signed(value, "mm", middle, "{} mm to the toe", "{} mm to the heel")


def low_point(value: float) -> str:
    """A low point."""
    return _signed(value, "cm", "at the ball", "{} cm ahead of the ball", "{} cm behind the ball")


def loft(value: float) -> str:
    """Dynamic loft against the usual."""
    return _signed(value, "deg", "as usual", "{}° more than usual", "{}° less than usual")


def speed(value: float) -> str:
    """Club speed against what is expected."""
    return _signed(
        value, "pct", "as expected", "{} % faster than expected", "{} % slower than expected"
    )


def number(name: str, value: float, hand: Handedness) -> str:
    """A number of the delivery: "path 4° left"."""
    words = {
        "path_deg": lambda: f"path {degrees(value, hand)}",
        "start_deg": lambda: f"starts {degrees(value, hand)}",
        "face_to_path_deg": lambda: f"face {face(value)}",
        "low_point_cm": lambda: f"low point {low_point(value)}",
        "heel_toe_mm": lambda: f"struck {strike(value)}",
        "dynamic_loft_deg": lambda: f"loft {loft(value)}",
        "club_speed_pct": lambda: f"club {speed(value)}",
    }
    return words[name]()


def unexplained(name: str, left: float, hand: Handedness) -> str:
    """What is left of a deviation: "No cause seen so far explains 3° of open face."."""
    size = f"{abs(left):.0f}"
    part = {
        "path_deg": f"{size}° of path to the {side(left, hand)}",
        "face_to_path_deg": f"{size}° of {'open' if left > 0 else 'shut'} face",
        "low_point_cm": f"a low point {size} cm {'ahead of' if left > 0 else 'behind'}"
        " that of a sound swing",
        "heel_toe_mm": f"{size} mm of strike toward the {'toe' if left > 0 else 'heel'}",
        "club_speed_pct": f"{size} % of club speed lost",
    }[name]
    return f"No cause seen so far explains {part}."


def quoted(name: str) -> str:
    """A cause or a drill by its name, inside a sentence."""
    return f"“{name[:1].lower()}{name[1:]}”"


def listed(parts: Sequence[str]) -> str:
    """Several things in a row: "a", "a and b", "a, b and c"."""
    return " and ".join([*filter(None, [", ".join(parts[:-1])]), *parts[-1:]])


def cause_name(cause: str, knowledge: Knowledge) -> str:
    """A cause by its name, inside a sentence."""
    return quoted(knowledge.cause[cause].name)


def count_of(n: int, noun: str) -> str:
    """So many of something: "1 ball", "2 balls"."""
    return f"{n} {noun}" if n == 1 else f"{n} {noun}s"


def capital(text: str) -> str:
    """The same with a capital first letter."""
    return f"{text[:1].upper()}{text[1:]}"
