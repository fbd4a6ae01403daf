"""Films as phones and recorders write them at their worst."""

from fractions import Fraction
from pathlib import Path

import av
import numpy as np

SIZE = (180, 320)
TICKS = 90_000
MATRIX_AT = 40
"""Of the transformation in an MP4's track header, from its version on."""
QUARTER_TURN = (0, 0x10000, 0, -0x10000 & 0xFFFFFFFF, 0, 0, 0, 0, 0x40000000)


def _picture(i: int, size: tuple[int, int]) -> av.VideoFrame:
    """A bar that goes to the right, picture by picture."""
    wide, high = size
    pixels = np.full((high, wide, 3), 110, np.uint8)
    pixels[:, (4 * i) % wide :][:, :12] = 230
    return av.VideoFrame.from_ndarray(pixels, format="rgb24")


def _write(to: Path, times: list[float], codec: str = "libx264", pix: str = "yuv420p") -> None:
    with av.open(str(to), "w") as out:
        stream = out.add_stream(codec, rate=120)
        stream.width, stream.height = SIZE
        stream.pix_fmt = pix
        stream.time_base = stream.codec_context.time_base = Fraction(1, TICKS)
        for i, t in enumerate(times):
            frame = _picture(i, SIZE)
            frame.pts, frame.time_base = round(t * TICKS), Fraction(1, TICKS)
            out.mux(stream.encode(frame))
        out.mux(stream.encode(None))


def write_bad(made: str, to: Path) -> None:
    """A film that cannot be used: one picture, no picture, empty, cut off, HEVC."""
    if made == "empty":
        to.write_bytes(b"")
    elif made == "one picture":
        _write(to, [0.0])
    elif made == "hevc":
        _write(to, [i / 60 for i in range(60)], "libx265")
    elif made == "no picture":
        with av.open(str(to), "w") as out:
            stream = out.add_stream("aac", rate=44_100)
            stream.layout = "mono"
            for i in range(60):
                samples = np.zeros((1, 1024), np.float32)
                frame = av.AudioFrame.from_ndarray(samples, format="fltp", layout="mono")
                frame.sample_rate, frame.pts = 44_100, 1024 * i
                out.mux(stream.encode(frame))
            out.mux(stream.encode(None))
    else:
        _write(to, [i / 60 for i in range(120)])
        to.write_bytes(to.read_bytes()[:900])


def write_odd(made: str, to: Path) -> None:
    """A film that is right in its own way: when its pictures come, turned, ten bits a colour."""
    even = [i / 60 for i in range(120)]
    if made == "uneven":
        rng = np.random.default_rng(1)
        _write(to, list(np.cumsum(rng.uniform(0.012, 0.05, 90))))
    elif made == "238.1 a second":
        _write(to, [i / 238.1 for i in range(480)])
    elif made == "from 30 to 60":
        _write(to, [i / 30 for i in range(45)] + [1.5 + i / 60 for i in range(60)])
    elif made == "ten bits":
        _write(to, even, "libsvtav1", "yuv420p10le")
    else:
        _write(to, even)
        data = bytearray(to.read_bytes())
        at = data.index(b"tkhd") + 4 + MATRIX_AT
        data[at : at + 36] = b"".join(v.to_bytes(4, "big") for v in QUARTER_TURN)
        to.write_bytes(bytes(data))
