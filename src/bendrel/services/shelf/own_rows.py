"""The shop's own catalogue rows that a job names: out with it, and into another shop."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import Any, cast

from sqlalchemy import select
from sqlalchemy.orm import Session

from bendrel.catalogue.own import OwnError, ShelfName, own_row
from bendrel.core.line.document import Line
from bendrel.core.parts.kit import Kit
from bendrel.exchange.documents.archive import ArchivedJob, ArchivedOwn, ArchivedTrial
from bendrel.exchange.documents.documents import line_to_value
from bendrel.exchange.errors import FileError
from bendrel.services.errors import Refused
from bendrel.services.shelf.shelf import MOST_OWN
from bendrel.services.shelf.trials import read_trial
from bendrel.store.models import OwnEntry, TrialRow, new_id

OWN = "own_"


def named_own(session: Session, lines: Iterable[Line]) -> tuple[ArchivedOwn, ...]:
    """The own rows that `lines` name, taken out since or not."""
    named = {word for line in lines for word in _words(line_to_value(line)) if word.startswith(OWN)}
    ids = sorted(word.removeprefix(OWN) for word in named)
    rows = session.scalars(select(OwnEntry).where(OwnEntry.id.in_(ids)).order_by(OwnEntry.at, OwnEntry.id))
    return tuple(
        ArchivedOwn(id=row.id, shelf=cast("ShelfName", row.shelf), fields=dict(row.fields)) for row in rows
    )


def trials_of(session: Session, own: Iterable[ArchivedOwn]) -> tuple[ArchivedTrial, ...]:
    """The test pieces of the benders among `own`. Those of a tool out of the catalogue stay here: in
    another shop that is another tool."""
    benders = [OWN + row.id for row in own if row.shelf == "benders"]
    rows = session.scalars(
        select(TrialRow)
        .where(TrialRow.bender.in_(benders), TrialRow.deleted_at.is_(None))
        .order_by(TrialRow.at, TrialRow.id)
    )
    return tuple(
        ArchivedTrial(bender=row.bender, material=row.material, fields=dict(row.fields)) for row in rows
    )


def check_own(kit: Kit, job: ArchivedJob) -> tuple[str, ...]:
    """What the own rows of an archive are called. Raises FileError for a row or a test piece that makes
    no sense."""
    names = []
    for row in job.own:
        try:
            made = own_row(kit, row.shelf, row.id, row.fields)
        except OwnError as error:
            raise FileError(f"An entry of the shop's own ({row.shelf}) is not possible: {error}") from error
        names.append(str(getattr(made, "name", "") or made.id))
    for trial in job.trials:
        if trial.material not in kit.materials:
            raise FileError(f"A test piece is of “{trial.material}”, which the catalogue does not have.")
        try:
            read_trial(trial.fields, "in" if trial.fields.get("unit") == "in" else "mm")
        except Refused as error:
            raise FileError(f"A test piece is not possible: {error}") from error
    return tuple(names)


def called_here(session: Session, job: ArchivedJob) -> dict[str, str]:
    """What each own row of the archive is called here: a row that is here with the same figures is used as it
    is, with its own test pieces; another one gets a name of its own."""
    here = session.scalars(select(OwnEntry).where(OwnEntry.deleted_at.is_(None))).all()
    if len(here) + len(job.own) > MOST_OWN:
        raise FileError(f"The shop would have over {MOST_OWN} entries of its own; take some out first.")
    called: dict[str, str] = {}
    for row in job.own:
        same = next((r for r in here if r.shelf == row.shelf and r.fields == row.fields), None)
        called[OWN + row.id] = OWN + (same.id if same else new_id())
    return called


def keep_own(session: Session, job: ArchivedJob, called: Mapping[str, str]) -> None:
    """Keep what is not here yet, by the names of `called_here`."""
    for row in job.own:
        kept_id = called[OWN + row.id].removeprefix(OWN)
        if session.get(OwnEntry, kept_id) is not None:
            continue
        session.add(OwnEntry(id=kept_id, shelf=row.shelf, fields=dict(row.fields)))
        for trial in job.trials:
            if trial.bender == OWN + row.id:
                fields = dict(trial.fields)
                session.add(TrialRow(bender=OWN + kept_id, material=trial.material, fields=fields))


def renamed(value: Any, called: Mapping[str, str]) -> Any:
    """JSON values with every word that `called` has replaced."""
    if isinstance(value, str):
        return called.get(value, value)
    if isinstance(value, list):
        return [renamed(item, called) for item in value]
    if isinstance(value, dict):
        return {key: renamed(item, called) for key, item in value.items()}
    return value


def _words(value: Any) -> Iterable[str]:
    if isinstance(value, str):
        yield value
    elif isinstance(value, list):
        for item in value:
            yield from _words(item)
    elif isinstance(value, dict):
        for item in value.values():
            yield from _words(item)
