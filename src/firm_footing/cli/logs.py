"""Where is noted what goes wrong while it is served? In a file that never grows large."""

import logging
import os
from logging.handlers import RotatingFileHandler
from pathlib import Path
from typing import Final

BYTES: Final = 1_000_000
OLDER: Final = 3
"""Files kept beside the one that is written."""
NAMES: Final = ("uvicorn", "asyncio", "firm_footing")


def log_beside(database: Path) -> Path:
    """From now on warnings go into a file beside the database, its owner's only; which one."""
    file = database.with_name(f"{database.stem}.log")

    def only_its_owners(path: str, flags: int) -> int:
        return os.open(path, flags, 0o600)

    class OwnersHandler(RotatingFileHandler):
        def _open(self):  # type: ignore[no-untyped-def]
            return open(self.baseFilename, self.mode, encoding="utf-8", opener=only_its_owners)

    try:
        handler = OwnersHandler(file, maxBytes=BYTES, backupCount=OLDER, delay=False)
    except OSError:
        return file  # nothing can be noted there: the serving goes on, on standard error
    handler.setFormatter(logging.Formatter("%(asctime)s %(levelname)s %(name)s: %(message)s"))
    for name in NAMES:
        logger = logging.getLogger(name)
        logger.handlers, logger.propagate = [handler], False
        logger.setLevel(logging.WARNING)
    return file
