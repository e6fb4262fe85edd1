"""Everything against everything: what the program accepts and refuses, held against the trade's own lists.

    python tools/matrix.py [--lines 2000] [--write docs/doubtful.md]

Plans every service with every tube and every end, and with every hose held in every way. What must have a
stop and what must not is written down here once more, by kind, independent of the catalogue's verdicts; then
hold tests, ladders, strip-downs, gaps by material, typed heat and pressure (`matrix_work.py`), what meets
(`matrix_joints.py`), and the fixes of random lines. Prints the counts; exits 1 when anything is on the wrong
side.
"""

from __future__ import annotations

import argparse
import sys
from collections import Counter
from collections.abc import Iterator
from concurrent.futures import ProcessPoolExecutor
from pathlib import Path
from typing import NamedTuple

sys.path.insert(0, str(Path(__file__).parent.parent))

from tests.lines import End, Hose, bent, row
from tests.made_lines import made_line
from tests.random_lines import made_worse, random_line
from tools.matrix_joints import PARTS as JOINTS
from tools.matrix_work import PARTS as WORK

from bendrel.catalogue.loader import load_kit
from bendrel.core.line.document import Line
from bendrel.core.plan.model import Plan
from bendrel.core.plan.planner import plan_line
from bendrel.core.units.lengths import Length

PARTS = WORK | JOINTS
KIT = load_kit()
SERVICES = [service.id for service in KIT.services.values() if service.duty and not service.left_to]


class Case(NamedTuple):
    """One combination, and what it stands for."""

    service: str
    tube: str
    end: str
    hose: str
    held: str
    clamp: str


class Told(NamedTuple):
    """What the program says of it."""

    case: Case
    stops: tuple[str, ...]
    cautions: tuple[str, ...]
    margin: float | None
    said: str


# ---- what must have a stop, by kind
SOFT = {"copper-nickel", "copper", "nylon", "aluminium-3003", "aluminium-5052", "aluminium-6061-O"}
BRAZED = {"steel-double-wall", "steel-plated", "steel-coated"}
STEEL_SLEEVE = {"bite-light", "bite-heavy", "bite-extra-light", "bite-inch", "maker-sleeve"}
BRAZED_ENDS = {"banjo", "o-ring-boss", "metric-boss", "face-seal", "npt", "bspp", "bspp-swivel", "bspt"}
FLARES = {"double-45", "bubble", "single-37", "single-45"}
BRAKES = {"brake", "clutch"}
ALUMINIUM = {"aluminium-3003", "aluminium-5052", "aluminium-6061", "aluminium-6061-O"}
CLAMPED_REFUSED = {"brake", "clutch", "hydraulic", "steering-pressure", "air-brake"}
SWOLLEN_BY_FUEL = {"vacuum", "coolant", "air", "brake-feed", "brake", "cooler", "steering-return"}
UNENDED = {
    "fuel-low", "fuel-injection", "fuel-in-tank", "cooler", "steering-return", "coolant", "vacuum",
    "hydraulic-return", "brake-feed", "air",
}  # fmt: skip
NO_CLAMPS = {
    "brake", "brake-braided", "ptfe-braided", "hydraulic", "hydraulic-one-wire", "oil-cooler",
    "steering-pressure",
}  # fmt: skip


def must_stop(case: Case) -> str:
    """Why this combination must have a stop; "" where that is not known. Common practice; 49 CFR 571.106 for
    brake hose."""
    material = KIT.tubes[case.tube].material
    if case.end in STEEL_SLEEVE and material in SOFT | BRAZED:
        return "steel sleeve on soft or thin tube"
    if case.end in BRAZED_ENDS and material in {"nylon", "aluminium-6061"}:
        return "brazed end on nylon or 6061-T6"
    if case.end == "compression" and material == "nylon":
        return "brass sleeve on nylon without insert"
    if case.end == "bead" and material == "nylon" and not case.hose:
        return "a bead on nylon"
    if case.service in BRAKES and material in ALUMINIUM | {"copper"}:
        return "aluminium or copper on brakes"
    if case.service in BRAKES and case.end in {
        "compression",
        "npt",
        "bspt",
        "bspp",
        "bspp-swivel",
        "single-45",
        *STEEL_SLEEVE,
    }:
        return "end that is no brake end"
    if case.service in {"hydraulic", "steering-pressure"} and case.end == "compression":
        return "brass sleeve on high pressure"
    if not case.hose:
        return ""
    kind = KIT.hoses[case.hose].hose_class
    if kind in {"brake", "brake-braided"} and case.held == "reusable":
        return "reusable ends on brake hose"
    if case.held == "reusable" and kind in UNENDED and KIT.services[case.service].safety_critical:
        return "reusable ends on hose that has none"
    if case.service == "air-brake" and kind == "air":
        return "shop air hose on air brakes"
    if case.held == "clamps" and case.service in CLAMPED_REFUSED:
        return "hose and clamps where they blow off"
    if case.held == "clamps" and kind in NO_CLAMPS:
        return "clamps on hose that takes none"
    if case.held == "clamps" and kind == "fuel-injection" and case.clamp.startswith("worm"):
        return "worm clamp on injection hose"
    if case.held == "clamps" and case.end in FLARES:
        return "hose clamped over a flare"
    if case.service in {"fuel-low", "fuel-injection", "tank-vent"} and kind in SWOLLEN_BY_FUEL:
        return "hose that fuel swells"
    if case.service in BRAKES and kind not in {"brake", "brake-braided"}:
        return "other hose on brakes"
    return ""


# ---- what must not have one, by kind
BRAKE_TUBE = {
    ("steel-double-wall", "3/16 in"), ("steel-plated", "3/16 in"), ("steel-coated", "3/16 in"),
    ("steel-double-wall", "1/4 in"), ("steel-plated", "1/4 in"), ("steel-coated", "1/4 in"),
    ("steel-double-wall", "4.75 mm"), ("steel-plated", "4.75 mm"), ("steel-coated", "4.75 mm"),
    ("steel-double-wall", "6 mm"), ("steel-plated", "6 mm"), ("copper-nickel", "3/16 in"),
    ("copper-nickel", "4.75 mm"), ("copper-nickel", "1/4 in"), ("copper-nickel", "6 mm"),
}  # fmt: skip
OIL_BACK = {"hydraulic-return", "hydraulic-suction"}


def must_pass(case: Case) -> str:
    """Why this combination must have no stop; "" where that is not known. Original on machines that run."""
    tube = KIT.tubes[case.tube]
    if not case.hose:
        if case.service == "brake" and (tube.material, tube.size) in BRAKE_TUBE and case.end == "double-45":
            return "original brake tube"
        thick = case.service == "hydraulic" and tube.material == "steel-seamless" and tube.od_mm >= 8
        rated = case.end == "single-37" or (case.end == "bspp" and tube.od_mm <= 22)
        if thick and rated and tube.wall_mm / tube.od_mm > 0.125:
            return "thick hydraulic tube with a rated end"
        return ""
    kind = KIT.hoses[case.hose].hose_class
    if case.service in BRAKES and kind == "brake" and case.held == "crimped" and case.end == "double-45":
        return "made-up brake hose"
    if case.held == "clamps" and case.end == "bead" and case.clamp.startswith("worm"):
        tight = KIT.hoses[case.hose].id_mm <= tube.od_mm
        if case.service in OIL_BACK and kind == "hydraulic-return" and tight:
            return "return hose with clamps on a bead"
        if case.service == "coolant" and kind == "coolant":
            return "coolant hose on a bead"
        if case.service == "brake-feed" and kind == "brake-feed":
            return "brake reservoir hose"
    return ""


def _line(case: Case) -> Line:
    tube = KIT.tubes[case.tube]
    radius = max(60.0, 4 * tube.od_mm)
    if KIT.materials[tube.material].family == "plastic":
        radius = 8 * tube.od_mm
    rows = tuple(row(300, 45, plane, radius=radius) for plane in ("12:00", "3:00"))
    nuts = KIT.nuts_for(case.end, tube.size)
    end = End(fitting=case.end, nut=nuts[0].id if nuts else None)
    beyond = ()
    if case.hose:
        piece = Hose(hose=case.hose, length=Length(text="300 mm"), joined=case.held, clamp=case.clamp or None)  # type: ignore[arg-type]
        beyond = (piece,)
    other = End(fitting=end.fitting, nut=end.nut, beyond=beyond)
    return bent(
        *rows, last=300, service=case.service, tube=case.tube, bender="given_any", end_a=end, end_b=other
    )


def _cases() -> Iterator[Case]:
    for service in SERVICES:
        for tube in KIT.tubes.values():
            for fitting in KIT.fittings.values():
                if not fitting.screwed or KIT.nuts_for(fitting.id, tube.size):
                    yield Case(service, tube.id, fitting.id, "", "", "")
        for hose in KIT.hoses.values():
            steel = [t for t in KIT.tubes.values() if t.material in ("steel-plated", "steel-seamless")]
            near = min(steel, key=lambda tube: (abs(tube.od_mm - hose.id_mm * 1.01), -tube.wall_mm))
            for end in ("bead", "plain", "double-45", "single-37"):
                if KIT.end_size(end, near.size) is None and end != "plain":
                    continue
                for held in ("crimped", "reusable"):
                    yield Case(service, near.id, end, hose.id, held, "")
                for clamp in _clamps(hose.od_mm):
                    yield Case(service, near.id, end, hose.id, "clamps", clamp)


def _clamps(od_mm: float) -> Iterator[str]:
    """One clamp of each kind that takes the hose, where there is one."""
    for kind in KIT.clamp_kinds:
        fits = [c for c in KIT.clamps.values() if c.kind == kind and c.closed_mm * 1.02 < od_mm < c.open_mm]
        if fits:
            yield min(fits, key=lambda clamp: abs((clamp.closed_mm + clamp.open_mm) / 2 - od_mm)).id


def _told(case: Case) -> Told:
    plan = plan_line(_line(case), KIT)
    stops = tuple(sorted({f.code for f in plan.findings if f.severity == "stop"}))
    cautions = tuple(sorted({f.code for f in plan.findings if f.severity == "caution"}))
    return Told(case, stops, cautions, _margin(plan), _reason(case))


def _margin(plan: Plan) -> float | None:
    chosen = plan.chosen
    if chosen is None or chosen.strength is None or chosen.carried is None or chosen.carried.duty.vacuum:
        return None
    known = [e.allowed_kpa for e in chosen.strength.elements if e.allowed_kpa is not None]
    return min(known) / chosen.carried.duty.working_kpa if known else None


def _reason(case: Case) -> str:
    """Why it stands, in the catalogue's words."""
    asked = [("tube", KIT.tubes[case.tube].material), ("end", case.end)]
    if case.hose:
        joint = {"clamps": "hose-and-clamps", "crimped": "crimped-hose", "reusable": "reusable-hose"}
        asked = [("hose", KIT.hoses[case.hose].hose_class), ("joint", joint[case.held])]
    found = (KIT.verdict(of, item, case.service) for of, item in asked)  # type: ignore[arg-type]
    return " ".join(verdict.reason for verdict in found if verdict is not None)


def _part(name: str) -> tuple[int, list[str]]:
    """One part of the work around a line: how many were tried, and what is wrong."""
    found = list(PARTS[name]())
    return len(found), [f"{what}: {wrong}" for what, wrong in found if wrong]


def _worse(seed: int) -> tuple[int, list[str]]:
    # every fourth line as people make them: they take longer to plan
    line, tried, wrong = made_line(KIT, seed) if seed % 4 == 0 else random_line(KIT, seed), 0, []
    for finding in plan_line(line, KIT).findings:
        if finding.fix is not None:
            tried += 1
            wrong += [f"line {seed}, {finding.code}: {told}" for told in made_worse(line, finding, KIT)]
    return tried, wrong


def _doubt(told: Told) -> tuple[float, float]:
    """How doubtful an accepted combination is: by its cautions, then by how little margin is left."""
    return -float(len(told.cautions)), told.margin if told.margin is not None else 99.0


def _page(accepted: list[Told]) -> str:
    """The hundred most doubtful of what is accepted, each kind once."""
    seen: set[tuple[str, str, str, str]] = set()
    rows = []
    for told in sorted(accepted, key=_doubt):
        case = told.case
        kind = KIT.hoses[case.hose].hose_class if case.hose else KIT.tubes[case.tube].material
        key = (case.service, kind, case.end, case.held)
        if key in seen:
            continue
        seen.add(key)
        tube = KIT.tubes[case.tube]
        what = (
            f"{kind} {KIT.hoses[case.hose].size}, {case.held}"
            if case.hose
            else f"{kind} {tube.size} × {tube.wall_mm:g}"
        )
        margin = "" if told.margin is None else f"{told.margin:.1f} ×"
        rows.append(
            f"| {case.service} | {what} | {case.end} | {margin} | {', '.join(told.cautions)} | {told.said} |"
        )
        if len(rows) == 100:
            break
    head = (
        "# The hundred most doubtful of what is accepted\n\n"
        "Combinations without a stop, those with the most cautions and the least margin first, one of each\n"
        "kind; made by `make matrix`. The last column says why it stands: the catalogue's own verdicts.\n\n"
        "| service | what | end | margin | cautions | why it stands |\n|---|---|---|---|---|---|\n"
    )
    return head + "\n".join(rows) + "\n"


def main() -> int:
    """Run it all; the number of things on the wrong side is the exit status, at most 1."""
    arguments = argparse.ArgumentParser(description=__doc__.splitlines()[0] if __doc__ else "")
    arguments.add_argument("--lines", type=int, default=2000)
    arguments.add_argument("--write", type=Path, default=None)
    asked = arguments.parse_args()
    must, may, wrong, accepted = Counter[str](), Counter[str](), Counter[str](), []
    stopped = plans = 0
    with ProcessPoolExecutor(2) as pool:
        for told in pool.map(_told, _cases(), chunksize=200):
            plans += 1
            stopped += bool(told.stops)
            must[must_stop(told.case)] += 1
            may[must_pass(told.case)] += 1
            if must_stop(told.case) and not told.stops:
                wrong[f"accepted: {must_stop(told.case)}, e.g. {told.case}"] += 1
            if must_pass(told.case) and told.stops:
                wrong[f"refused: {must_pass(told.case)}: {told.case}: {told.stops}"] += 1
            if not told.stops:
                accepted.append(told)
        for name, (count, bad) in zip(PARTS, pool.map(_part, PARTS), strict=True):
            print(f"{count:6} tried: {name}, {len(bad)} wrong")
            for text in bad:
                wrong[f"{name}: {text}"] += 1
        tried = 0
        for count, worse in pool.map(_worse, range(asked.lines), chunksize=20):
            tried += count
            for text in worse:
                wrong[f"fix: {text}"] += 1
    print(f"{plans} plans, {stopped} with a stop")
    for name, counted in (("must have a stop", must), ("must have none", may)):
        for why, count in sorted(counted.items()):
            if why:
                print(f"{count:6} {name}: {why}")
    print(f"{tried} fixes on {asked.lines} random lines")
    for text, count in wrong.most_common(60):
        print(f"WRONG {count}: {text}")
    if asked.write is not None:
        asked.write.write_text(_page(accepted), encoding="utf-8")
    return 1 if wrong else 0


if __name__ == "__main__":
    sys.exit(main())
