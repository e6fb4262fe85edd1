"""The shop's own torque wrench and crowfoot, kept beside its other answers."""

from __future__ import annotations

from typing import Annotated

from annotated_types import MaxLen
from sqlalchemy import select
from sqlalchemy.orm import Session

from bendrel.core.findings import Source
from bendrel.core.parts.proving import WrenchRule
from bendrel.core.record import record
from bendrel.core.units.notation import Unit, format_length, parse_length
from bendrel.services.errors import Refused
from bendrel.store.models import Preference

LENGTH, OFFSET = "torque-wrench-length", "crowfoot-offset"
LEAST_MM, MOST_MM = 100.0, 1500.0


@record
class WrenchDraft:
    """The wrench as measured: grip to square, and square to nut; 0 for none."""

    length: Annotated[str, MaxLen(40)]
    offset: Annotated[str, MaxLen(40)]
    unit: Unit = "mm"


def keep_wrench(session: Session, draft: WrenchDraft) -> None:
    """Keep it for the shop. Raises Refused."""
    length = parse_length(draft.length, draft.unit)
    offset = parse_length(draft.offset, draft.unit, "not_negative") if draft.offset.strip() else 0.0
    if not LEAST_MM <= length <= MOST_MM or offset >= length:
        least, most = (format_length(mm, draft.unit) for mm in (LEAST_MM, MOST_MM))
        raise Refused(f"A torque wrench is {least} to {most} from grip to square, its crowfoot shorter.")
    for question, mm in ((LENGTH, length), (OFFSET, offset)):
        keep_answer(session, question, f"{mm:.3f}")


def keep_answer(session: Session, question: str, answer: str) -> None:
    """Keep one answer of the shop's, and that it has changed."""
    row = session.get(Preference, question)
    if row is None:
        session.add(Preference(question=question, answer=answer))
    else:
        row.answer, row.version = answer, row.version + 1
    session.flush()


def wrench_of(session: Session, usual: WrenchRule) -> WrenchRule:
    """The shop's own, else the usual one."""
    rows = session.scalars(select(Preference).where(Preference.question.in_((LENGTH, OFFSET))))
    told = {row.question: float(row.answer) for row in rows}
    if len(told) < 2:
        return usual
    own = Source(kind="shop's own", text="measured on the shop's own torque wrench")
    return WrenchRule(length_mm=told[LENGTH], offset_mm=told[OFFSET], source=own)
