"""One picture out of a film, as it is asked for in a case file."""

from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from firm_footing.core.case.base import Index, Strict, Word
from firm_footing.core.case.limits import STILL_BYTES
from firm_footing.core.knowledge.pressure import SwingEvent

Consent = Literal["student", "guardian"]
"""Who agreed to a picture's being kept."""
Jpeg = Annotated[
    str, StringConstraints(max_length=STILL_BYTES * 4 // 3 + 4, pattern=r"^[A-Za-z0-9+/]+=*$")
]


class FileStill(Strict):
    """A still with whom it was agreed with.

    film : index of the film it is out of; measure : what stands beside it
    """

    film: Index | None = None
    event: SwingEvent | None = None
    measure: Word | Annotated[str, Field(max_length=0)] = ""
    consent: Consent
    jpeg_base64: Jpeg
