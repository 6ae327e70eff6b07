"""A picture as a device sends it, made into the one we keep."""

from __future__ import annotations

import io
from typing import BinaryIO, Final, NamedTuple

from PIL import Image, ImageOps

from apps.workshops.errors import Refused

__all__ = ["LONGEST_SIDE", "MOST_BYTES_IN", "Kept", "take_in"]

MOST_BYTES_IN: Final = 15 * 1024 * 1024
MOST_PIXELS: Final = {"JPEG": 80_000_000, "MPO": 80_000_000, "PNG": 25_000_000, "WEBP": 25_000_000}
"""By what a decoder needs: a JPEG is decoded at the size wanted, the others whole."""
LONGEST_SIDE: Final = 1600
QUALITY: Final = 80


class Kept(NamedTuple):
    jpeg: bytes
    width: int
    height: int


def take_in(sent: BinaryIO, size: int) -> Kept:
    """The picture upright, no longer than `LONGEST_SIDE`, as JPEG without anything else the camera wrote into it.

    Its size is read from the header before anything is decoded.

    Raises
    ------
    Refused
        what is too big, no picture of a kind that is taken, or a broken one.
    """
    if size > MOST_BYTES_IN:
        raise Refused("photo_too_big", f"Photos of up to {MOST_BYTES_IN // 1024**2} MB are taken.", 413)
    try:
        with Image.open(sent, formats=("JPEG", "PNG", "WEBP")) as picture:
            most = MOST_PIXELS.get(picture.format or "", 0)
            if picture.width * picture.height > most:
                raise Refused("photo_too_big", f"Photos of up to {most // 1_000_000} megapixels are taken.", 413)
            picture.draft("RGB", (LONGEST_SIDE, LONGEST_SIDE))
            picture.thumbnail((LONGEST_SIDE, LONGEST_SIDE))
            return _as_jpeg(ImageOps.exif_transpose(picture))
    except Image.DecompressionBombError as error:
        raise Refused("photo_too_big", "That picture is far larger than any photo.", 413) from error
    except (OSError, SyntaxError, ValueError) as error:
        raise Refused("no_photo", "This cannot be read as a photo. JPEG, PNG and WebP are taken.", 422) from error


def _as_jpeg(picture: Image.Image) -> Kept:
    clean = Image.new("RGB", picture.size, "white")  # a fresh one carries nothing over but what is seen
    whole = picture.convert("RGBA")
    clean.paste(whole, mask=whole.getchannel("A"))
    file = io.BytesIO()
    clean.save(file, "JPEG", quality=QUALITY)
    return Kept(file.getvalue(), *clean.size)
