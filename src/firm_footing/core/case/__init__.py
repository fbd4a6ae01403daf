"""What was seen? The evidence of one lesson, as a file holds it and as the core uses it."""

from firm_footing.core.case.evidence import Block, Case, Reading, School, Shot, Stance, Trace
from firm_footing.core.case.file_format import CaseFile, FileShot
from firm_footing.core.case.film import Film, ScaleSeen
from firm_footing.core.case.mirror import from_file, neutral_shot, real_shot, to_file

__all__ = [
    "Block",
    "Case",
    "CaseFile",
    "FileShot",
    "Film",
    "Reading",
    "ScaleSeen",
    "School",
    "Shot",
    "Stance",
    "Trace",
    "from_file",
    "neutral_shot",
    "real_shot",
    "to_file",
]
