"""When is what was deleted gone from the disk too?

Who reads all of a database, for an export, keeps the deleted in the file beside it until they are
done. Then it goes.
"""

import time
import weakref
from threading import Thread
from typing import Final

from sqlalchemy import Engine
from sqlalchemy.exc import SQLAlchemyError

from firm_footing.store.database import into_one_file

AGAIN_S: Final = 0.5
_ERASING: Final[weakref.WeakSet[Engine]] = weakref.WeakSet()


def erase(engine: Engine) -> None:
    """Leave nothing of the deleted beside the file: now, or as soon as nobody reads any more."""
    if into_one_file(engine) or engine in _ERASING:
        return
    _ERASING.add(engine)
    Thread(target=_erase_later, args=(weakref.ref(engine),), daemon=True).start()


def is_erasing(engine: Engine) -> bool:
    """Whether something deleted still stands beside the file."""
    return engine in _ERASING


def _erase_later(of: "weakref.ref[Engine]") -> None:
    while (engine := of()) is not None:
        try:
            if into_one_file(engine):
                break
        except SQLAlchemyError:
            break  # it was closed, which leaves one file
        del engine
        time.sleep(AGAIN_S)
    if engine is not None:
        _ERASING.discard(engine)
