"""Lines as they are kept: read, or said to be unreadable; one that is takes no other with it."""

from __future__ import annotations

from collections.abc import Iterable, Iterator

from sqlalchemy.orm import Session

from bendrel.core.line.document import Line
from bendrel.exchange.documents.documents import line_from_value
from bendrel.exchange.errors import FileError
from bendrel.services.errors import Unreadable
from bendrel.store.lines import UnreadableDocument, document_at
from bendrel.store.models import LineRow


def present_line(session: Session, row: LineRow) -> Line:
    """The line as it is kept now. Raises Unreadable."""
    try:
        return line_from_value(document_at(session, row, row.head))
    except (UnreadableDocument, FileError) as error:
        said = str(error).rstrip(".")
        raise Unreadable(f"This line cannot be read: {said[0].lower()}{said[1:]}.") from error


def readable_lines(session: Session, rows: Iterable[LineRow]) -> Iterator[tuple[LineRow, Line]]:
    """Those that can be read; the board says which cannot."""
    for row in rows:
        try:
            yield row, present_line(session, row)
        except Unreadable:
            continue
