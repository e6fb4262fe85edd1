"""Demo data: the volunteer workshop of a harbour museum, an old fire tender and a launch."""

from __future__ import annotations

from datetime import date, timedelta

from bendrel.core.bend.bench.state import MakingState, Spell
from bendrel.core.bend.told.figures import MadeBend
from bendrel.core.line.removal import RemovedItem
from bendrel.core.line.strip_down import SharedItem, StripDown
from bendrel.services.bench.benches import standing
from bendrel.services.demo.documents import demo_line
from bendrel.services.demo.proofs import failed, half_proved, signed_off
from bendrel.services.job.bookings import Account, BookingDraft
from bendrel.services.job.jobs import JobDraft
from bendrel.services.shelf.shelf import Held, OwnDraft
from bendrel.services.startup import Shop
from bendrel.services.stock.cuttings import CutsDone, piece_of
from bendrel.services.stock.stock import StockDraft

BOOKED: tuple[tuple[Account, str, int, int], ...] = (
    ("planned", "Both rear lines, look and measure", 95, 0),
    ("planned", "3/16 in copper-nickel, 7.6 m coil", 0, 3850),
    ("extra", "Seized bleed screw, drilled and tapped", 70, 620),
    ("own mistake", "Nut forgotten before the flare, piece made again", 25, 410),
)

BRAKE_TUBE = "copper-nickel_3-16in_0.711"
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


def fill_demo(shop: Shop) -> None:
    """Put the demo jobs into an empty database; one that has jobs is left alone."""
    if shop.jobs.board():
        return
    ids: dict[str, str] = {}
    for draft, names in _jobs():
        job_id = shop.jobs.create(draft).id
        for name in names:
            ids[name] = shop.lines.add(job_id, demo_line(name, ids)).id
    failed(shop, ids["spliced-cooler"])
    signed_off(shop, ids["header-tank-hose"])
    tender = shop.lines.open(ids["rear-right"]).job_id
    shop.strip_downs.keep(tender, 0, _tunnel_off((ids["pump-cooler"], ids["priming-vacuum"])))
    half_proved(shop, ids["vacuum-main"])
    for held in STOCK:
        shop.shelf.hold(held)
    shop.stock.add(COIL)
    shop.shelf.add(OwnDraft(shelf="nuts", fields=OLD_NUT))
    _half_made(shop, tender, ids["rear-right"])
    for stock in LYING:
        shop.stock.add(stock)
    for trial in TRIALS:
        shop.shelf.try_tool("lever_8mm", "copper-nickel", trial, "mm")
    for account, what, minutes, cents in BOOKED:
        entry = BookingDraft(account=account, what=what, minutes=minutes, material_cents=cents)
        shop.bookings.book(tender, entry)


def _jobs() -> tuple[tuple[JobDraft, tuple[str, ...]], ...]:
    """The jobs with their lines, in the order in which they came in."""
    return (
        (
            JobDraft(name="Harbour launch", machine="1949 harbour launch, two-cylinder diesel", unit="mm"),
            ("fuel-feed", "reservoir-drop", "oil-cooler-feed", "oil-cooler-return"),
        ),
        (
            JobDraft(name="Slipway crane", machine="1961 slipway crane, hydraulic steering", unit="mm"),
            ("spliced-cooler", "return", "saved-end", "header-tank-hose"),
        ),
        (
            JobDraft(
                name="Fire tender",
                machine="1958 fire tender, pump amidships, second axle rebuilt",
                customer="Harbour museum, land vehicles",
                promised=date.today() + timedelta(days=9),
            ),
            (
                "rear-left", "rear-right", "impossible", "axle-brake-hose", "pump-cooler", "priming-vacuum",
                "vacuum-main", "vacuum-branch",
            ),
        ),
    )  # fmt: skip


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
    piece = piece_of(line_id, "s1")
    cuts = shop.cuttings.of(job_id, (piece,))
    shop.cuttings.take(job_id, CutsDone(pieces=(piece,), stamp=cuts.stamp))
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
        keys = [step.id for step in told.steps]
        here = keys.index(f"bend-{entry.bend}")
        state = MakingState(
            done=tuple(keys[: here + 1]),
            made=(*state.made, entry),
            spells=(Spell(start=EVENING, stop=LATER),),
        )
    shop.makings.keep(making.id, making.version, state)


EVENING, LATER = "2026-01-14T18:05:00Z", "2026-01-14T18:47:00Z"
