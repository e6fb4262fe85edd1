"""What the board says of every line: worked out once for each version, and kept between starts."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from functools import cache
from hashlib import sha256
from importlib.resources import files
from importlib.resources.abc import Traversable
from typing import Any

from pydantic import TypeAdapter, ValidationError
from sqlalchemy import select
from sqlalchemy.orm import Session

from bendrel.services.reckoned.summarising import LineSummary, Unsaid, bare
from bendrel.services.shelf.shelf import Shelf
from bendrel.store.database import Database
from bendrel.store.lines import LineAt, kept_document
from bendrel.store.models import LineRow, SummaryRow

_SUMMARY = TypeAdapter(LineSummary)


@dataclass(frozen=True)
class _Told:
    """What is said, of which version, by which rules and shelf."""

    version: int
    stamp: str
    summary: LineSummary


class Summaries:
    """Summaries by line. A version of a line never changes, so neither does what is said of it by the same
    rules and shelf. What was said before stays until it is worked out anew."""

    def __init__(self, database: Database, shelf: Shelf) -> None:
        self._database = database
        self._shelf = shelf
        self._told: dict[str, _Told] = {}
        self._named: dict[str, tuple[int, LineSummary]] = {}
        self._read = False
        self.count = 0
        """Goes up whenever something else is said."""

    @property
    def stamp(self) -> str:
        """Names the rules and the shelf that hold now."""
        return sha256(f"{rules_stamp()} {self._shelf.stamp}".encode()).hexdigest()

    def lacking(self, session: Session, lines: Iterable[LineAt]) -> list[LineAt]:
        """Those of which nothing is said that holds now."""
        if not self._read:
            self._take_over(session)
        stamp = self.stamp
        return [line for line in lines if not self._holds(line.id, line.version, stamp)]

    def keep(self, stamp: str, unsaid: Sequence[Unsaid], summaries: Sequence[LineSummary]) -> None:
        """Say it from now on, and write it down."""
        for one, summary in zip(unsaid, summaries, strict=True):
            self._told[one.id] = _Told(one.version, stamp, summary)
            self._named.pop(one.id, None)
        self.count += 1
        if not unsaid:
            return
        with self._database.writing(counts=False) as session:
            ids = [one.id for one in unsaid]
            present = set(session.scalars(select(LineRow.id).where(LineRow.id.in_(ids))))
            for one, summary in zip(unsaid, summaries, strict=True):
                if one.id in present:
                    value = _SUMMARY.dump_python(summary, mode="json")
                    session.merge(SummaryRow(line_id=one.id, version=one.version, stamp=stamp, summary=value))

    def told(self, line: LineAt, stamp: str, session: Session) -> LineSummary:
        """What is said of a line: what holds by `stamp`, or what was said before, marked, or its name
        alone."""
        known = self._told.get(line.id)
        if known is None:
            version, name = self._named.get(line.id, (-1, None))
            if name is None or version != line.version:
                name = replace(bare(unsaid_of(session, line), step="being worked out"), reckoned=False)
                self._named[line.id] = line.version, name
            return name
        if known.version == line.version and known.stamp == stamp:
            return known.summary
        return replace(known.summary, reckoned=False, updated_at=line.updated_at, version=line.version)

    def _holds(self, line_id: str, version: int, stamp: str) -> bool:
        known = self._told.get(line_id)
        return known is not None and known.version == version and known.stamp == stamp

    def _take_over(self, session: Session) -> None:
        """What was written down by an earlier start."""
        query = select(SummaryRow.line_id, SummaryRow.version, SummaryRow.stamp, SummaryRow.summary)
        for line_id, version, stamp, value in session.execute(query):
            try:
                self._told[line_id] = _Told(version, stamp, _SUMMARY.validate_python(value))
            except ValidationError:
                continue  # of an earlier Bendrel
        self._read = True


def unsaid_of(session: Session, line: LineAt) -> Unsaid:
    """A line with its document, readable or not."""
    document: Any = kept_document(session, line.id, line.head)
    return Unsaid(
        id=line.id,
        version=line.version,
        updated_at=line.updated_at,
        document=document if isinstance(document, dict) else None,
    )


@cache
def rules_stamp() -> str:
    """A fingerprint of the core and the catalogue: any change to a rule makes another."""
    digest = sha256()
    for folder in ("core", "catalogue"):
        _add(digest, files("bendrel") / folder)
    return digest.hexdigest()


def _add(digest: Any, place: Traversable) -> None:
    for item in sorted(place.iterdir(), key=lambda entry: entry.name):
        if item.is_dir():
            if item.name != "__pycache__":
                _add(digest, item)
        else:
            digest.update(item.name.encode() + item.read_bytes())
