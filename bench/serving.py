"""The application on a database of its own, in a process of its own, while it is measured."""

import os
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import httpx


@contextmanager
def served(port: int) -> Iterator[int]:
    """Serve an empty database at this port until the block ends; the id of its process."""
    with tempfile.TemporaryDirectory() as folder:
        own = {**os.environ, "FIRM_FOOTING_DB": str(Path(folder) / "own.db")}
        command = [sys.executable, "-m", "firm_footing", "serve", "--port", str(port)]
        with subprocess.Popen(command, env=own, stdout=subprocess.DEVNULL) as server:
            try:
                wait_for(f"http://127.0.0.1:{port}")
                yield server.pid
            finally:
                server.terminate()


def wait_for(url: str) -> None:
    """Until the application answers there."""
    for _ in range(300):
        try:
            httpx.get(f"{url}/api/health", timeout=1)
        except httpx.HTTPError:
            time.sleep(0.1)
        else:
            return
    raise TimeoutError(url)
