"""A picture that comes in becomes a plain JPEG: small, and with nothing beside the picture."""

import base64
import binascii
import io

from PIL import Image, UnidentifiedImageError

from firm_footing.core.case.limits import STILL_BYTES, STILL_PIXELS

LONGEST = 1280
"""Pixels of the longer side of what is kept."""
QUALITIES = (85, 70, 50)


class StillError(ValueError):
    """What came is no picture that can be kept; the message says why."""


def plain_jpeg(encoded: str) -> str:
    """Base64 of any picture as base64 of a JPEG without what a camera writes beside it.

    Raises
    ------
    StillError
        It cannot be decoded, or has far too many pixels.

    """
    try:
        data = base64.b64decode(encoded, validate=True)
        with Image.open(io.BytesIO(data), formats=["JPEG", "PNG", "WEBP"]) as picture:
            if picture.width * picture.height > STILL_PIXELS:
                raise StillError("This picture is too large to be kept.")
            plain = picture.convert("RGB")
    except Image.DecompressionBombError as error:
        raise StillError("This picture is too large to be kept.") from error
    except (binascii.Error, UnidentifiedImageError, OSError, SyntaxError, ValueError) as error:
        if isinstance(error, StillError):
            raise
        raise StillError("This is no picture that can be read.") from error
    plain.info.clear()  # comments and the like would be written again
    plain.thumbnail((LONGEST, LONGEST))
    for quality in QUALITIES:
        out = io.BytesIO()
        plain.save(out, "JPEG", quality=quality, optimize=True)
        if out.tell() <= STILL_BYTES:
            return base64.b64encode(out.getvalue()).decode()
    raise StillError("This picture does not become small enough to be kept.")
