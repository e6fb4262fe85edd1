"""Demo data: the volunteer workshop of a harbour museum, an old fire tender and a launch."""

from __future__ import annotations

from dataclasses import replace
from datetime import date, timedelta

from bendrel.core.fitup.asbuilt import MadeBend
from bendrel.core.lengths import Angle, Length, Plane
from bendrel.core.line.document import (
    BendReadings,
    BendRow,
    Carries,
    CornerReadings,
    CornerRow,
    HosePiece,
    Line,
    LineEnd,
    PartPiece,
    RigidSpan,
)
from bendrel.core.making.state import MakingState, Spell
from bendrel.core.measuring.legs import Reference
from bendrel.core.removal.log import OpenItem, Removal, RemovedItem
from bendrel.core.removal.stripdown import SharedItem, StripDown
from bendrel.core.repair.condition import (
    Condition,
    Damage,
    Decision,
    Fixture,
    FixtureState,
    WetPoint,
)
from bendrel.core.units import Unit
from bendrel.services.benches import standing
from bendrel.services.bookings import Account, BookingDraft
from bendrel.services.cuttings import CutsDone
from bendrel.services.jobs import JobDraft
from bendrel.services.shelf import Held, OwnDraft
from bendrel.services.startup import Shop
from bendrel.services.stock import StockDraft

BRAKE_TUBE, BRAKE_BENDER = "copper-nickel_3-16in_0.711", "lever_3-16in"

BOOKED: tuple[tuple[Account, str, int, int], ...] = (
    ("planned", "Both rear lines, look and measure", 95, 0),
    ("planned", "3/16 in copper-nickel, 7.6 m coil", 0, 3850),
    ("extra", "Seized bleed screw, drilled and tapped", 70, 620),
    ("own mistake", "Nut forgotten before the flare, piece made again", 25, 410),
)

STOCK = (
    Held(ref=f"tube:{BRAKE_TUBE}", unit_cents=507),
    Held(ref="nut:double-45_3-16in_3-8-24", have=14.0),
    Held(ref="fluid:dot4", have=1.0, unit_cents=990),
)
TRIALS = (
    {
        "cut": "270",
        "mark": "100",
        "dial": "180",
        "leg_a": "127.6",
        "leg_b": "125.5",
        "angle": "177.1",
        "width": "53.3",
    },
    {"cut": "220", "mark": "100", "dial": "30", "leg_a": "108.3", "leg_b": "114.1", "angle": "29"},
)
OLD_NUT = {
    "fitting": "double-45",
    "size": "3/16 in",
    "thread": "3/8-24",
    "length_mm": "22 mm",
    "hex_mm": "7/16",
    "note": "long nuts turned by Henrik for the old cylinders",
}

COIL = StockDraft(tube=BRAKE_TUBE, form="coil", length="6.15 m", note="on the nail by the door")
LYING = (
    StockDraft(
        tube=BRAKE_TUBE,
        form="offcut",
        length="1160 mm",
        finished="one end 45° double flare, 3/8-24 nut",
        note="rack, left",
    ),
    StockDraft(tube="copper-nickel_8mm_1", form="stick", length="1.5 m", count=2),
    StockDraft(tube="copper-nickel_8mm_1", form="offcut", length="640 mm", note="from the bilge line"),
)

Row = tuple[str, Reference, Reference, str, str]


def fill_demo(shop: Shop) -> None:
    """Put the demo jobs into an empty database; one that has jobs is left alone."""
    if shop.jobs.board():
        return
    launch = shop.jobs.create(
        JobDraft(name="Harbour launch", machine="1949 harbour launch, two-cylinder diesel", unit="mm")
    )
    shop.lines.add(launch.id, _fuel_feed())
    shop.lines.add(launch.id, _reservoir_drop())
    tender = shop.jobs.create(
        JobDraft(
            name="Fire tender",
            machine="1958 fire tender, pump amidships, second axle rebuilt",
            customer="Harbour museum, land vehicles",
            promised=date.today() + timedelta(days=9),
        )
    )
    shop.lines.add(tender.id, _rear_left())
    rear_right = shop.lines.add(tender.id, _rear_right())
    shop.lines.add(tender.id, _impossible())
    cooler = shop.lines.add(tender.id, _pump_cooler())
    vacuum = shop.lines.add(tender.id, _priming_vacuum())
    shop.strip_downs.keep(tender.id, 0, _tunnel_off((cooler.id, vacuum.id)))
    for held in STOCK:
        shop.shelf.hold(held)
    shop.stock.add(COIL)
    shop.shelf.add(OwnDraft(shelf="nuts", fields=OLD_NUT))
    _half_made(shop, tender.id, rear_right.id)
    for stock in LYING:
        shop.stock.add(stock)
    for trial in TRIALS:
        shop.shelf.try_tool("lever_8mm", "copper-nickel", trial, "mm")
    for account, what, minutes, cents in BOOKED:
        draft = BookingDraft(account=account, what=what, minutes=minutes, material_cents=cents)
        shop.bookings.book(tender.id, draft)


def _tunnel_off(lines: tuple[str, str]) -> StripDown:
    """What the lines in the pump tunnel share."""
    things = (
        RemovedItem(kind="bolt", what="M8 × 20", wrench="13 mm", count=12, where="tunnel cover"),
        RemovedItem(kind="shield", what="pump tunnel cover", where="floor of the cab", note="two people"),
        RemovedItem(kind="clip", what="wiring clip", count=3, where="left wall", fate="replace"),
    )
    return StripDown(
        items=tuple(
            SharedItem(id=f"tunnel-{number}", lines=lines, **vars(thing))
            for number, thing in enumerate(things, start=1)
        )
    )


def _half_made(shop: Shop, job_id: str, line_id: str) -> None:
    """The line as an evening left it: cut from the coil, two bends made, the second read two degrees
    short."""
    cuts = shop.cuttings.of(job_id, (line_id,))
    shop.cuttings.take(job_id, CutsDone(lines=(line_id,), stamp=cuts.stamp))
    making = shop.makings.begin(line_id)
    state = MakingState()
    for short in (None, 2.0):
        told = standing(making.document, shop.kit, state.made)
        following = told.remade.next
        assert following is not None  # the demo line has more bends than that
        entry = MadeBend(
            bend=following.move.bend,
            held=following.move.held,
            start_mm=following.start_mm,
            angle_deg=following.angle_deg,
            clock_deg=following.clock_deg,
            angle="" if short is None else f"{following.angle_deg - short:.0f}",
            unit=making.document.unit,
        )
        keys = [step.key for step in told.steps]
        here = keys.index(f"bend-{entry.bend}")
        state = MakingState(
            done=tuple(keys[: here + 1]),
            made=(*state.made, entry),
            spells=(Spell(start=EVENING, stop=LATER),),
        )
    shop.makings.keep(making.id, making.version, state)


EVENING, LATER = "2026-01-14T18:05:00Z", "2026-01-14T18:47:00Z"


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
    end_a: LineEnd,
    end_b: LineEnd,
    notes: str = "",
    order: str = "",
) -> Line:
    readings = BendReadings(rows=_rows("in", rows), last=Length(text=last, unit="in"))
    span = RigidSpan(
        tube=BRAKE_TUBE,
        bender=BRAKE_BENDER,
        readings=readings,
        spare=Length(text='1"', unit="in"),
        order=order,
    )
    return Line(name=name, end_a=end_a, end_b=end_b, spans=(span,), notes=notes)


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
HOSE_END = LineEnd(
    label="hose bracket",
    fitting="double-45",
    nut="double-45_3-16in_3-8-24",
    port_thread="3/8-24",
    proved=True,
)
WHEEL_END = LineEnd(
    label="wheel cylinder",
    fitting="double-45",
    nut="double-45_3-16in_M10x1",
    port_thread="M10x1",
)


def _rear_left() -> Line:
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
        HOSE_END,
        WHEEL_END,
        "Old line rusted through under the second clip. Twin of the right-hand line.",
        order="A1 A2 A3 A4 A6 A5",
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
        end_a=replace(HOSE_END, role="feed", role_how="hose comes from the tee", tag="yellow tape"),
    )


def _rear_right() -> Line:
    """The right-hand line: the nut that came out of the bin is the wrong one for the cylinder."""
    wrong = replace(WHEEL_END, nut="double-45_3-16in_3-8-24", label="wheel cylinder, right")
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
        HOSE_END,
        wrong,
    )


def _impossible() -> Line:
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
        HOSE_END,
        replace(WHEEL_END, fitting="compression", nut=None, label="wheel cylinder, front"),
        "Drawn from memory by a volunteer. Kept to show what Bendrel says about it.",
    )
    return replace(line, spans=(replace(line.spans[0], tube="aluminium-3003_3-16in_0.889"),))


def _fuel_feed() -> Line:
    points = (
        ("0", "0", "0"),
        ("180", "0", "0"),
        ("180", "240", "0"),
        ("420", "240", "-110"),
        ("760", "240", "-110"),
        ("760", "330", "-20"),
        ("760", "460", "-20"),
    )
    end = LineEnd(label="tank valve", fitting="double-45", nut="double-45_8mm_M14x1_5", port_thread="M14x1.5")
    readings = CornerReadings(
        rows=tuple(CornerRow(x=Length(text=x), y=Length(text=y), z=Length(text=z)) for x, y, z in points)
    )
    span = RigidSpan(tube="copper-nickel_8mm_1", bender="lever_8mm", readings=readings, marks="middle")
    return Line(
        name="Fuel feed, tank to filter",
        service="fuel-low",
        unit="mm",
        end_a=end,
        end_b=replace(end, label="filter"),
        spans=(span,),
    )


def _reservoir_drop() -> Line:
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
    end = LineEnd(label="steering box", fitting="bubble", nut="bubble_6mm_M12x1")
    span = RigidSpan(tube="steel-double-wall_6mm_0.7", bender="bench_6mm", readings=readings, held="B")
    return Line(
        name="Steering tank drop, with hairpin",
        service="steering-return",
        unit="mm",
        end_a=end,
        end_b=replace(end, label="steering tank"),
        spans=(span,),
    )


def _pump_cooler() -> Line:
    """Pump gearbox to its oil cooler: hard line with a hose at the cooler, the clamp a size too large."""
    rows: tuple[Row, ...] = (
        ("6 1/2", "centre", "outside", "90", "12:00"),
        ("14 3/4", "outside", "outside", "45", "9:00"),
        ("9 1/8", "outside", "outside", "45", "3:00"),
    )
    readings = BendReadings(rows=_rows("in", rows), last=Length(text="8 1/4", unit="in"))
    span = RigidSpan(
        tube="steel-coated_3-8in_0.711",
        bender="lever_3-8in",
        readings=readings,
        spare=Length(text='1"', unit="in"),
    )
    hose = HosePiece(
        hose="cooler_3-8in",
        length=Length(text="7 1/2", unit="in"),
        clamp="worm_25-40",
        far=Length(text="3/8", unit="in"),
        rubs=True,
    )
    return Line(
        name="Pump gearbox to cooler",
        service="cooler",
        end_a=LineEnd(
            label="pump gearbox",
            fitting="double-45",
            nut="double-45_3-8in_5-8-18",
            port_thread="5/8-18",
            seat="inverted-45",
            body="iron",
            proved=True,
            role="feed",
            role_how="gauge on both ports with the pump turning",
            tag="red band",
        ),
        end_b=LineEnd(
            label="oil cooler", fitting="bead", seat="spigot", body="brass", role="return", beyond=(hose,)
        ),
        spans=(span,),
        carries=Carries(flow="5 L/min", old_bore=Length(text="5/16", unit="in")),
    )


def _priming_vacuum() -> Line:
    """Vacuum for the priming ejector: the check valve came back the wrong way round."""
    rows: tuple[Row, ...] = (
        ("120", "centre", "outside", "60", "12:00"),
        ("310", "outside", "outside", "60", "6:00"),
    )
    readings = BendReadings(rows=_rows("mm", rows), last=Length(text="140"))
    span = RigidSpan(tube="nylon_5mm_1", bender="form_5mm", readings=readings, spare=Length(text="20 mm"))
    return Line(
        name="Priming vacuum, with check valve",
        service="vacuum",
        unit="mm",
        end_a=LineEnd(
            label="manifold",
            fitting="plain",
            role="source",
            beyond=(PartPiece(part="check valve", points="B"),),
        ),
        end_b=LineEnd(label="reservoir", fitting="plain"),
        spans=(span,),
    )
