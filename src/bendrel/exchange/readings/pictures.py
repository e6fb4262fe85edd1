"""Photographs on the way in: checked, turned upright, scaled, and written anew as JPEG."""

from __future__ import annotations

import io
import warnings
from collections.abc import Sequence
from dataclasses import dataclass

from PIL import Image, ImageOps

from bendrel.exchange.errors import FileError

MOST_BYTES = 15_000_000
MOST_PIXELS = 60_000_000
MOST_PIXELS_UNSCALED = 25_000_000
"""Of formats that cannot be read at a smaller scale."""
MOST_SIDE = 20_000
MOST_SCANS = 40
"""A JPEG that sharpens in steps has about ten; each costs as much time as the whole picture."""
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
                check_size(opened, data)
                opened.draft("RGB", (LONGEST_SIDE, LONGEST_SIDE))  # a JPEG is read no larger than needed
                opened.thumbnail((LONGEST_SIDE, LONGEST_SIDE))
                upright = ImageOps.exif_transpose(opened).convert("RGB")
    except FileError:
        raise
    except (Image.DecompressionBombError, Image.DecompressionBombWarning) as error:
        raise FileError("The photograph has over 60 million pixels; take a smaller one.") from error
    except Exception as error:  # a broken picture breaks its decoder in ways that have no common class
        raise FileError("That is no photograph that can be read; JPEG, PNG or WebP is accepted.") from error
    out = io.BytesIO()
    upright.save(out, "JPEG", quality=84, optimize=True)
    return Picture(data=out.getvalue(), width=upright.width, height=upright.height)


def read_pictures(files: Sequence[bytes]) -> list[Picture]:
    """Several photographs; what is wrong with one refuses them all. Raises FileError."""
    return [read_picture(data) for data in files]


def check_size(opened: Image.Image, data: bytes) -> None:
    """Refuse by what the file says of itself, before anything is unpacked. Raises FileError."""
    if max(opened.size) > MOST_SIDE:
        raise FileError(f"A side of the photograph is over {MOST_SIDE:,} pixels; take a smaller one.")
    most = MOST_PIXELS if opened.format == "JPEG" else MOST_PIXELS_UNSCALED
    if opened.width * opened.height > most:
        raise FileError(f"The photograph has over {most // 1_000_000} million pixels; take a smaller one.")
    if opened.format == "JPEG" and data.count(_SCAN) > MOST_SCANS:
        raise FileError(f"The photograph is put together from over {MOST_SCANS} scans; save it anew.")


_SCAN = b"\xff\xda"
"""Begins a scan; in what is packed, 0xff is always followed by 0: ITU-T T.81, B.1.1."""
