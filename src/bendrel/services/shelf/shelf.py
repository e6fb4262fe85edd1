"""The shop's shelf: the catalogue with its own entries, what it has at what price, its preferences."""

from __future__ import annotations

import json
from collections.abc import Iterator, Mapping, Sequence
from contextlib import suppress
from dataclasses import replace
from hashlib import sha256
from typing import Annotated, Any, cast

from annotated_types import Ge, Le, MaxLen
from pydantic import TypeAdapter
from sqlalchemy import func, select

from bendrel.catalogue.loader import load_kit
from bendrel.catalogue.own import OwnFields, ShelfName, own_row, with_own
from bendrel.core.bend.bench.state import MakingState, worked_minutes
from bendrel.core.bend.told.spread import HandRead, spread_of
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.pace import Pace, pace_of
from bendrel.core.parts.proving import WrenchRule
from bendrel.core.parts.school import OwnFigure, figure_of
from bendrel.core.record import record
from bendrel.core.units.notation import Unit, UnitError, parse_angle
from bendrel.core.units.quantities import parse_degrees
from bendrel.exchange.documents.documents import line_from_value
from bendrel.exchange.errors import FileError
from bendrel.services.errors import NotFound, Refused, Stale
from bendrel.services.shelf.trials import (
    MOST_TRIALS,
    NAMES,
    BentAngle,
    KeptTrial,
    ToolCard,
    TrialFields,
    calibrations_of,
    read_trial,
    tool_card,
)
from bendrel.services.shelf.tubes import tube_of
from bendrel.services.shelf.wrench import WrenchDraft, keep_answer, keep_wrench, wrench_of
from bendrel.store.database import Database
from bendrel.store.models import Holding, MakingRow, OwnEntry, Preference, TrialRow, new_id, now
from bendrel.store.stock import lying_mm

MOST_OWN = 2000


@record
class OwnDraft:
    """A row of the shop's own, as typed."""

    shelf: ShelfName
    fields: OwnFields


@record
class OwnRow:
    """A kept row of the shop's own; `row_id` is its id in the catalogue."""

    id: str
    row_id: str
    shelf: ShelfName
    fields: OwnFields
    version: int


_STATE = TypeAdapter(MakingState)
TUBE = "tube:"
"""How a reference to tube begins."""


@record
class Held:
    """What the shop has of one row, in mm, pieces or litres, and its own price for a metre, a piece or
    a litre in cents (None: the supplier's). `version` goes up with every change, 0 while nothing is kept."""

    ref: Annotated[str, MaxLen(120)]
    have: Annotated[float, Ge(0), Le(10_000_000)] = 0.0
    unit_cents: Annotated[int, Ge(0), Le(100_000_00)] | None = None
    version: Annotated[int, Ge(0)] = 0


@record
class ShopWays:
    """The shop's answers where practitioners differ; `version` goes up with every change."""

    answers: dict[str, str]
    figures: dict[str, float]
    version: int


class Shelf:
    """Use cases on the shelf. Raises NotFound and Refused."""

    def __init__(self, database: Database) -> None:
        self._database = database
        self._load()

    @property
    def kit(self) -> Kit:
        """The catalogue as this shop has it."""
        return self._kit

    @property
    def stamp(self) -> str:
        """A fingerprint of what the shop has changed."""
        return self._stamp

    def _load(self) -> None:
        """Read everything anew. Done at every change and never on demand: whoever asks for the kit may
        be in the middle of a transaction."""
        own, answers, figures = self.own(), self._answers(), self._figures()
        kit = with_own(load_kit(), ((row.id, row.shelf, row.fields) for row in own))
        trials, bent = self.trials(), self._bent(kit)
        with self._database.reading() as session:
            wrench = wrench_of(session, kit.proving.wrench)
        self._kit = replace(
            kit,
            preferences={**kit.preferences, **answers},
            own_figures=figures,
            proving=replace(kit.proving, wrench=wrench),
            calibrations=calibrations_of(kit, trials, bent),
            spread=spread_of(kit, self._departures()),
            pace=self._pace(kit),
        )
        changed = [[r.id, r.shelf, r.fields] for r in own] + [
            answers,
            figures,
            [wrench.length_mm, wrench.offset_mm],
        ]
        taught = [[b.bender, b.material, b.dial_deg, b.angle_deg] for b in bent]
        told = json.dumps([*changed, *([t.id, t.fields] for t in trials), *taught], sort_keys=True)
        self._stamp = sha256(told.encode()).hexdigest()

    def read_anew(self) -> None:
        """Take over what was kept beside this use case, outside any transaction."""
        self._load()

    def read_hand(self) -> None:
        """Take the readings of parts that were made into the shop's spread, and their time into its
        pace."""
        spread = spread_of(self._kit, self._departures())
        self._kit = replace(self._kit, spread=spread, pace=self._pace(self._kit))

    def _pace(self, kit: Kit) -> Pace:
        weigh = kit.splicing.weigh
        with self._database.reading() as session:
            states = session.scalars(select(MakingRow.state).where(MakingRow.outcome == "good"))
            made = [_STATE.validate_python(state) for state in states]
        parts = [(len(state.made), worked_minutes(state)) for state in made]
        return pace_of(weigh.bend_minutes, weigh.pace_counts, weigh.most_bend_minutes, parts)

    def _bent(self, kit: Kit) -> list[BentAngle]:
        """The angles of finished parts; a part in hand does not change the tool that it is made on."""
        with self._database.reading() as session:
            rows = session.execute(
                select(MakingRow.document, MakingRow.span, MakingRow.state)
                .where(MakingRow.ended_at.is_not(None))
                .order_by(MakingRow.ended_at)
            ).all()
        found: list[BentAngle] = []
        for document, span_id, state in rows:
            if any(item.get("dial_deg") and item.get("angle") for item in state.get("made", [])):
                found += bent_angles(kit, document, span_id, _STATE.validate_python(state))
        return found

    def _departures(self) -> list[HandRead]:
        with self._database.reading() as session:
            rows = session.scalars(select(MakingRow.departures))
            return [hand_read(told) for kept in rows for told in kept]

    def own(self) -> tuple[OwnRow, ...]:
        """All rows of the shop's own, the oldest first."""
        with self._database.reading() as session:
            rows = session.scalars(
                select(OwnEntry).where(OwnEntry.deleted_at.is_(None)).order_by(OwnEntry.at, OwnEntry.id)
            )
            return tuple(_own(row) for row in rows)

    def add(self, draft: OwnDraft) -> OwnRow:
        """Keep a new row; nothing is kept of one that makes no sense."""
        entry_id = new_id()
        self._check(draft, entry_id)
        if len(self.own()) >= MOST_OWN:
            raise Refused(f"The shop has {MOST_OWN} entries of its own; take one out first.")
        with self._database.writing() as session:
            row = OwnEntry(id=entry_id, shelf=draft.shelf, fields=dict(draft.fields))
            session.add(row)
            session.flush()
            kept = _own(row)
        self._load()
        return kept

    def change(self, entry_id: str, draft: OwnDraft, version: int | None = None) -> OwnRow:
        """Correct a row. Raises Stale on another `version` than the one that was read."""
        self._check(draft, entry_id)
        with self._database.writing() as session:
            row = session.get(OwnEntry, entry_id)
            if row is None or row.deleted_at is not None or row.shelf != draft.shelf:
                raise NotFound(f"There is no entry “{entry_id[:40]}” of the shop's own.")
            _check(row, version)
            row.fields, row.version = dict(draft.fields), row.version + 1
            kept = _own(row)
        self._load()
        return kept

    def remove(self, entry_id: str, version: int | None = None, *, back: bool = False) -> None:
        """Take a row out, or put it back. Raises Stale as `change`."""
        with self._database.writing() as session:
            row = session.get(OwnEntry, entry_id)
            if row is None:
                raise NotFound(f"There is no entry “{entry_id[:40]}” of the shop's own.")
            if not back:
                _check(row, version)
            row.deleted_at, row.version = (None if back else now()), row.version + 1
        self._load()

    def trials(self) -> tuple[KeptTrial, ...]:
        """All test pieces, the oldest first."""
        with self._database.reading() as session:
            rows = session.scalars(
                select(TrialRow).where(TrialRow.deleted_at.is_(None)).order_by(TrialRow.at, TrialRow.id)
            )
            return tuple(_trial(row) for row in rows)

    def card(self, bender: str, material: str) -> ToolCard:
        """One tool in one material."""
        return tool_card(self.kit, bender, material, self.trials())

    def try_tool(self, bender: str, material: str, fields: TrialFields, unit: Unit) -> ToolCard:
        """Keep a test piece; one that makes no sense is refused and not kept."""
        card = self.card(bender, material)
        read_trial(fields, unit)
        if len(card.trials) >= MOST_TRIALS:
            raise Refused(f"A tool has at most {MOST_TRIALS} test pieces; take an old one out first.")
        with self._database.writing() as session:
            told = {name: fields[name] for name in NAMES if name in fields}
            session.add(TrialRow(bender=bender, material=material, fields={**told, "unit": unit}))
        self._load()
        return self.card(bender, material)

    def take_out_trial(self, trial_id: str, *, back: bool = False) -> ToolCard:
        """Take a test piece out of the reckoning, or put it back."""
        with self._database.writing() as session:
            row = session.get(TrialRow, trial_id)
            if row is None:
                raise NotFound(f"There is no test piece “{trial_id[:40]}”.")
            row.deleted_at = None if back else now()
            bender, material = row.bender, row.material
        self._load()
        return self.card(bender, material)

    def holdings(self) -> dict[str, Held]:
        """What the shop has, by reference; of tube what lies in the stock, piece by piece."""
        with self._database.reading() as session:
            kept = {
                row.ref: Held(ref=row.ref, have=row.have, unit_cents=row.unit_cents, version=row.version)
                for row in session.scalars(select(Holding))
            }
            for tube, mm in lying_mm(session).items():
                ref = f"{TUBE}{tube}"
                kept[ref] = replace(kept.get(ref, Held(ref=ref)), have=mm)
            return kept

    def hold(self, held: Held, version: int | None = None) -> Held:
        """Set what the shop has of one row and what it pays. Of tube only the price is set here. Raises
        Stale on another `version` than the one that was read."""
        if ":" not in held.ref:
            raise Refused(f"“{held.ref[:40]}” names nothing of the catalogue.")
        if held.ref.startswith(TUBE) and held.have:
            raise Refused("Tube is kept piece by piece under Stock; only its price is set here.")
        with self._database.writing() as session:
            row = session.get(Holding, held.ref)
            kept = row.version if row is not None else 0
            if version is not None and kept != version:
                have, cents = (row.have, row.unit_cents) if row is not None else (0.0, None)
                raise Stale(
                    f"This was changed elsewhere first: {have:g} lie there now, at {_price(cents)}. What you "
                    "typed is still here.",
                    kept,
                    {"ref": held.ref, "have": have, "unit_cents": cents, "version": kept},
                )
            session.merge(Holding(ref=held.ref, have=held.have, unit_cents=held.unit_cents, version=kept + 1))
        return replace(held, version=kept + 1)

    @property
    def ways_version(self) -> int:
        """Goes up with every change of the shop's answers."""
        with self._database.reading() as session:
            return session.scalar(select(func.sum(Preference.version))) or 0

    def prefer(self, answers: Mapping[str, str], version: int | None = None) -> ShopWays:
        """Keep the shop's answers where practitioners differ, and the figures that it measured for them.
        Raises Refused, UnitError, and Stale on another `version` than the one that was read, where what is
        answered has changed since."""
        answers = {question: self._answered(question, answer) for question, answer in answers.items()}
        with self._database.writing() as session:
            kept = session.scalar(select(func.sum(Preference.version))) or 0
            if version is not None and kept != version:
                raise Stale(
                    "The shop's ways were changed elsewhere first; they are read anew. Choose again.",
                    kept,
                    dict(self.kit.preferences),
                )
            for question, answer in answers.items():
                keep_answer(session, question, answer)
        self._load()
        return self.ways()

    def ways(self) -> ShopWays:
        """The shop's answers as they are now."""
        kit = self.kit
        return ShopWays(
            answers=dict(kit.preferences), figures=dict(kit.own_figures), version=self.ways_version
        )

    def _answered(self, question: str, answer: str) -> str:
        """`answer` as it is kept. Raises Refused and UnitError."""
        school = self.kit.schools.get(question)
        if school is not None and answer in {option.id for option in school.options}:
            return answer
        figure = figure_of(self.kit.schools.values(), question)
        if figure is None:
            raise Refused(f"“{answer[:40]}” is no answer to “{question[:40]}”; choose one that is listed.")
        return f"{_measured(figure, answer):.3f}"

    def measure_wrench(self, draft: WrenchDraft, version: int | None = None) -> WrenchRule:
        """Keep the shop's own torque wrench and crowfoot. Raises Refused, and Stale as `prefer`."""
        with self._database.writing() as session:
            kept = session.scalar(select(func.sum(Preference.version))) or 0
            if version is not None and kept != version:
                now_is = self.kit.proving.wrench
                raise Stale(
                    f"The wrench or another of the shop's ways was changed elsewhere first: it is "
                    f"{now_is.length_mm:g} mm now. What you typed is still here.",
                    kept,
                    {"length_mm": now_is.length_mm, "offset_mm": now_is.offset_mm},
                )
            keep_wrench(session, draft)
        self._load()
        return self.kit.proving.wrench

    def _answers(self) -> dict[str, str]:
        schools = load_kit().schools
        with self._database.reading() as session:
            return {
                row.question: row.answer
                for row in session.scalars(select(Preference))
                if row.question in schools and row.answer in {o.id for o in schools[row.question].options}
            }

    def _figures(self) -> dict[str, float]:
        schools = load_kit().schools.values()
        with self._database.reading() as session:
            rows = [(row.question, row.answer) for row in session.scalars(select(Preference))]
        figures: dict[str, float] = {}
        for question, answer in rows:
            # a row that cannot be read is as if nothing had been measured
            if figure := figure_of(schools, question):
                with suppress(Refused, UnitError):
                    figures[question] = _measured(figure, answer)
        return figures

    def _check(self, draft: OwnDraft, entry_id: str) -> None:
        own_row(self.kit, draft.shelf, entry_id, draft.fields)


def _measured(figure: OwnFigure, answer: str) -> float:
    """The degrees typed for `figure`. Raises Refused and UnitError."""
    degrees = parse_degrees(answer)
    if not figure.least_deg <= degrees <= figure.most_deg:
        raise Refused(
            f"{figure.label}: type {figure.least_deg:g}° to {figure.most_deg:g}°; "
            f"“{answer[:20]}” is not used."
        )
    return degrees


def _trial(row: TrialRow) -> KeptTrial:
    fields = {name: text for name, text in row.fields.items() if name != "unit"}
    unit: Unit = "in" if row.fields.get("unit") == "in" else "mm"
    return KeptTrial(id=row.id, bender=row.bender, material=row.material, fields=fields, unit=unit)


def _own(row: OwnEntry) -> OwnRow:
    return OwnRow(
        id=row.id,
        row_id=f"own_{row.id}",
        shelf=cast("ShelfName", row.shelf),
        fields=dict(row.fields),
        version=row.version,
    )


def _price(cents: int | None) -> str:
    return "the supplier's price" if cents is None else f"{cents / 100:.2f}"


def _said(fields: Mapping[str, str]) -> str:
    return " · ".join(text for text in fields.values() if text)[:160]


def _check(row: OwnEntry, version: int | None) -> None:
    if version is not None and row.version != version:
        gone = "taken out" if row.deleted_at is not None else "changed"
        raise Stale(
            f"This entry was {gone} elsewhere first: {_said(row.fields)}. What you typed is still here.",
            row.version,
            {"shelf": row.shelf, "fields": dict(row.fields)},
        )


def hand_read(kept: Sequence[Any]) -> HandRead:
    """A departure as it is kept; one from before readings were counted is one setting and one reading."""
    name, off, *counts = kept
    hands, reads = counts if len(counts) == 2 else (1, 1)
    return HandRead(name=str(name), off=float(off), hands=int(hands), reads=int(reads))


def bent_angles(kit: Kit, document: dict[str, Any], span_id: str, state: MakingState) -> Iterator[BentAngle]:
    """What the readings of a finished part say of the tool; bends left open came out otherwise on purpose."""
    try:
        span = tube_of(line_from_value(document), span_id).span
    except (FileError, Refused):
        return  # it says nothing of the tool; its line says that it cannot be read
    tube = kit.tubes.get(span.tube)
    if tube is None or span.left_open:
        return
    for item in state.made:
        try:
            angle = parse_angle(item.angle) if item.angle.strip() else None
        except UnitError:
            continue
        if (
            angle is not None
            and item.dial_deg
            and abs(angle - item.angle_deg) <= kit.limits["slip_off"].value
        ):
            yield BentAngle(
                bender=span.bender, material=tube.material, dial_deg=item.dial_deg, angle_deg=angle
            )
