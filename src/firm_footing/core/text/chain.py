"""How is each link of a chain from cause to ball said?"""

from typing import Final

from firm_footing.core.knowledge import Knowledge

END_WORDS: Final = {
    "path_minus": "path to the pull side",
    "path_plus": "path to the push side",
    "face_shut": "face shut to the path",
    "face_open": "face open to the path",
    "turf_behind": "low point back",
    "turf_ahead": "low point forward",
    "heel_strike": "heel strike",
    "toe_strike": "toe strike",
    "loft_lost": "less loft",
    "loft_added": "more loft",
    "speed_lost": "less club speed",
    "speed_gained": "more club speed",
}
"""What a cause does to club and ball, by the ids of `EFFECT_WORDS` in `conclusions/chain.py`."""


def link_words(chain: tuple[str, ...], knowledge: Knowledge) -> tuple[str, ...]:
    """Every link of a chain in a few words: a cause, a mechanism, or an effect on club and ball."""

    def said(link: str) -> str:
        known = knowledge.cause.get(link) or knowledge.mechanism.get(link)
        return known.label if known else END_WORDS[link]

    return tuple(said(link) for link in chain)
