"""Photographs: kept as files beside the database, named by their content."""

from __future__ import annotations

from collections.abc import Sequence
from hashlib import sha256
from pathlib import Path

from bendrel.core.line.document import Line
from bendrel.core.record import record
from bendrel.exchange.readings.pictures import Picture, read_picture, read_pictures
from bendrel.services.errors import NotFound
from bendrel.services.reckoned.apart import READING, apart
from bendrel.store.backup import photos_beside
from bendrel.store.database import Database
from bendrel.store.models import PhotoRow
from bendrel.store.photos import write_photo

AT_A_TIME = 8
"""So many of an archive's photographs are read in one process."""


@record
class Photo:
    """A kept photograph."""

    id: str
    width: int
    height: int


class Photos:
    """Use cases on photographs. Raises NotFound and FileError."""

    def __init__(self, database: Database) -> None:
        self._database = database
        self._folder = photos_beside(database.path)

    def keep(self, data: bytes) -> Photo:
        """Check, scale and keep a photograph; the same one twice is kept once."""
        picture: Picture = apart(READING, read_picture, data)
        return self.put_down(picture)

    def read_all(self, files: Sequence[bytes]) -> list[Picture]:
        """Check and scale many, some at a time; nothing is kept."""
        read: list[Picture] = []
        for start in range(0, len(files), AT_A_TIME):
            read += apart(READING.times(AT_A_TIME), read_pictures, files[start : start + AT_A_TIME])
        return read

    def put_down(self, picture: Picture) -> Photo:
        """Keep one that has been read; it is on the disk when this returns."""
        name = sha256(picture.data).hexdigest()[:32]
        write_photo(self._folder, name, picture.data)
        with self._database.writing() as session:
            if session.get(PhotoRow, name) is None:
                session.add(
                    PhotoRow(id=name, width=picture.width, height=picture.height, bytes=len(picture.data))
                )
        return Photo(id=name, width=picture.width, height=picture.height)

    def path(self, photo_id: str) -> Path:
        """Where the file of a photograph lies."""
        with self._database.reading() as session:
            row = session.get(PhotoRow, photo_id)
        path = self._folder / f"{photo_id}.jpg"
        if row is None or not path.is_file():
            raise NotFound("There is no such photograph; it may not have come along with the line.")
        return path


def photos_of(line: Line) -> tuple[str, ...]:
    """The photographs that a line speaks of, each once."""
    named = [item.photo for item in line.removal.items]
    named += [damage.photo for damage in line.condition.damage]
    named += [fixture.photo for fixture in line.condition.fixtures]
    named = [*line.proving.photos, *named]
    return tuple(dict.fromkeys(name for name in named if name))
