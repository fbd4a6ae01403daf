"""Balls in a table: comma-separated files of any launch monitor in, our own out.

    text ──► table (headings, rows) ──► columns (which field, unit, sign) ──► balls, bad rows

Columns are guessed from headings, units and numbers (`headings.py`, `columns.py`); the guess is
shown and can be put right. What can hardly be true is named before it goes in.
"""

from firm_footing.files.shot_tables.balls import BadCell, Read, TableBall, balls_of
from firm_footing.files.shot_tables.columns import Column, fingerprint, guess, unit_of
from firm_footing.files.shot_tables.headings import FIELDS, UNITS, Field
from firm_footing.files.shot_tables.writing import write_balls
from firm_footing.files.text_tables import Table, TableError, read_table

__all__ = [
    "FIELDS",
    "UNITS",
    "BadCell",
    "Column",
    "Field",
    "Read",
    "Table",
    "TableBall",
    "TableError",
    "balls_of",
    "fingerprint",
    "guess",
    "read_table",
    "unit_of",
    "write_balls",
]
