"""A whole job with its lines, bookings and photographs as one file, `*.bendrel.zip`."""

from __future__ import annotations

import io
import json
import lzma
import re
import zipfile
import zlib
from datetime import date, datetime
from typing import Annotated, Any, Literal

from annotated_types import Ge, Le, MaxLen, Predicate
from pydantic import TypeAdapter, ValidationError

from bendrel.catalogue.own import OwnFields, ShelfName
from bendrel.core.bend.bench.state import MakingState, Outcome
from bendrel.core.line.document import Line, Name
from bendrel.core.line.removal import RemovedItem
from bendrel.core.record import record
from bendrel.core.units.notation import Unit
from bendrel.exchange.documents.elements import MOST_IN_A_JOB, holds_over
from bendrel.exchange.documents.upgrade import up_to_date
from bendrel.exchange.documents.wrong import first_error
from bendrel.exchange.errors import FileError

MOST_BYTES = 60_000_000
MOST_ENTRIES = 600
MOST_JOB_BYTES = 20_000_000
MOST_PHOTO_BYTES = 15_000_000
MOST_UNPACKED = 120_000_000
JOB = "job.json"
_ID = re.compile(r"[0-9a-f]{8,32}")
_RUN = re.compile(r"runs/([0-9a-f]{8,32})\.csv")
_PHOTO = re.compile(r"photos/([0-9a-f]{32})\.jpg")

Account = Literal["planned", "extra", "own mistake"]


def is_id(text: str) -> bool:
    """Whether `text` can be the id of an own row."""
    return _ID.fullmatch(text) is not None


@record
class ArchivedBooking:
    """Time and material as booked."""

    account: Account
    what: Name
    minutes: Annotated[int, Ge(0), Le(100_000)] = 0
    material_cents: Annotated[int, Ge(0), Le(100_000_000)] = 0
    at: datetime


@record
class ArchivedMaking:
    """One making of a tube of line `line` (0 is the first): the document it was begun with, and what was
    kept."""

    line: Annotated[int, Ge(0)]
    span: Annotated[str, MaxLen(20)] = "s1"
    document: Line
    state: MakingState
    outcome: Outcome = ""
    at: datetime
    ended_at: datetime | None = None


@record
class ArchivedRun:
    """One run that proves line `line` (0 is the first); its readings lie beside it as `runs/<id>.csv`,
    counted from nothing where `absolute`, else from the air. `marks` are seconds and what happened."""

    id: Annotated[str, Predicate(is_id)]
    line: Annotated[int, Ge(0)]
    source: Literal["gauge", "file"]
    absolute: bool
    marks: Annotated[tuple[tuple[float, Annotated[str, MaxLen(200)]], ...], MaxLen(200)] = ()
    at: datetime
    ended_at: datetime | None = None


@record
class ArchivedSharedItem:
    """One thing of the job's strip-down; `lines` counts the job's lines from 0, none of them meaning
    all."""

    item: RemovedItem
    lines: Annotated[tuple[Annotated[int, Ge(0)], ...], MaxLen(100)] = ()


@record
class ArchivedOwn:
    """A catalogue row of the shop's own that a line of the job names as `own_<id>`."""

    id: Annotated[str, Predicate(is_id)]
    shelf: ShelfName
    fields: OwnFields


@record
class ArchivedTrial:
    """A test piece of an own bender, as typed."""

    bender: Annotated[str, MaxLen(80)]
    material: Annotated[str, MaxLen(40)]
    fields: Annotated[dict[Annotated[str, MaxLen(20)], Annotated[str, MaxLen(40)]], MaxLen(20)]


@record
class ArchivedJob:
    """A job as it is written: all that a person entered, and what of the shop's own it names. `line_ids`
    are the names by which ports speak of other lines of the job, one for each line; none in older files.
    `missing_photos` were named and not there when it was written, `unreadable` are lines that could not be
    read; they lie beside it as `unreadable/<id>.json`."""

    format: Literal["bendrel-job"] = "bendrel-job"
    version: Literal[1] = 1
    name: Name
    machine: Annotated[str, MaxLen(200)] = ""
    customer: Annotated[str, MaxLen(200)] = ""
    promised: date | None = None
    parked: Annotated[str, MaxLen(200)] = ""
    tried: Annotated[str, MaxLen(500)] = ""
    unit: Unit = "in"
    lines: Annotated[tuple[Line, ...], MaxLen(500)] = ()
    line_ids: Annotated[tuple[Annotated[str, MaxLen(40)], ...], MaxLen(500)] = ()
    bookings: Annotated[tuple[ArchivedBooking, ...], MaxLen(5000)] = ()
    makings: Annotated[tuple[ArchivedMaking, ...], MaxLen(2000)] = ()
    own: Annotated[tuple[ArchivedOwn, ...], MaxLen(500)] = ()
    trials: Annotated[tuple[ArchivedTrial, ...], MaxLen(2000)] = ()
    strip_down: Annotated[tuple[ArchivedSharedItem, ...], MaxLen(200)] = ()
    runs: Annotated[tuple[ArchivedRun, ...], MaxLen(200)] = ()
    missing_photos: Annotated[tuple[Annotated[str, MaxLen(40)], ...], MaxLen(5000)] = ()
    unreadable: Annotated[tuple[Annotated[str, MaxLen(40)], ...], MaxLen(500)] = ()


# the standard library raises NotImplementedError for a way of packing that it does not know
_BROKEN = (
    zipfile.BadZipFile, zipfile.LargeZipFile, zlib.error, lzma.LZMAError, ValueError, RuntimeError, EOFError,
    OSError, NotImplementedError,
)  # fmt: skip
_JOB: TypeAdapter[ArchivedJob] = TypeAdapter(ArchivedJob)


@record
class Beside:
    """What lies in an archive beside its `job.json`, by id: photographs, and readings of runs as CSV."""

    photos: dict[str, bytes]
    runs: dict[str, bytes]


def write_archive(
    job: ArchivedJob,
    photos: dict[str, bytes],
    runs: dict[str, bytes] | None = None,
    unreadable: dict[str, bytes] | None = None,
) -> bytes:
    """The job as a zip: `job.json`, `photos/<id>.jpg`, `runs/<id>.csv` and `unreadable/<id>.json`."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as file:
        file.writestr(JOB, _JOB.dump_json(job, indent=1))
        for name, data in photos.items():
            file.writestr(zipfile.ZipInfo(f"photos/{name}.jpg"), data)
        for name, data in (runs or {}).items():
            file.writestr(f"runs/{name}.csv", data)
        for name, data in (unreadable or {}).items():
            file.writestr(f"unreadable/{name}.json", data)
    return out.getvalue()


def read_archive(data: bytes) -> tuple[ArchivedJob, Beside]:
    """A job, its photographs and the readings of its runs as bytes. Nothing is unpacked beyond fixed limits,
    whatever the archive claims, and nothing is written. Raises FileError."""
    if len(data) > MOST_BYTES:
        raise FileError("The file is over 60 MB; a job with its photographs is smaller.")
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as file:
            entries = file.infolist()
            if len(entries) > MOST_ENTRIES:
                raise FileError(f"The archive holds over {MOST_ENTRIES} files; that is no job.")
            if JOB not in {entry.filename for entry in entries}:
                raise FileError("The archive has no job.json; export a job from Bendrel.")
            job = _job(_unpacked(file, JOB, MOST_JOB_BYTES))
            beside, total = Beside(photos={}, runs={}), 0
            for entry in entries:
                for pattern, kept in ((_PHOTO, beside.photos), (_RUN, beside.runs)):
                    found = pattern.fullmatch(entry.filename)
                    if found:
                        kept[found[1]] = _unpacked(file, entry.filename, MOST_PHOTO_BYTES)
                        total += len(kept[found[1]])
                if total > MOST_UNPACKED:
                    raise FileError("The archive unpacks to over 120 MB; that is no job.")
    except FileError:
        raise
    except _BROKEN as error:
        raise FileError("That is no job file that can be read; export a job from Bendrel.") from error
    return job, beside


def _unpacked(file: zipfile.ZipFile, name: str, most: int) -> bytes:
    """At most `most` bytes of one entry: what an archive says of its sizes is not believed."""
    with file.open(name) as entry:
        data = entry.read(most + 1)
    if len(data) > most:
        raise FileError(f"“{name[:40]}” in the archive unpacks to over {most // 1_000_000} MB.")
    return data


def _up_to_date(job: Any) -> Any:
    """Lines and makings of an earlier Bendrel as they are written now."""
    if not isinstance(job, dict):
        return job
    made = dict(job)
    if isinstance(lines := job.get("lines"), list):
        made["lines"] = [up_to_date(line) for line in lines]
    if isinstance(makings := job.get("makings"), list):
        made["makings"] = [
            {**one, "document": up_to_date(one.get("document"))} if isinstance(one, dict) else one
            for one in makings
        ]
    return made


def _job(data: bytes) -> ArchivedJob:
    if holds_over(data, MOST_IN_A_JOB):
        raise FileError(f"job.json in the archive holds over {MOST_IN_A_JOB:,} values; that is no job.")
    try:
        value: Any = _up_to_date(json.loads(data))
        return _JOB.validate_python(value, strict=False)
    except ValidationError as error:
        raise FileError(first_error(error, "a job")) from error
    except (ValueError, RecursionError) as error:
        raise FileError("job.json in the archive is not valid JSON.") from error
