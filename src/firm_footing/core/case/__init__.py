"""What was seen? The evidence of one lesson, as a file holds it and as the core uses it."""

from firm_footing.core.case.evidence import Block, Case, Reading, School, Shot, Stance, Trace
from firm_footing.core.case.file_format import CaseFile
from firm_footing.core.case.mirror import from_file, to_file

__all__ = [
    "Block",
    "Case",
    "CaseFile",
    "Reading",
    "School",
    "Shot",
    "Stance",
    "Trace",
    "from_file",
    "to_file",
]
