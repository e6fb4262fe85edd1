"""Random lines as people make them: chains of up to eight pieces, mended and let-in ones, hoses with a way,
inch and mm, read bend by bend, by wire or by corner points, with damage, clips, a strip-down and a log; and
jobs whose lines are joined. `share_of` counts what is there, so that a test can hold it.

Everything is made of the program's own documents and edits; what is wrong with a line is left to the rules.
"""

from __future__ import annotations

import random
from collections import Counter
from collections.abc import Iterable
from dataclasses import replace
from itertools import pairwise

from bendrel.core.bend.tube.planned import Rigid, plan_rigid
from bendrel.core.geometry.bends import ShapeError
from bendrel.core.ids import NotAChain
from bendrel.core.joints.closing import joints_of
from bendrel.core.line.condition import Damage, Fixture
from bendrel.core.line.document import (
    BendReadings,
    BendRow,
    ComponentKind,
    ComponentSpan,
    CornerReadings,
    CornerRow,
    HoseSpan,
    InClamp,
    JoinedTo,
    Joint,
    LeftOpen,
    Line,
    Opening,
    Port,
    PortUnit,
    RigidSpan,
    TubeEnd,
)
from bendrel.core.line.edits.chain import fresh_id, insert, insert_beside
from bendrel.core.line.hose_way import HoseEndAt, HoseWay
from bendrel.core.line.proving import Hold, HoldRow, JointEvent, JointWork, Proving
from bendrel.core.line.removal import Removal, RemovedItem
from bendrel.core.line.run import main_run
from bendrel.core.mend.decide import mended
from bendrel.core.mend.let_in import LetIn, let_in, place_of_component
from bendrel.core.mend.proposals import proposals
from bendrel.core.parts.kit import Kit
from bendrel.core.plan.starting import starting_line
from bendrel.core.units.lengths import Angle, Length, Plane
from bendrel.core.units.notation import Unit
from bendrel.services.mend.splicing import damaged_of

PARTS: tuple[ComponentKind, ...] = (
    "filter", "check valve", "shut-off valve", "cooler", "restrictor", "adapter", "elbow", "union",
    "reservoir",
)  # fmt: skip
MOST = 8
INCHES = ("4", "5 1/2", "6 3/4", "8", "9 5/8", "12 1/4", "16")
MM = (90, 120, 165, 210, 260, 340, 480)


def made_line(kit: Kit, seed: int) -> Line:
    """One line; the same for the same catalogue and seed."""
    rng = random.Random(seed)
    line = _one_tube(kit, rng)
    for edit, chance in ((_mended, 0.3), (_let_in, 0.2), (_second_tube, 0.2), (_hoses, 0.5), (_parts, 0.4)):
        if rng.random() < chance:
            line = edit(kit, rng, line)
    return _logged(kit, rng, line)


def one_tube(kit: Kit, seed: int) -> Line:
    """A line of one tube, whole."""
    return _one_tube(kit, random.Random(seed))


def made_job(kit: Kit, seed: int) -> dict[str, Line]:
    """Two to four lines of one service by their ids, joined at a tee or manifold of the first."""
    rng = random.Random(seed)
    service = rng.choice(("vacuum-actuator", "vacuum", "cooler", "fuel-low", "hydraulic-return", "coolant"))
    main = _one_tube(kit, rng, service)
    what: ComponentKind = rng.choice(("tee", "Y-piece", "manifold"))
    tee = ComponentSpan(id="t1", what=what, length=Length(text="40 mm"))
    main = insert_beside(main, main.spans[0].id, "B", tee)
    main = replace(
        main, port_a=replace(main.port_a, role="source"), port_b=replace(main.port_b, role="return")
    )
    job = {"main": main}
    for branch, name in zip(("C", "D", "E"), ("one", "two", "three"), strict=True):
        if branch != "C" and (what != "manifold" or rng.random() < 0.4):
            continue
        other = _one_tube(kit, rng, service)
        unit = (
            PortUnit(kind="actuator", stroke="40 ml", least="0.3 bar") if "vacuum" in service else PortUnit()
        )
        joined = Port(on=JoinedTo(line="main", span="t1", branch=branch))  # type: ignore[arg-type]
        job[name] = replace(other, port_a=joined, port_b=replace(other.port_b, unit=unit))
    return job


# ---- one tube, read in one of the ways that people read it


def _one_tube(kit: Kit, rng: random.Random, service: str = "") -> Line:
    named = service or rng.choice([s.id for s in kit.services.values() if s.duty and not s.left_to])
    unit: Unit = rng.choice(("in", "mm", "mm"))
    line = starting_line(kit, f"{named} {rng.randint(1, 999)}", named, unit)
    span = line.spans[0]
    assert isinstance(span, RigidSpan)
    tube = kit.tubes[span.tube]
    others = [t for t in kit.tubes.values() if t.size == tube.size]
    if rng.random() < 0.25:
        tube = rng.choice(others)
    plastic = kit.materials[tube.material].family == "plastic"
    able = kit.benders_for(tube.size, plastic=plastic)
    bender = rng.choice(able).id if able and rng.random() < 0.5 else span.bender
    if kit.benders[bender].radius_mm is None:
        bender = "given_any"
    radius = None
    if bender == "given_any":
        radius = Length(text=f"{max(30, round(4 * tube.od_mm))} mm", unit="mm")
        if plastic:
            radius = Length(text=f"{round(8 * tube.od_mm)} mm", unit="mm")
    span = replace(
        span,
        tube=tube.id,
        bender=bender,
        readings=_readings(rng, unit, radius),
        held=rng.choice(("A", "A", "B")),
        marks=rng.choice(("start", "start", "middle")),
    )
    ids = [row.id for row in span.readings.rows] if isinstance(span.readings, BendReadings) else []
    if len(ids) > 1 and rng.random() < 0.2:
        mixed = rng.sample(ids, len(ids))
        span = replace(span, order=tuple(InClamp(row=one, held=span.held) for one in mixed))
    if ids and rng.random() < 0.12:
        span = replace(span, left_open=(LeftOpen(row=rng.choice(ids), angle=Angle(text="15")),))
    if rng.random() < 0.12:
        span = replace(
            span,
            openings=(Opening(what="frame hole", at=Length(text="150 mm"), across=Length(text="40 mm")),),
        )
    roles = rng.choice((("source", "return"), ("feed", "return"), ("not known", "not known")))
    return replace(
        line,
        spans=(span,),
        port_a=replace(line.port_a, label="tank side", role=roles[0]),
        port_b=replace(line.port_b, label="far side", role=roles[1]),
    )


def _readings(rng: random.Random, unit: Unit, radius: Length | None) -> BendReadings | CornerReadings:
    way, count = rng.random(), rng.choice((0, 1, 2, 3, 3, 4, 5, 6, 7, 8))
    if way < 0.15 and count:
        return _corners(rng, min(count, 4), radius)

    def length() -> Length:
        return Length(text=rng.choice(INCHES) if unit == "in" else str(rng.choice(MM)), unit=unit)

    by_wire = way > 0.88
    rows, along = [], 0
    for _ in range(count):
        along += rng.choice(MM)
        rows.append(
            BendRow(
                by="wire" if by_wire else "leg",
                length=Length(text=f"{along} mm", unit="mm") if by_wire else length(),
                read_from=rng.choice(("outside", "centre", "inside")),
                read_to=rng.choice(("outside", "centre")) if not by_wire else "start",
                angle=Angle(text=str(rng.choice((15, 30, 45, 60, 90, 110)))),
                plane=Plane(text=rng.choice(("12:00", "3:00", "6:00", "9:00", "1:30", "-60°"))),
                radius=radius,
            )
        )
    last = Length(text=f"{along + 200} mm", unit="mm") if by_wire else length()
    return BendReadings(
        rows=tuple(rows), last=last, last_by="wire" if by_wire else "leg", last_read_from="outside"
    )


def _corners(rng: random.Random, count: int, radius: Length | None) -> CornerReadings:
    x = y = z = 0
    rows = []
    for k in range(count + 2):
        rows.append(
            CornerRow(
                x=Length(text=f"{x} mm"), y=Length(text=f"{y} mm"), z=Length(text=f"{z} mm"),
                radius=radius if 0 < k <= count else None,
            )
        )  # fmt: skip
        step = rng.choice(MM)
        x, y, z = (x + step, y, z) if k % 3 == 0 else (x, y + step, z) if k % 3 == 1 else (x, y, z + step)
    return CornerReadings(rows=tuple(rows))


# ---- what is done to it


def _rigid(kit: Kit, line: Line) -> Rigid | None:
    try:
        return plan_rigid(main_run(line), kit).rigid
    except (NotAChain, StopIteration):
        return None


def _mended(kit: Kit, rng: random.Random, line: Line) -> Line:
    """A damage, and one of the ways that are not refused; where there is none the damage stays noted."""
    rigid = _rigid(kit, line)
    if rigid is None:
        return line
    at = rng.uniform(0.2, 0.7) * rigid.part.developed_mm
    to = at + rng.choice((0, 15, 40))
    kind = rng.choice(("rust", "chafe", "crush", "kink"))
    span = rigid.run.span.id
    noted = Damage(span=span, kind=kind, at=Length(text=f"{at:.0f} mm"), to=Length(text=f"{to:.0f} mm"))
    line = replace(line, condition=replace(line.condition, reasons=("weeping",), damage=(noted,)))
    offers = proposals(kit, damaged_of(kit, rigid, at, to, kind), kit.services[line.service])
    able = [o for o in offers if o.verdict != "refused" and o.method != "whole"]
    if not able:
        return line
    try:
        return mended(line, kit, rigid, rng.choice(able), "the part it goes to would not live through it")
    except (NotAChain, ShapeError):
        return line


def _let_in(kit: Kit, rng: random.Random, line: Line) -> Line:
    rigid = _rigid(kit, line)
    if rigid is None or len(line.spans) > MOST - 4:
        return line
    what = rng.choice(("filter", "cooler", "shut-off valve"))
    rated = rng.choice(("", "10 bar", "250 bar"))
    kpa = {"": None, "10 bar": 1000.0, "250 bar": 25_000.0}[rated]
    new = LetIn(what=what, length_mm=rng.choice((50.0, 80.0)), at_mm=None, rated=rated, rated_kpa=kpa)
    try:
        return let_in(line, kit, rigid, new, place_of_component(line, kit, rigid, new))
    except (NotAChain, ShapeError):
        return line


def _second_tube(kit: Kit, rng: random.Random, line: Line) -> Line:
    """A tube of another material and its union, behind the last span."""
    first = next((s for s in line.spans if isinstance(s, RigidSpan)), None)
    if first is None or len(line.spans) >= MOST:
        return line
    size, own = kit.tubes[first.tube].size, kit.tubes[first.tube].material
    other = [t for t in kit.tubes.values() if t.size == size and t.material != own]
    if not other:
        return line
    rows = (BendRow(length=Length(text="150 mm"), angle=Angle(text="45"), plane=Plane(text="12:00"),
                    radius=Length(text="60 mm")),)  # fmt: skip
    kind = rng.choice(("flared-union", "compression-union", "bite-union"))
    second = RigidSpan(
        id=fresh_id(line, "s"), tube=rng.choice(other).id, bender="given_any",
        state=rng.choice(("to make", "stays")), end_a=first.end_b, end_b=first.end_b,
        readings=BendReadings(rows=rows, last=Length(text="180 mm")),
    )  # fmt: skip
    return insert(line, len(line.spans), second, before=Joint(kind=kind, why="the far half was sound"))


def _hoses(kit: Kit, rng: random.Random, line: Line) -> Line:
    """One or two hoses at the ends: clamped, crimped or with reusable ends, some between known ends."""
    usual = kit.services[line.service].hose_class
    for end in rng.sample(("A", "B"), rng.choice((1, 1, 2))):
        tube = next(
            (s for s in (line.spans if end == "A" else reversed(line.spans)) if isinstance(s, RigidSpan)),
            None,
        )
        pool = [h for h in kit.hoses.values() if h.hose_class == usual]
        if rng.random() < 0.25 or not pool:
            pool = [h for h in kit.hoses.values() if kit.hose_classes[h.hose_class].reusable]
        if tube is None or len(line.spans) >= MOST:
            return line
        od = kit.tubes[tube.tube].od_mm
        hose = min(pool, key=lambda h: (abs(h.id_mm - od), h.id))
        kind = kit.hose_classes[hose.hose_class]
        joined = (
            "clamps" if kind.clamps else rng.choice(("crimped", "reusable")) if kind.reusable else "crimped"
        )
        fits = [
            c.id
            for c in kit.clamps.values()
            if c.kind in kind.clamps and c.closed_mm < hose.od_mm < c.open_mm
        ]
        clamp = rng.choice(fits) if fits and joined == "clamps" and rng.random() < 0.8 else None
        made = HoseSpan(
            id=fresh_id(line, "h"), hose=hose.id, length=Length(text=rng.choice(("", "300 mm", "450 mm"))),
            joined=joined, clamp=clamp, clamps_each=rng.choice((1, 2, 2)), rubs=rng.random() < 0.1,
            way=_way(rng) if rng.random() < 0.5 else None,
            angle_b=rng.choice((0, 0, 90)) if joined != "clamps" else 0,
        )  # fmt: skip
        line = insert_beside(line, tube.id, end, made)
        if kind.clamps:
            under = TubeEnd(fitting=rng.choice(("bead", "bead", "plain")))
            changed = replace(tube, end_a=under) if end == "A" else replace(tube, end_b=under)
            line = replace(line, spans=tuple(changed if s.id == tube.id else s for s in line.spans))
    return line


def _way(rng: random.Random) -> HoseWay:
    across, along = rng.choice((0, 60, 150)), rng.choice((200, 260, 340))
    return HoseWay(
        a=HoseEndAt(x=Length(text="0 mm"), y=Length(text="0 mm"), z=Length(text="0 mm"), way="ahead"),
        b=HoseEndAt(
            x=Length(text=f"{along} mm"), y=Length(text=f"{across} mm"), z=Length(text="0 mm"),
            way=rng.choice(("ahead", "ahead", "left", "down")),
        ),
    )  # fmt: skip


def _parts(_: Kit, rng: random.Random, line: Line) -> Line:
    for _k in range(rng.choice((1, 1, 2, 3))):
        if len(line.spans) >= MOST:
            break
        part = ComponentSpan(
            id=fresh_id(line, "c"), what=rng.choice(PARTS), points=rng.choice(("A", "B", "B", "not marked")),
            length=Length(text=rng.choice(("", "60 mm"))), rated=rng.choice(("", "10 bar", "20 bar")),
            bore=Length(text="1 mm"), on_a=Length(text="8 mm"), on_b=Length(text="8 mm"),
        )  # fmt: skip
        line = insert_beside(line, rng.choice(line.spans).id, rng.choice(("A", "B")), part)
    return line


def _logged(kit: Kit, rng: random.Random, line: Line) -> Line:
    """Damage and clips where they were seen, a strip-down, and what was noted of joints and tests."""
    tubes = [s for s in line.spans if isinstance(s, RigidSpan)]
    condition = line.condition
    if tubes and rng.random() < 0.25 and not condition.damage:
        at = rng.choice((20, 60, 110))
        noted = Damage(
            span=tubes[0].id, kind="chafe", at=Length(text=f"{at} mm"), to=Length(text=f"{at + 20} mm")
        )
        condition = replace(condition, damage=(noted,), cause=rng.choice(("contact", "not known")))
    if tubes and rng.random() < 0.3:
        clips = tuple(
            Fixture(span=tubes[0].id, kind=rng.choice(("clip", "sleeve")), at=Length(text=f"{at} mm"),
                    state=rng.choice(("there", "missing")))
            for at in (40, 160)
        )  # fmt: skip
        condition = replace(condition, fixtures=clips)
    line = replace(line, condition=condition)
    rule = kit.removal.get(line.service)
    if rng.random() < 0.4 and rule is not None:
        ids = [step.id for step in rule.steps] + ["plug-A", "plug-B"]
        items = (
            RemovedItem(kind="bolt", what="M6 × 16", wrench="10", where="sill"),
            RemovedItem(kind="washer"),
        )
        done = tuple(rng.sample(ids, rng.randint(1, len(ids))))
        line = replace(line, removal=Removal(done=done, items=items if rng.random() < 0.5 else ()))
    if rng.random() < 0.3:
        line = replace(line, proving=_proving(kit, rng, line))
    return line


def _events(seen: tuple[str, ...]) -> tuple[JointEvent, ...]:
    return tuple(JointEvent(what=what, at=f"2026-11-20T10:{k:02d}") for k, what in enumerate(seen))  # type: ignore[arg-type]


def _proving(kit: Kit, rng: random.Random, line: Line) -> Proving:
    seen = ((), ("dried",), ("dried", "dry"), ("dried", "wet"), ("dried", "wet", "nip", "dried", "dry"))
    joints = tuple(
        JointWork(
            span=joint.span, end=joint.end, meets=joint.meets, turns=rng.choice(("", "4", "7")),
            events=_events(rng.choice(seen)),
        )
        for joint in joints_of(line, kit)
    )  # fmt: skip
    rows = tuple(HoldRow(minutes=str(k), pressure=f"{3 - 0.001 * k} bar", temperature="18") for k in range(6))
    offer = kit.proving.by_service[line.service].hold
    kind = offer.kind if offer is not None else "liquid"
    reads = "below the air" if kind == "vacuum" else "above the air"
    if kind == "vacuum":
        rows = tuple(replace(row, pressure="0.6 bar") for row in rows)
    hold = Hold(kind=kind, rows=rows, reads=reads, volume="500 ml")
    return Proving(joints=joints, holds=(hold,) if rng.random() < 0.6 else ())


# ---- what is in them

KINDS = (
    "several spans", "six or more spans", "two tubes", "two materials", "mended", "let in", "union", "hose",
    "hose with a way", "reusable ends", "component", "inch", "three or more bends", "six or more bends",
    "corner points", "wire", "damage", "clips", "opening", "left open", "held at B", "own order",
    "strip-down",
    "log of joints", "hold test", "old tube",
)  # fmt: skip


def share_of(kit: Kit, lines: Iterable[Line]) -> Counter[str]:
    """How many of `lines` have each of `KINDS`."""
    found: Counter[str] = Counter()
    for line in lines:
        found.update(_kinds(kit, line))
    return found


def _kinds(kit: Kit, line: Line) -> set[str]:
    tubes = [s for s in line.spans if isinstance(s, RigidSpan)]
    hoses = [s for s in line.spans if isinstance(s, HoseSpan)]
    parts = [s for s in line.spans if isinstance(s, ComponentSpan)]
    most = max((len(t.readings.rows) - (2 if t.readings.kind == "corners" else 0) for t in tubes), default=0)
    between = (
        any(isinstance(a, HoseSpan) and isinstance(b, ComponentSpan) for a, b in pairwise(line.spans))
        and len(tubes) > 1
    )
    told = {
        "several spans": len(line.spans) > 1,
        "six or more spans": len(line.spans) >= 6,
        "two tubes": len(tubes) > 1,
        "two materials": len({kit.tubes[t.tube].material for t in tubes}) > 1,
        "mended": line.condition.decision is not None,
        "let in": between,
        "union": any(joint.kind for joint in line.joints),
        "hose": bool(hoses),
        "hose with a way": any(h.way for h in hoses),
        "reusable ends": any(h.joined == "reusable" for h in hoses),
        "component": bool(parts),
        "inch": line.unit == "in",
        "three or more bends": most >= 3,
        "six or more bends": most >= 6,
        "corner points": any(t.readings.kind == "corners" for t in tubes),
        "wire": any(
            r.by == "wire" for t in tubes if isinstance(t.readings, BendReadings) for r in t.readings.rows
        ),
        "damage": bool(line.condition.damage),
        "clips": bool(line.condition.fixtures),
        "opening": any(t.openings for t in tubes),
        "left open": any(t.left_open for t in tubes),
        "held at B": any(t.held == "B" for t in tubes),
        "own order": any(t.order for t in tubes),
        "strip-down": bool(line.removal.done),
        "log of joints": bool(line.proving.joints),
        "hold test": bool(line.proving.holds),
        "old tube": any(t.state == "stays" for t in tubes),
    }
    assert set(told) == set(KINDS)
    return {name for name, there in told.items() if there}
