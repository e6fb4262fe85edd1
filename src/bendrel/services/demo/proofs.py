"""The demo shop's proofs: a line half-way through with a recorded run, one signed off, one that failed."""

from __future__ import annotations

from dataclasses import replace
from datetime import date, datetime, timedelta
from math import exp
from random import Random

from bendrel.core.line.proving import (
    Done,
    FillRow,
    FunctionCheck,
    Hold,
    HoldRow,
    JointEvent,
    JointWork,
    Proving,
    Seen,
)
from bendrel.core.parts.proving import ProvingRule, Rung
from bendrel.core.parts.service import WorkStage
from bendrel.services.proof.closings import Closing, SignDraft
from bendrel.services.startup import Shop

MARA, JONAS = "Mara", "Jonas"
AIR_KPA, FROM_KPA, LEAK_KPA_MIN, SETTLES_KPA = 101.325, -62.0, 0.35, 2.2
RUN_S, EVERY_S = 600, 2


def half_proved(shop: Shop, line_id: str) -> None:
    """The vacuum main: fitted, pulled down and recorded for ten minutes; whether its flaps answer is open."""
    opened = shop.lines.open(line_id)
    run = shop.runs.bring_in(line_id, _vacuum_readings())
    said = shop.closings.of(opened.document, line_id, date.today())
    at = _evening(1)
    proving = Proving(
        done=_ticked(said, "fit", MARA, at),
        joints=tuple(_joint(said, k, MARA, at, ()) for k in range(len(said.joints))),
        fills=(FillRow(step="pull", at=at, value="0.62 bar", seconds="40", by=MARA),),
        holds=(Hold(kind="vacuum", run=run.id, reads="absolute", minutes="10", by=MARA, at=at),),
    )
    shop.lines.save(line_id, opened.version, replace(opened.document, proving=proving))


def signed_off(shop: Shop, line_id: str) -> None:
    """The crane's header tank hose: filled, looked at cold and warm, signed three weeks ago."""
    opened = shop.lines.open(line_id)
    said = shop.closings.of(opened.document, line_id, date.today())
    at = _evening(21)
    fills = (
        FillRow(step="fill", at=at, into="2.1 L", air="a little", by=JONAS),
        FillRow(step="run", at=at, into="150 ml", air="none", by=JONAS),
        FillRow(step="cold", at=at, into="40 ml", by=JONAS),
    )
    proving = Proving(
        done=(*_ticked(said, "fit", JONAS, at), *_ticked(said, "prove", JONAS, at)),
        joints=tuple(
            _joint(said, k, JONAS, at, ("dried", "dry", "dried", "dry")) for k in range(len(said.joints))
        ),
        fills=fills,
        circuit_holds="2.2 L",
        fluid="coolant, half and half, from the shop's drum",
        holds=(_by_eye(("1.00", "0.99", "0.99", "0.99", "0.99", "0.99"), JONAS, at),),
        checks=tuple(
            FunctionCheck(step=step.run, works="yes", by=JONAS, at=at)
            for step in said.steps
            if step.kind == "works"
        ),
    )
    saved = shop.lines.save(line_id, opened.version, replace(opened.document, proving=proving))
    day = (date.today() - timedelta(days=20)).isoformat()
    shop.closings.sign(
        line_id, saved.version, SignDraft(by=JONAS, day=day, hours="1204", note="Cap and thermostat are new.")
    )


def failed(shop: Shop, line_id: str) -> None:
    """The crane's spliced cooler return: the pressure falls, and a clamp has wept twice."""
    opened = shop.lines.open(line_id)
    line = opened.document
    said = shop.closings.of(line, line_id, date.today())
    at = _evening(2)
    history: tuple[tuple[Seen, ...], ...] = (
        ("dried", "dry"),
        ("dried", "wet", "nip", "dried", "wet"),
        ("dried", "next door"),
    )
    proving = Proving(
        done=_ticked(said, "fit", MARA, at),
        joints=tuple(_joint(said, k, MARA, at, history[min(k, 2)]) for k in range(len(said.joints))),
        fills=_fills(shop.kit.proving.by_service[line.service], at),
        circuit_holds="1.6 L",
        fluid="ATF from a sealed can",
        holds=(
            replace(
                _by_eye(("3.0", "2.7", "2.45", "2.2", "2.0", "1.8"), MARA, at),
                volume="1.6 L",
                threshold="2.7 bar",
            ),
        ),
    )
    shop.lines.save(line_id, opened.version, replace(line, proving=proving))


def _ticked(said: Closing, stage: WorkStage, by: str, at: str) -> tuple[Done, ...]:
    """Every step of a stage."""
    return tuple(Done(step=step.id, at=at, by=by) for step in said.steps if step.stage == stage)


def _joint(said: Closing, k: int, by: str, at: str, seen: tuple[Seen | Rung, ...]) -> JointWork:
    joint = said.joints[k]
    start = datetime.fromisoformat(at)
    events = tuple(
        JointEvent(what=what, by=by, at=(start + timedelta(minutes=11 * n + k)).isoformat(timespec="minutes"))
        for n, what in enumerate(seen)
    )
    tight = "by feel" if joint.torque is None or joint.by_feel else f"{joint.torque.most_nm:g} N·m"
    return JointWork(
        span=joint.span, end=joint.end, meets=joint.meets, tight=tight, by=by, events=events,
        applied="its own fluid" if joint.closes in ("clamp", "push") else "",
        turns=f"{joint.turns:.0f}" if joint.turns else "",
    )  # fmt: skip


def _fills(rule: ProvingRule, at: str) -> tuple[FillRow, ...]:
    """The first steps of the guided run, with what they ask for."""
    told = {
        "into": "800 ml",
        "air": "a little",
        "seconds": "60",
        "value": "low mark",
    }
    return tuple(
        FillRow(step=step.id, at=at, by=MARA, **{name: told[name] for name in step.asks if name in told})  # type: ignore[arg-type]
        for step in [step for step in rule.steps if step.part == "fill"][:2]
    )


def _by_eye(bar: tuple[str, ...], by: str, at: str) -> Hold:
    rows = tuple(
        HoldRow(minutes=str(2 * k), pressure=f"{p} bar", temperature="18") for k, p in enumerate(bar)
    )
    return Hold(kind="liquid", rows=rows, threshold="0.9 bar", minutes="10", by=by, at=at)


def _vacuum_readings() -> bytes:
    """A hand pump's vacuum with a small leak, settling in the first minute, as a gauge sees it."""
    chance = Random(7)
    rows = ["time_s,pressure_kpa,temperature_c"]
    for t in range(0, RUN_S + 1, EVERY_S):
        below = FROM_KPA + LEAK_KPA_MIN * t / 60 - SETTLES_KPA * exp(-t / 30) + chance.gauss(0, 0.12)
        rows.append(f"{t},{AIR_KPA + below:.3f},{17.5 + t / 1200:.2f}")
    return ("\n".join(rows) + "\n").encode()


def _evening(days: int) -> str:
    """Half past six some evenings ago."""
    day = date.today() - timedelta(days=days)
    return f"{day.isoformat()}T18:30"
