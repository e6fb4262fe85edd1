"""The lines of the demo shop."""

from __future__ import annotations

from dataclasses import replace
from datetime import date, timedelta

from bendrel.core.line.condition import Condition, Damage, Decision, Fixture, FixtureState, WetPoint
from bendrel.core.line.document import (
    BendReadings,
    BendRow,
    Carries,
    ComponentSpan,
    CornerReadings,
    CornerRow,
    HoseSpan,
    InClamp,
    Line,
    Port,
    RigidSpan,
    TubeEnd,
)
from bendrel.core.line.removal import OpenItem, Removal, RemovedItem
from bendrel.core.line.run import with_span
from bendrel.core.measure.legs import Reference
from bendrel.core.units.lengths import Angle, Length, Plane
from bendrel.core.units.notation import Unit
from bendrel.services.shelf.tubes import tube_of

BRAKE_TUBE, BRAKE_BENDER = "copper-nickel_3-16in_0.711", "lever_3-16in"
Row = tuple[str, Reference, Reference, str, str]


def _rows(unit: Unit, rows: tuple[Row, ...]) -> tuple[BendRow, ...]:
    return tuple(
        BendRow(
            length=Length(text=length, unit=unit),
            read_from=start,
            read_to=end,
            angle=Angle(text=angle),
            plane=Plane(text=plane),
        )
        for length, start, end, angle, plane in rows
    )


def _brake_line(
    name: str,
    rows: tuple[Row, ...],
    last: str,
    hose: tuple[Port, TubeEnd],
    wheel: tuple[Port, TubeEnd],
    notes: str = "",
    order: tuple[InClamp, ...] = (),
) -> Line:
    readings = BendReadings(rows=_rows("in", rows), last=Length(text=last, unit="in"))
    span = RigidSpan(
        id="s1",
        tube=BRAKE_TUBE,
        bender=BRAKE_BENDER,
        readings=readings,
        end_a=hose[1],
        end_b=wheel[1],
        spare=Length(text='1"', unit="in"),
        order=order,
    )
    return Line(name=name, port_a=hose[0], port_b=wheel[0], spans=(span,), notes=notes)


CLIPS: tuple[tuple[str, FixtureState], ...] = (
    ("10", "there"),
    ("12 5/8", "broken"),
    ("20", "there"),
    ("27", "missing"),
)
REMOVED = (
    RemovedItem(kind="nut", what="wheel, left rear", wrench="27 mm", count=8, where="hub"),
    RemovedItem(kind="shield", what="splash plate", where="behind the drum", note="bent, straighten"),
    RemovedItem(kind="bolt", what="M6 × 16", wrench="10 mm", count=2, where="splash plate"),
    RemovedItem(kind="clip", what="P-clip 5 mm", wrench="10 mm", count=3, where="axle tube", fate="replace"),
    RemovedItem(kind="clip", what="by the spring seat", fate="should be here and is not"),
    RemovedItem(kind="washer", what="copper", where="hose bracket", fate="replace"),
    RemovedItem(kind="connector", what="tube nut", wrench="11 mm flare-nut", count=2, where="both ends"),
)
BRACKET = Port(label="hose bracket", thread="3/8-24", proved=True)
BRACKET_END = TubeEnd(fitting="double-45", nut="double-45_3-16in_3-8-24")
WHEEL = Port(label="wheel cylinder", thread="M10x1")
WHEEL_END = TubeEnd(fitting="double-45", nut="double-45_3-16in_M10x1")


def rear_left_line() -> Line:
    line = _brake_line(
        "Rear axle, left",
        (
            ("2 5/8", "centre", "outside", "90", "12:00"),
            ("6 13/16", "outside", "outside", "45", "3:00"),
            ("9 3/16", "inside", "outside", "45", "9:00"),
            ("4 15/16", "outside", "outside", "90", "1:00"),
            ("7 7/8", "outside", "outside", "60", "10:30"),
            ("3 1/4", "outside", "outside", "72", "10:30"),
        ),
        "3 1/16",
        (
            replace(BRACKET, role="feed", role_how="hose comes from the tee", tag="yellow tape"),
            BRACKET_END,
        ),
        (WHEEL, WHEEL_END),
        "Old line rusted through under the second clip. Twin of the right-hand line.",
        order=tuple(InClamp(row=f"r{bend}", held="A") for bend in (1, 2, 3, 4, 6, 5)),
    )
    condition = Condition(
        reasons=("rusted through", "weeping"),
        urgency="off the road",
        twin="due too",
        wet=(
            WetPoint(place="under the second clip"),
            WetPoint(place="axle tube", ruled_out="hub seal, dry after cleaning"),
        ),
        damage=(
            Damage(
                kind="rust",
                depth="through",
                at=Length(text="12", unit="in"),
                to=Length(text="13 1/4", unit="in"),
            ),
        ),
        fixtures=tuple(Fixture(at=Length(text=at, unit="in"), state=state) for at, state in CLIPS),
        cause="trapped dirt",
        countermeasure="stainless clips with a sleeve under each",
        decision=Decision(choice="replace whole", reason="brakes, and the twin is due too"),
    )
    removal = Removal(
        items=REMOVED,
        machine_state=("wheel off", "on stands", "rear raised 450 mm"),
        went_out="to the left, over the axle tube",
        volume="0.8 L",
        done=("brake-pressure", "brake-pedal"),
    )
    return replace(
        line,
        condition=condition,
        removal=removal,
        open_items=(
            OpenItem(
                kind="missing hold-down",
                what="clip by the spring seat",
                person="Ilse",
                due=(date.today() + timedelta(days=4)).isoformat(),
            ),
        ),
    )


def rear_right_line() -> Line:
    """The right-hand line: the nut that came out of the bin is the wrong one for the cylinder."""
    wrong = replace(WHEEL_END, nut="double-45_3-16in_3-8-24")
    return _brake_line(
        "Rear axle, right",
        (
            ("3 1/2", "centre", "outside", "90", "12:00"),
            ("11 3/4", "outside", "outside", "30", "6:00"),
            ("8 7/16", "outside", "outside", "45", "9:00"),
            ("5", "outside", "outside", "90", "11:30"),
            ("6 1/8", "outside", "outside", "75", "2:00"),
        ),
        '2-3/4"',
        (BRACKET, BRACKET_END),
        (replace(WHEEL, label="wheel cylinder, right"), wrong),
    )


def impossible_line() -> Line:
    """Cannot be made, on purpose: it shows what findings look like."""
    line = _brake_line(
        "Front left, as sketched (cannot be made)",
        (
            ("1 1/8", "centre", "outside", "90", "12:00"),
            ("5", "outside", "back", "200", "3:00"),
            ("7/8", "back", "outside", "90", "6:00"),
            ("1 3/4", "outside", "outside", "60", "9:00"),
            ("6 1/4", "outside", "outside", "45", "12:00"),
        ),
        "1",
        (BRACKET, BRACKET_END),
        (replace(WHEEL, label="wheel cylinder, front"), replace(WHEEL_END, fitting="compression", nut=None)),
        "Drawn from memory by a volunteer. Kept to show what Bendrel says about it.",
    )
    return with_span(line, replace(tube_of(line).span, tube="aluminium-3003_3-16in_0.889"))


def fuel_feed_line() -> Line:
    points = (
        ("0", "0", "0"),
        ("180", "0", "0"),
        ("180", "240", "0"),
        ("420", "240", "-110"),
        ("760", "240", "-110"),
        ("760", "330", "-20"),
        ("760", "460", "-20"),
    )
    end = TubeEnd(fitting="double-45", nut="double-45_8mm_M14x1_5")
    readings = CornerReadings(
        rows=tuple(CornerRow(x=Length(text=x), y=Length(text=y), z=Length(text=z)) for x, y, z in points)
    )
    span = RigidSpan(
        id="s1",
        tube="copper-nickel_8mm_1",
        bender="lever_8mm",
        readings=readings,
        marks="middle",
        end_a=end,
        end_b=end,
    )
    return Line(
        name="Fuel feed, tank to filter",
        service="fuel-low",
        unit="mm",
        port_a=Port(label="tank valve", thread="M14x1.5"),
        port_b=Port(label="filter", thread="M14x1.5"),
        spans=(span,),
    )


def reservoir_drop_line() -> Line:
    readings = BendReadings(
        rows=_rows(
            "mm",
            (
                ("95", "centre", "outside", "90", "12:00"),
                ("140", "outside", "back", "180", "3:00"),
                ("120", "back", "outside", "90", "9:00"),
            ),
        ),
        last=Length(text="8 cm"),
    )
    end = TubeEnd(fitting="bubble", nut="bubble_6mm_M12x1")
    span = RigidSpan(
        id="s1",
        tube="steel-double-wall_6mm_0.7",
        bender="bench_6mm",
        readings=readings,
        held="B",
        end_a=end,
        end_b=end,
    )
    return Line(
        name="Steering tank drop, with hairpin",
        service="steering-return",
        unit="mm",
        port_a=Port(label="steering box"),
        port_b=Port(label="steering tank"),
        spans=(span,),
    )


def pump_cooler_line() -> Line:
    """Pump gearbox to its oil cooler: hard line with a hose at the cooler, the clamp a size too large."""
    rows: tuple[Row, ...] = (
        ("6 1/2", "centre", "outside", "90", "12:00"),
        ("14 3/4", "outside", "outside", "45", "9:00"),
        ("9 1/8", "outside", "outside", "45", "3:00"),
    )
    readings = BendReadings(rows=_rows("in", rows), last=Length(text="8 1/4", unit="in"))
    span = RigidSpan(
        id="s1",
        tube="steel-coated_3-8in_0.711",
        bender="lever_3-8in",
        readings=readings,
        end_a=TubeEnd(fitting="double-45", nut="double-45_3-8in_5-8-18"),
        end_b=TubeEnd(fitting="bead"),
        spare=Length(text='1"', unit="in"),
    )
    hose = HoseSpan(
        id="b1",
        hose="cooler_3-8in",
        length=Length(text="7 1/2", unit="in"),
        clamp="worm_25-40",
        on_b=Length(text="3/8", unit="in"),
        rubs=True,
    )
    return Line(
        name="Pump gearbox to cooler",
        service="cooler",
        port_a=Port(
            label="pump gearbox",
            thread="5/8-18",
            seat="inverted-45",
            body="iron",
            proved=True,
            role="feed",
            role_how="gauge on both ports with the pump turning",
            tag="red band",
        ),
        port_b=Port(label="oil cooler", seat="spigot", body="brass", role="return"),
        spans=(span, hose),
        carries=Carries(flow="5 L/min", old_bore=Length(text="5/16", unit="in")),
    )


def priming_vacuum_line() -> Line:
    """Vacuum for the priming ejector: the check valve came back the wrong way round."""
    rows: tuple[Row, ...] = (
        ("120", "centre", "outside", "60", "12:00"),
        ("310", "outside", "outside", "60", "6:00"),
    )
    readings = BendReadings(rows=_rows("mm", rows), last=Length(text="140"))
    span = RigidSpan(
        id="s1", tube="nylon_5mm_1", bender="form_5mm", readings=readings, spare=Length(text="20 mm")
    )
    return Line(
        name="Priming vacuum, with check valve",
        service="vacuum",
        unit="mm",
        port_a=Port(label="manifold", role="source"),
        port_b=Port(label="reservoir"),
        spans=(ComponentSpan(id="a1", what="check valve", points="B"), span),
    )
