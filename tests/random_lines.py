"""Random lines across the whole catalogue, and the fixes of their findings applied as the screen does."""

from __future__ import annotations

import random
from typing import Any

from bendrel.core.findings import Finding, Fix
from bendrel.core.line.document import Carries, Line
from bendrel.core.parts.kit import Kit
from bendrel.core.units.lengths import Length
from bendrel.exchange.documents.documents import line_from_value, line_to_value
from bendrel.services.line.chains import ChainEdit, edit_chain
from tests.lines import Component, End, Hose, bent, row

PARTS = ("check valve", "reservoir", "filter", "restrictor", "shut-off valve", "cooler", "adapter")


def random_line(kit: Kit, seed: int) -> Line:
    """A line as somebody might choose it who knows little: mostly sensible, with some of everything wrong."""
    rng = random.Random(seed)
    services = [s.id for s in kit.services.values() if not s.left_to]
    service = rng.choice(services)
    tube = rng.choice(list(kit.tubes.values()))
    plastic = kit.materials[tube.material].family == "plastic"
    benders = kit.benders_for(tube.size, plastic=plastic) or tuple(kit.benders.values())
    bender = rng.choice(benders if rng.random() < 0.9 else tuple(kit.benders.values()))
    rows = tuple(
        row(
            rng.choice((30, 60, 120, 250, 400)),
            rng.choice((20, 45, 90, 120)),
            rng.choice(("12:00", "3:00", "7:30")),
        )
        for _ in range(rng.randint(0, 3))
    )
    return bent(
        *rows,
        last=rng.choice((25, 80, 250)),
        service=service,
        tube=tube.id,
        bender=bender.id,
        end_a=_end(kit, rng, service, tube.size, tube.od_mm),
        end_b=_end(kit, rng, service, tube.size, tube.od_mm),
        carries=_carries(kit, rng),
    )


def _carries(kit: Kit, rng: random.Random) -> Carries:
    if rng.random() < 0.6:
        return Carries()
    return Carries(
        fluid=rng.choice(list(kit.fluids)) if rng.random() < 0.4 else "",
        pressure=rng.choice(("", "", "1 bar", "6 bar", "100 bar", "250 bar")),
        temperature=rng.choice(("", "", "20", "90", "140")),
        old_bore=Length(text=rng.choice(("", "3 mm", "8 mm"))),
    )


def _end(kit: Kit, rng: random.Random, service: str, size: str, od_mm: float) -> End:
    fitting = rng.choice(list(kit.fittings.values()))
    nuts = list(kit.nuts_for(fitting.id, size))
    nut = rng.choice(nuts).id if nuts and rng.random() < 0.8 else None
    if rng.random() < 0.15:
        nut = rng.choice(list(kit.nuts))
    port = ""
    if rng.random() < 0.5:
        port = kit.nuts[nut].thread if nut and rng.random() < 0.6 else rng.choice(list(kit.threads))
    beyond: list[Hose | Component] = []
    while rng.random() < 0.4 and len(beyond) < 3:
        beyond.append(_hose(kit, rng, service, od_mm) if rng.random() < 0.7 else _part(rng))
    return End(
        fitting=fitting.id,
        nut=nut,
        thread=port,
        seat=rng.choice(list(kit.seats)) if rng.random() < 0.4 else "",
        body=rng.choice(["", *kit.bodies]),
        proved=rng.random() < 0.5,
        insert=rng.random() < 0.2,
        beyond=tuple(beyond),
        role=rng.choice(("not known", "source", "feed", "return")),
    )


def _hose(kit: Kit, rng: random.Random, service: str, od_mm: float) -> Hose:
    usual = kit.services[service].hose_class
    classes = [h for h in kit.hoses.values() if h.hose_class == usual] if rng.random() < 0.6 else []
    pool = classes or list(kit.hoses.values())
    near = sorted(pool, key=lambda hose: abs(hose.id_mm - od_mm))[:3]
    return Hose(
        hose=rng.choice(near if rng.random() < 0.8 else pool).id,
        length=Length(text=rng.choice(("", "40 mm", "150 mm", "400 mm"))),
        joined=rng.choice(("clamps", "clamps", "crimped", "reusable")),
        clamp=rng.choice([None, *kit.clamps]),
        clamps_each=rng.choice((0, 1, 2)),
        far=Length(text=rng.choice(("", "", f"{od_mm:.1f} mm", "10 mm"))),
        far_plain=rng.random() < 0.3,
        rubs=rng.random() < 0.2,
    )


def _part(rng: random.Random) -> Component:
    return Component(
        what=rng.choice(PARTS),
        points=rng.choice(("A", "B", "not marked")),
        source_port=rng.choice(("A", "B", "not known")),
        age=rng.choice(("new", "old")),
        bore=Length(text=rng.choice(("", "1 mm", "3 mm"))),
    )


def with_fix(line: Line, fix: Fix, kit: Kit) -> Line:
    """`line` with the changes of a fix, by JSON pointer, as the screen applies them, and its reducer."""
    if fix.reduce is not None:
        edit = ChainEdit(kind="reduce", span=fix.reduce.span, reduce=fix.reduce)
        line = edit_chain(line, edit, kit).document
    value: Any = line_to_value(line)
    for change in fix.changes:
        at = value
        *way, last = change.path.strip("/").split("/")
        if way[0] == "joints":  # a joint is named by the span before it
            way[1] = str([span["id"] for span in value["spans"]].index(way[1]))
        for step in way:
            at = at[_place(at, step)] if isinstance(at, list) else at[step]
        if isinstance(at, list) and _place(at, last) == len(at):
            at.append(change.value)
        elif isinstance(at, list):
            at[_place(at, last)] = change.value
        else:
            at[last] = change.value
    return line_from_value(value)


def _place(items: list[Any], step: str) -> int:
    ids = [item.get("id") if isinstance(item, dict) else None for item in items]
    return ids.index(step) if step in ids else int(step)


RANK = {"stop": 2, "caution": 1, "note": 0}


def made_worse(line: Line, finding: Finding, kit: Kit) -> list[str]:
    """Findings as bad as `finding`, or worse, that its fix brings up and that were not there before; or that
    it stays."""
    from bendrel.core.plan.planner import plan_line

    assert finding.fix is not None
    before = {(f.code, f.where.spot) for f in plan_line(line, kit).findings}
    after = plan_line(with_fix(line, finding.fix, kit), kit)
    if after.chosen is None:
        return [f"no plan any more: {after.problems[0].message}"]
    told = [
        f"{f.severity} {f.code} at {f.where}: {f.title}"
        for f in after.findings
        if (f.code, f.where.spot) not in before and RANK[f.severity] >= RANK[finding.severity]
    ]
    stays = [f for f in after.findings if f.code == finding.code and f.where.spot == finding.where.spot]
    if (
        stays
        and [f.title for f in stays] == [finding.title]
        and [f.message for f in stays] == [finding.message]
    ):
        told.append("it is still there")
    return told
