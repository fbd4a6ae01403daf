"""How much of anything is taken in? One table, for files, the API and the core alike.

Far more than a lesson needs, and little enough that nothing of it makes the program slow or large.
"""

from typing import Final

BODY_BYTES: Final = 20_000_000
"""Of one request or file."""
NAME: Final = 200
"""Characters of a name."""
WORDS: Final = 2_000
"""Characters of what is said in one field."""
NOTE: Final = 20_000
"""Characters of a note."""
LIST: Final = 100
"""Entries of a list: misses, means at hand, equipment, beliefs, limits."""
BLOCKS: Final = 100
BALLS: Final = 2_000
"""In one lesson."""
ANSWERS: Final = 1_000
TRACES: Final = 100
FILMS: Final = 40
FILM_FRAMES: Final = 20_000
"""Of one film: more than a minute at the fastest rate."""
STILLS: Final = 2
STILL_BYTES: Final = 400_000
"""Of one still, as JPEG."""
STILL_PIXELS: Final = 20_000_000
"""Of a picture that becomes a still."""
SCALE_CM: Final = (0.1, 1000.0)
"""Of what gives a film its scale."""
CAMERA_CM: Final = (50.0, 5000.0)
"""Of the camera from the player."""
OFF_LINE_CM: Final = (-500.0, 500.0)
"""Of the camera beside its place, to the left and to the right."""
FELT_CM: Final = (-200.0, 200.0)
"""What a student believes of a measure."""
NOTES: Final = 500
REPETITIONS: Final = 5_000
SAMPLES: Final = 60_000
"""Of one trace: half a minute at the fastest rate."""
COLUMNS: Final = 200
TRACE_SECONDS: Final = 60.0
CELL: Final = 1_000
"""Characters of one cell or heading of a table."""
FIRST_YEAR, LAST_YEAR = 1900, 2199
