"""What 200 kept lines come to: plan, bench report, sheet and shopping list, written down and compared.

The lines are version 1 documents in `tests/kept/lines.json.xz`, as people could have typed them; what was
told of them lies beside it. Whoever changes the shape of documents or plans reads them as old files are read,
and holds today's answer against the kept one (`tools/golden.py`).
"""

from __future__ import annotations

import io
import json
import lzma
from collections.abc import Iterator
from dataclasses import replace
from datetime import date
from functools import cache
from pathlib import Path
from typing import Any

from pydantic import TypeAdapter
from pypdf import PdfReader

from bendrel.catalogue.loader import load_kit
from bendrel.core.findings import Derivation
from bendrel.core.parts.calibration import Calibration
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.step import Step
from bendrel.core.plan.model import Plan
from bendrel.core.plan.planner import plan_line
from bendrel.core.plan.working import order_of_work, working_of
from bendrel.exchange.documents.documents import line_from_value
from bendrel.exchange.paper.sheet import build_sheet
from bendrel.services.bench.benches import BenchReport, report
from bendrel.services.errors import Refused
from bendrel.services.shelf.tubes import tube_of

KEPT = Path(__file__).parent / "kept"
LINES, TOLD = KEPT / "lines.json.xz", KEPT / "told.json.xz"
PART = ("plan", "shopping")
"""What every test run compares; bench report and sheet take minutes for all lines."""

_PLAN, _BENCH = TypeAdapter(Plan), TypeAdapter(BenchReport)
_WORKING = TypeAdapter(tuple[Derivation, ...])
_CALIBRATION = Calibration(
    radius_mm=14.7,
    zero_offset_mm=1.2,
    springback=0.018,
    springback_deg=0.4,
    doubt=(0.3, 0.4, 0.004, 0.5),
    covariance=((0.02, 0, 0, 0), (0, 0.04, 0, 0), (0, 0, 4e-6, 0), (0, 0, 0, 0.06)),
    pieces=3,
    odd=(),
)


@cache
def kits() -> tuple[Kit, Kit]:
    """The shipped catalogue, and the same with one bender that test pieces told of."""
    kit = load_kit()
    own = {("lever_3-16in", "copper-nickel"): _CALIBRATION}
    return kit, replace(kit, calibrations=own)


def _step(step: Step) -> dict[str, Any]:
    """A step as the kept answers tell one."""
    kind = {"fit": "install", "prove": "test"}[step.stage] if step.whole else step.kind
    told = {"kind": kind, "text": step.text, "why": step.why, "work": step.id if step.whole else ""}
    return {**told, "cautions": list(step.cautions)}


def told_of(kept: dict[str, Any], parts: tuple[str, ...]) -> dict[str, Any]:
    """What the program says of one kept line."""
    line, kit = line_from_value(kept["document"]), kits()[kept["calibrated"]]
    plan = plan_line(line, kit)
    told: dict[str, Any] = {}
    if "plan" in parts:
        told["plan"] = _PLAN.dump_python(plan, mode="json")
        told["steps"] = [_step(step) for step in order_of_work(line, kit)]
        told["working"] = _WORKING.dump_python(working_of(line, kit), mode="json")
    if "shopping" in parts:
        needs = plan.chosen.needs if plan.chosen else ()
        told["shopping"] = [[need.ref, need.what, need.amount, need.unit, need.why] for need in needs]
    if "bench" in parts:
        try:
            told["bench"] = _BENCH.dump_python(report(line, kit), mode="json")
        except Refused as error:
            told["bench"] = str(error)
    if "sheet" in parts and plan.part is not None:
        sheet = build_sheet(
            line,
            plan,
            kit,
            order_of_work(line, kit),
            job="kept",
            machine="",
            cautions="",
            tube=tube_of(line).span.tube,
            today=date(2026, 11, 26),
        )
        told["sheet"] = PdfReader(io.BytesIO(sheet)).pages[0].extract_text().splitlines()
    return json.loads(json.dumps(told))


def read(path: Path) -> Any:
    """A kept file."""
    return json.loads(lzma.decompress(path.read_bytes()))


def write(path: Path, value: Any) -> None:
    """Keep `value`; figures to nine digits, so that a machine's last bits do not matter."""
    text = json.dumps(_short(value), ensure_ascii=False, separators=(",", ":"))
    path.write_bytes(lzma.compress(text.encode(), preset=9 | lzma.PRESET_EXTREME))


def _short(value: Any) -> Any:
    if isinstance(value, float):
        return float(f"{value:.9g}")
    if isinstance(value, dict):
        return {key: _short(inner) for key, inner in value.items()}
    return [_short(inner) for inner in value] if isinstance(value, list) else value


def differences(was: Any, now: Any, at: str = "") -> Iterator[str]:
    """Every place where two answers differ; figures by more than a millionth."""
    if isinstance(was, dict) and isinstance(now, dict):
        for key in sorted(was.keys() | now.keys()):
            if key not in was or key not in now:
                yield f"{at}/{key}: {'new' if key in now else 'gone'}"
            else:
                yield from differences(was[key], now[key], f"{at}/{key}")
    elif isinstance(was, list) and isinstance(now, list):
        if len(was) != len(now):
            yield f"{at}: {len(was)} before, {len(now)} now"
        for k, (one, other) in enumerate(zip(was, now, strict=False)):
            yield from differences(one, other, f"{at}/{k}")
    elif isinstance(was, int | float) and isinstance(now, int | float) and not isinstance(was, bool):
        if abs(was - now) > 1e-6 * max(1.0, abs(was), abs(now)):
            yield f"{at}: {was} before, {now} now"
    elif was != now:
        yield f"{at}: {was!r} before, {now!r} now"
