"""The whole shop as one file, `*.bendrel-shop.zip`: jobs with their undo, stock, own rows, tools, preferences
and photographs; and into an empty shop, checked against what was written."""

from __future__ import annotations

import io
import json
import shutil
import zipfile
from collections.abc import Iterator
from hashlib import sha256
from pathlib import Path
from typing import Any
from uuid import uuid4

from PIL import Image

from bendrel.core.errors import BendrelError
from bendrel.core.record import record
from bendrel.exchange.errors import FileError
from bendrel.exchange.readings.pictures import check_size
from bendrel.services.kept.legible import illegible
from bendrel.services.reckoned.apart import Bounds, apart
from bendrel.services.shelf.shelf import Shelf
from bendrel.store.backup import photos_beside
from bendrel.store.database import Database
from bendrel.store.photos import write_photo
from bendrel.store.sweep import WAY_IN, WAY_OUT
from bendrel.store.whole import TABLES, Strange, dump, fill, revision_of, sound, take_over

FORMAT, VERSION = "bendrel-shop", 1
MANIFEST = "shop.json"
MOST_MANIFEST = 20_000_000
MOST_LINE = 8_000_000
MOST_UNPACKED = 4_000_000_000
MOST_PHOTO = 15_000_000
UNPACKING = Bounds(300.0, 600, "That file takes too much time or memory to read; it is no shop of Bendrel.")


@record
class WholeShop:
    """What a shop's file brought: how many rows a table, and the photographs that are named in it and were
    not there when it was written."""

    rows: dict[str, int]
    photos: int
    missing_photos: int


class WholeShops:
    """Use cases on the whole shop. Raises Refused and FileError."""

    def __init__(self, database: Database, shelf: Shelf) -> None:
        self._database = database
        self._shelf = shelf

    def write(self) -> Path:
        """Write everything into a file that the caller removes."""
        path, photos = self._beside(WAY_OUT), photos_beside(self._database.path)
        copy = path.with_suffix(".db.part")
        try:
            self._database.copy_to(copy)  # one moment of it, while work goes on
            with zipfile.ZipFile(path, "w", zipfile.ZIP_DEFLATED) as file:
                write_shop(file, copy, photos)
        except BaseException:
            path.unlink(missing_ok=True)
            raise
        finally:
            _gone(copy)
        return path

    def bring_in(self, path: Path) -> WholeShop:
        """Take over a file that was written by `write`, whole or not at all."""
        made = self._beside(WAY_IN).with_suffix(".db.part")
        photos = made.with_suffix("")
        try:
            told: WholeShop = apart(UNPACKING, unpack_shop, path, made, photos)
            for photo in sorted(photos.glob("*.jpg")):
                write_photo(photos_beside(self._database.path), photo.stem, photo.read_bytes())
            take_over(self._database.path, made)
            self._database.changes += 1
        finally:
            _gone(made)
            shutil.rmtree(photos, ignore_errors=True)
        self._shelf.read_anew()
        return told

    def _beside(self, way: str) -> Path:
        return self._database.path.parent / f"{way}{uuid4().hex[:8]}.part"


def _gone(database: Path) -> None:
    """Remove a database of our own making with what SQLite leaves beside it."""
    for beside in ("", "-wal", "-shm", "-journal"):
        database.with_name(database.name + beside).unlink(missing_ok=True)


def write_shop(file: zipfile.ZipFile, database: Path, photos: Path) -> None:
    """All tables, all photographs that they name, and last what was written."""
    sums: dict[str, str] = {}
    rows: dict[str, int] = {}
    for table in TABLES:
        name, digest, count = f"tables/{table}.jsonl", sha256(), -1
        with file.open(name, "w", force_zip64=True) as entry:
            for line in dump(database, table):
                entry.write(line)
                digest.update(line)
                count += 1
        sums[name], rows[table] = digest.hexdigest(), count
    missing = []
    for number, line in enumerate(dump(database, "photos")):
        photo = json.loads(line)[0]
        if number == 0:
            continue
        path = photos / f"{photo}.jpg"
        if path.is_file():
            file.write(path, f"photos/{photo}.jpg", compress_type=zipfile.ZIP_STORED)
        else:
            missing.append(photo)
    manifest = {
        "format": FORMAT,
        "version": VERSION,
        "tables": revision_of(database),
        "rows": rows,
        "sha256": sums,
        "missing_photos": missing,
    }
    file.writestr(MANIFEST, json.dumps(manifest, indent=1))


_BROKEN = (zipfile.BadZipFile, zipfile.LargeZipFile, ValueError, RuntimeError, EOFError, OSError, KeyError)


def unpack_shop(path: Path, database: Path, photos: Path) -> WholeShop:
    """Build the database and the folder of photographs that a file describes, and hold them against what it
    says was written. Raises FileError."""
    try:
        with zipfile.ZipFile(path) as file:
            if sum(entry.file_size for entry in file.infolist()) > MOST_UNPACKED:
                raise FileError("The file unpacks to over 4 GB; that is no shop.")
            manifest = _manifest(file)
            Database(database).close()
            if manifest["tables"] != revision_of(database):
                raise FileError("The file is of another version of Bendrel; bring it into that one.")
            for table in TABLES:
                with file.open(f"tables/{table}.jsonl") as entry:
                    fill(database, table, _lines(entry))
            kept = _unpack_photos(file, photos)
    except BendrelError:
        raise
    except _BROKEN as error:
        raise FileError("That is no shop that can be read; export everything from Bendrel.") from error
    if not sound(database):
        raise FileError("Rows of the file name others that are not in it; nothing was brought in.")
    wrong = illegible(database)
    if wrong:
        raise FileError(f"A row of {wrong} in the file cannot be read; nothing was brought in.")
    for table in TABLES:
        digest = sha256()
        for line in dump(database, table):
            digest.update(line)
        if digest.hexdigest() != manifest["sha256"].get(f"tables/{table}.jsonl"):
            raise FileError(f"What was written of {table} is not what the file holds; nothing is kept.")
    rows = {table: int(manifest["rows"].get(table, 0)) for table in TABLES}
    return WholeShop(rows=rows, photos=kept, missing_photos=max(0, rows["photos"] - kept))


def _manifest(file: zipfile.ZipFile) -> dict[str, Any]:
    with file.open(MANIFEST) as entry:
        data = entry.read(MOST_MANIFEST + 1)
    told = json.loads(data) if len(data) <= MOST_MANIFEST else None
    named = ("tables", "rows", "sha256")
    if not isinstance(told, dict) or told.get("format") != FORMAT or not all(name in told for name in named):
        raise FileError("That is no shop of Bendrel; export everything on its bench board.")
    if told.get("version") != VERSION or not all(isinstance(told[name], dict) for name in named[1:]):
        raise FileError("The file is of a newer Bendrel; open it in that one.")
    return told


def _lines(entry: Any) -> Iterator[bytes]:
    while line := entry.readline(MOST_LINE + 1):
        if len(line) > MOST_LINE:
            raise Strange("A row of the file is over 8 MB.")
        yield line


def _unpack_photos(file: zipfile.ZipFile, folder: Path) -> int:
    """Photographs that are what their name says. Returns how many."""
    count = 0
    for entry in file.infolist():
        name = entry.filename.removeprefix("photos/")
        if name == entry.filename:
            continue
        with file.open(entry) as opened:
            data = opened.read(MOST_PHOTO + 1)
        if len(data) > MOST_PHOTO or name != f"{sha256(data).hexdigest()[:32]}.jpg":
            raise FileError(f"The photograph “{name[:40]}” is not what its name says.")
        with Image.open(io.BytesIO(data), formats=("JPEG",)) as picture:
            check_size(picture, data)
        write_photo(folder, name.removesuffix(".jpg"), data)
        count += 1
    return count
