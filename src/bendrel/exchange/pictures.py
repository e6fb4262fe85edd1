"""Photographs on the way in: checked, turned upright, scaled, and written anew as JPEG."""

from __future__ import annotations

import io
import warnings
from dataclasses import dataclass

from PIL import Image, ImageOps

from bendrel.exchange.errors import FileError

MOST_BYTES = 15_000_000
MOST_PIXELS = 60_000_000
LONGEST_SIDE = 1600
FORMATS = ("JPEG", "PNG", "WEBP")


@dataclass(frozen=True)
class Picture:
    """A photograph ready to be kept: JPEG bytes and its size in pixels."""

    data: bytes
    width: int
    height: int


def read_picture(data: bytes) -> Picture:
    """A photograph from JPEG, PNG or WebP bytes, at most 1600 pixels long.

    Nothing of the original file is kept but its pixels: no place, no camera, no script. Raises
    FileError.
    """
    if len(data) > MOST_BYTES:
        raise FileError("The photograph is over 15 MB; take a smaller one.")
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("error", Image.DecompressionBombWarning)
            with Image.open(io.BytesIO(data), formats=FORMATS) as opened:
                if opened.width * opened.height > MOST_PIXELS:
                    raise FileError("The photograph has over 60 million pixels; take a smaller one.")
                upright = ImageOps.exif_transpose(opened).convert("RGB")
    except FileError:
        raise
    except (Image.DecompressionBombError, Image.DecompressionBombWarning) as error:
        raise FileError("The photograph has over 60 million pixels; take a smaller one.") from error
    except Exception as error:  # a broken picture breaks its decoder in ways that have no common class
        raise FileError("That is no photograph that can be read; JPEG, PNG or WebP is accepted.") from error
    upright.thumbnail((LONGEST_SIDE, LONGEST_SIDE))
    out = io.BytesIO()
    upright.save(out, "JPEG", quality=84, optimize=True)
    return Picture(data=out.getvalue(), width=upright.width, height=upright.height)
