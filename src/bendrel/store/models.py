"""Tables. A line is one document with a version; every change to it is a step that can be undone."""

from __future__ import annotations

from datetime import UTC, date, datetime
from typing import Any
from uuid import uuid4

from sqlalchemy import JSON, Date, DateTime, ForeignKey, LargeBinary, String, Text, UniqueConstraint
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column, relationship


def new_id() -> str:
    """A short random id, safe in an address."""
    return uuid4().hex[:16]


def now() -> datetime:
    """The present moment in UTC, without a zone: SQLite keeps none. What is kept is told apart by it."""
    return datetime.now(UTC).replace(tzinfo=None)


class Base(DeclarativeBase):
    """All tables."""


class Job(Base):
    """A machine in the shop and why it is there."""

    __tablename__ = "jobs"

    id: Mapped[str] = mapped_column(String(32), primary_key=True, default=new_id)
    name: Mapped[str] = mapped_column(String(120))
    machine: Mapped[str] = mapped_column(String(200), default="")
    customer: Mapped[str] = mapped_column(String(200), default="", server_default="")
    promised: Mapped[date | None] = mapped_column(Date, default=None)
    parked: Mapped[str] = mapped_column(String(200), default="", server_default="")
    tried: Mapped[str] = mapped_column(String(500), default="", server_default="")
    unit: Mapped[str] = mapped_column(String(2), default="in")
    version: Mapped[int] = mapped_column(default=1)
    created_at: Mapped[datetime] = mapped_column(DateTime, default=now)
    updated_at: Mapped[datetime] = mapped_column(DateTime, default=now)
    deleted_at: Mapped[datetime | None] = mapped_column(DateTime, default=None)
    lines: Mapped[list[LineRow]] = relationship(
        back_populates="job", order_by="LineRow.place", cascade="all, delete-orphan"
    )
    bookings: Mapped[list[BookingRow]] = relationship(
        back_populates="job", order_by="BookingRow.at", cascade="all, delete-orphan"
    )


class StripDownRow(Base):
    """The one strip-down log of a job."""

    __tablename__ = "strip_downs"

    job_id: Mapped[str] = mapped_column(ForeignKey("jobs.id", ondelete="CASCADE"), primary_key=True)
    version: Mapped[int] = mapped_column(default=1)
    log: Mapped[dict[str, Any]] = mapped_column(JSON)
    updated_at: Mapped[datetime] = mapped_column(DateTime, default=now)


class BookingRow(Base):
    """Time and material on a job, booked to whoever pays for it."""

    __tablename__ = "bookings"

    id: Mapped[str] = mapped_column(String(32), primary_key=True, default=new_id)
    job_id: Mapped[str] = mapped_column(ForeignKey("jobs.id", ondelete="CASCADE"), index=True)
    account: Mapped[str] = mapped_column(String(20))
    what: Mapped[str] = mapped_column(String(200))
    minutes: Mapped[int] = mapped_column(default=0)
    material_cents: Mapped[int] = mapped_column(default=0)
    at: Mapped[datetime] = mapped_column(DateTime, default=now)
    deleted_at: Mapped[datetime | None] = mapped_column(DateTime, default=None)
    job: Mapped[Job] = relationship(back_populates="bookings")


class PhotoRow(Base):
    """A photograph kept beside the database under its own name, found by what is in it."""

    __tablename__ = "photos"

    id: Mapped[str] = mapped_column(String(40), primary_key=True)
    width: Mapped[int]
    height: Mapped[int]
    bytes: Mapped[int]
    at: Mapped[datetime] = mapped_column(DateTime, default=now)


class LineRow(Base):
    """One line of a job. `head` is the step that holds the present document."""

    __tablename__ = "lines"

    id: Mapped[str] = mapped_column(String(32), primary_key=True, default=new_id)
    job_id: Mapped[str] = mapped_column(ForeignKey("jobs.id", ondelete="CASCADE"), index=True)
    place: Mapped[int] = mapped_column(default=0)
    version: Mapped[int] = mapped_column(default=1)
    head: Mapped[int] = mapped_column(default=1)
    created_at: Mapped[datetime] = mapped_column(DateTime, default=now)
    updated_at: Mapped[datetime] = mapped_column(DateTime, default=now)
    deleted_at: Mapped[datetime | None] = mapped_column(DateTime, default=None)
    job: Mapped[Job] = relationship(back_populates="lines")
    steps: Mapped[list[LineStep]] = relationship(
        back_populates="line", order_by="LineStep.seq", cascade="all, delete-orphan"
    )


class SummaryRow(Base):
    """What the board says of one version of a line, kept so that a start need not plan every line
    again. `stamp` names the rules that it was worked out by; another stamp makes it worthless."""

    __tablename__ = "line_summaries"

    line_id: Mapped[str] = mapped_column(ForeignKey("lines.id", ondelete="CASCADE"), primary_key=True)
    version: Mapped[int]
    stamp: Mapped[str] = mapped_column(String(64))
    summary: Mapped[dict[str, Any]] = mapped_column(JSON)


class LineStep(Base):
    """One change to a line: the whole document after it."""

    __tablename__ = "line_steps"
    __table_args__ = (UniqueConstraint("line_id", "seq"),)

    id: Mapped[int] = mapped_column(primary_key=True, autoincrement=True)
    line_id: Mapped[str] = mapped_column(ForeignKey("lines.id", ondelete="CASCADE"), index=True)
    seq: Mapped[int]
    at: Mapped[datetime] = mapped_column(DateTime, default=now)
    document: Mapped[dict[str, Any]] = mapped_column(JSON)
    line: Mapped[LineRow] = relationship(back_populates="steps")


class OwnEntry(Base):
    """One catalogue row of the shop's own, as typed."""

    __tablename__ = "own_entries"

    id: Mapped[str] = mapped_column(String(32), primary_key=True, default=new_id)
    shelf: Mapped[str] = mapped_column(String(20))
    fields: Mapped[dict[str, str]] = mapped_column(JSON)
    version: Mapped[int] = mapped_column(default=1)
    at: Mapped[datetime] = mapped_column(DateTime, default=now)
    deleted_at: Mapped[datetime | None] = mapped_column(DateTime, default=None)


class TrialRow(Base):
    """One test piece bent on a tool in one material, its readings as typed."""

    __tablename__ = "trials"

    id: Mapped[str] = mapped_column(String(32), primary_key=True, default=new_id)
    bender: Mapped[str] = mapped_column(String(80))
    material: Mapped[str] = mapped_column(String(40))
    fields: Mapped[dict[str, str]] = mapped_column(JSON)
    at: Mapped[datetime] = mapped_column(DateTime, default=now)
    deleted_at: Mapped[datetime | None] = mapped_column(DateTime, default=None)


class MakingRow(Base):
    """One making of a tube of a line (`span`): the document it was begun with, how far it is, and how far
    what was read at the tool was from what was told."""

    __tablename__ = "makings"

    id: Mapped[str] = mapped_column(String(32), primary_key=True, default=new_id)
    line_id: Mapped[str] = mapped_column(ForeignKey("lines.id", ondelete="CASCADE"), index=True)
    span: Mapped[str] = mapped_column(String(20), default="s1", server_default="s1")
    document: Mapped[dict[str, Any]] = mapped_column(JSON)
    state: Mapped[dict[str, Any]] = mapped_column(JSON)
    departures: Mapped[list[Any]] = mapped_column(JSON)
    version: Mapped[int] = mapped_column(default=1)
    outcome: Mapped[str] = mapped_column(String(20), default="")
    at: Mapped[datetime] = mapped_column(DateTime, default=now)
    ended_at: Mapped[datetime | None] = mapped_column(DateTime, default=None)


class ProofRunRow(Base):
    """One run of a pressure gauge (or a file of readings) that proves a line. `absolute` says that its
    pressures count from nothing; `marks` are [seconds, text] pairs."""

    __tablename__ = "proof_runs"

    id: Mapped[str] = mapped_column(String(32), primary_key=True, default=new_id)
    line_id: Mapped[str] = mapped_column(ForeignKey("lines.id", ondelete="CASCADE"), index=True)
    source: Mapped[str] = mapped_column(String(12))
    absolute: Mapped[bool] = mapped_column(default=False)
    marks: Mapped[list[Any]] = mapped_column(JSON)
    at: Mapped[datetime] = mapped_column(DateTime, default=now)
    ended_at: Mapped[datetime | None] = mapped_column(DateTime, default=None)


class ProofChunk(Base):
    """About a second's readings of a run: rows of seconds, kPa and °C as 64-bit floats."""

    __tablename__ = "proof_chunks"

    id: Mapped[int] = mapped_column(primary_key=True, autoincrement=True)
    run_id: Mapped[str] = mapped_column(ForeignKey("proof_runs.id", ondelete="CASCADE"), index=True)
    count: Mapped[int]
    readings: Mapped[bytes] = mapped_column(LargeBinary)


class StockRow(Base):
    """One entry of sticks, a coil or offcuts under one label. How many lie there, and how much of a coil, is
    what its moves add up to; `length_mm` is one piece, of a coil as it came."""

    __tablename__ = "stock"

    id: Mapped[str] = mapped_column(String(32), primary_key=True, default=new_id)
    tube: Mapped[str] = mapped_column(String(80))
    form: Mapped[str] = mapped_column(String(12))
    length_mm: Mapped[float]
    label: Mapped[str] = mapped_column(String(20), default="")
    finished: Mapped[str] = mapped_column(String(120), default="")
    note: Mapped[str] = mapped_column(String(120), default="")
    version: Mapped[int] = mapped_column(default=1, server_default="1")
    at: Mapped[datetime] = mapped_column(DateTime, default=now)


class StockMove(Base):
    """Something came to an entry or went: `pieces`, and of a coil `mm`, are what it adds. Moves are never
    changed; what a cutting took names it."""

    __tablename__ = "stock_moves"

    id: Mapped[int] = mapped_column(primary_key=True, autoincrement=True)
    stock_id: Mapped[str] = mapped_column(ForeignKey("stock.id", ondelete="CASCADE"), index=True)
    kind: Mapped[str] = mapped_column(String(12))
    pieces: Mapped[int]
    mm: Mapped[float]
    cutting_id: Mapped[str] = mapped_column(String(32), default="", server_default="")
    at: Mapped[datetime] = mapped_column(DateTime, default=now)


class CuttingRow(Base):
    """What was cut for a job at one time, by bar: see `services.cuttings.CutItem`."""

    __tablename__ = "cuttings"

    id: Mapped[str] = mapped_column(String(32), primary_key=True, default=new_id)
    job_id: Mapped[str] = mapped_column(ForeignKey("jobs.id", ondelete="CASCADE"), index=True)
    items: Mapped[list[Any]] = mapped_column(JSON)
    at: Mapped[datetime] = mapped_column(DateTime, default=now)
    undone_at: Mapped[datetime | None] = mapped_column(DateTime, default=None)


class SetAsideRow(Base):
    """A row that could not be read: of which table, what of it (nothing named: all), and the row as JSON of
    texts, as it was kept."""

    __tablename__ = "set_aside"

    id: Mapped[int] = mapped_column(primary_key=True, autoincrement=True)
    of: Mapped[str] = mapped_column(String(40))
    columns: Mapped[list[str]] = mapped_column(JSON)
    kept: Mapped[str] = mapped_column(Text)
    at: Mapped[datetime] = mapped_column(DateTime, default=now)
    seen_at: Mapped[datetime | None] = mapped_column(DateTime, default=None)


class Holding(Base):
    """What the shop has of one catalogue row, in the row's own measure, and what it pays for a unit."""

    __tablename__ = "holdings"

    ref: Mapped[str] = mapped_column(String(120), primary_key=True)
    have: Mapped[float] = mapped_column(default=0.0)
    unit_cents: Mapped[int | None] = mapped_column(default=None)
    version: Mapped[int] = mapped_column(default=1, server_default="1")


class Preference(Base):
    """The shop's answer to one question where practitioners differ."""

    __tablename__ = "preferences"

    question: Mapped[str] = mapped_column(String(40), primary_key=True)
    answer: Mapped[str] = mapped_column(String(40))
    version: Mapped[int] = mapped_column(default=1, server_default="1")
