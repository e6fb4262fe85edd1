"""The eight jobs that `tools/journeys.py` works: invented ones of the museum's workshop."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from hand import Hand, fit, job, line, prove
from playwright.sync_api import expect

PORTS = ("port A", "port B")


@dataclass(frozen=True)
class Job:
    """A whole job and the most actions that it may take."""

    work: Callable[[Hand], None]
    most: int


def spliced_cooler_line(hand: Hand) -> None:
    """Rusted through in the middle, one end seized in the cooler: a hose between two cuts."""
    job(hand, "Museum van")
    line(
        hand,
        "Cooler return",
        "an old tube with a bad place",
        "transmission cooler",
        ("Its whole length", "66"),
    )
    rusted_through(hand, "24", "29")
    hand.pick("Depth of damage 1", "through")
    hand.pick("End B", "seized in an expensive part")
    hand.pick("Your school", "economy")
    mend(hand, "hose", "end B would break in the cooler")
    fit(hand)
    prove(hand, "Ada", old="sound", closed=PORTS)


def rusted_through(hand: Hand, first: str, last: str) -> None:
    hand.tick("rusted through")
    hand.press("Add damage")
    hand.write("Damage 1 from", first)
    hand.write("Damage 1 to", last)


def mend(hand: Hand, way: str, why: str) -> None:
    ways = hand.region("How to mend it")
    hand.click(ways.locator(f"[data-way='{way}'] button"))
    hand.read()
    hand.write("Why this way", why)
    hand.press("Mend it")
    hand.settle()
    hand.read()


def cooler_let_in(hand: Hand) -> None:
    """A cooler let into the return of a steering gear, on hoses, both halves of the old pipe staying."""
    job(hand, "Works bus")
    line(
        hand,
        "Steering return",
        "an old tube, something let in",
        "power steering, return",
        ("Its whole length", "48"),
    )
    hand.stage(1)
    hand.tick("upgrade")
    hand.pick("Port A is", "source")
    hand.pick("Port B is", "return")
    hand.stage(4)
    at = hand.region("Let in a component")
    hand.pick("Let in", "cooler", at=at)
    hand.write("Its length", "11", at=at)
    hand.write("Middle at", "30", at=at)
    hand.write("Rated for", "10 bar", at=at)
    hand.write("Hangs on", "brace in front of the radiator", at=at)
    hand.read()
    hand.press("Let it in", at=at)
    hand.settle()
    fit(hand)
    prove(hand, "Ada", old="sound", closed=PORTS)


def braided_oil_feed(hand: Hand) -> None:
    """Braided hose to a turbocharger: a restrictor in its adapter at the block, a banjo at the other end."""
    job(hand, "Delivery van")
    line(hand, "Turbo feed", "a hose", "oil feed", ("Length of it", "26"))
    hand.pick("Held by", "reusable ends")
    hand.pick("End B", "goes into or over a seat")
    hand.pick("Seals as", "banjo with two washers")
    hand.write("Its thread", "M12x1.5")
    port(hand, "B", "flat face for a banjo bolt", "M12x1.5")
    port(hand, "A", "tapered NPT port", "1/8-27 NPT")
    hand.click(hand.region("The strip").locator("[data-hose]"))
    put_in(hand, "Put in before", "restrictor")
    hand.write("Bore", "1 mm")
    hand.settle()
    fit(hand)
    prove(hand, "Ada")


def put_in(hand: Hand, where: str, what: str) -> None:
    hand.press(where)
    hand.press(what, role="menuitem")
    expect(hand.page.get_by_role("toolbar", name="The chosen piece")).to_contain_text(what.capitalize())
    if what != "tube":
        expect(hand.region("The chosen place").get_by_role("heading").first).to_have_text(what.capitalize())
    hand.settle()


def port(hand: Hand, end: str, seat: str, thread: str) -> None:
    hand.click(hand.region("The strip").locator(f"[data-port='{end}']"))
    hand.pick("Port’s seat", seat)
    hand.write("Port thread", thread)


def vacuum_pair(hand: Hand) -> None:
    """Two flaps from one source: a check valve and a tee in the first line, the second from the tee."""
    job(hand, "Road service truck")
    known = (("Goes on", "4 mm"), ("Length of it", "20"))
    line(hand, "Flap left", "a hose", "vacuum, actuators", *known)
    put_in(hand, "Put in behind", "check valve")
    hand.pick("Points to", "end A")
    put_in(hand, "Put in behind", "hose")
    hand.write("Length", "12")
    put_in(hand, "Put in behind", "tee")
    put_in(hand, "Put in behind", "hose")
    hand.write("Length", "8")
    beyond(hand, "A", "a pump")
    beyond(hand, "B", "an actuator")
    hand.settle()
    fit(hand)
    prove(hand, "Ada", hold=held_by_eye)
    hand.press("Road service truck", role="link")
    line(hand, "Flap right", "a hose", "vacuum, actuators", ("Goes on", "4 mm"), ("Length of it", "30"))
    hand.click(hand.region("The strip").locator("[data-port='A']"))
    hand.pick("Stands on", "tee of Flap left")
    beyond(hand, "B", "an actuator")
    hand.settle()
    fit(hand)
    prove(hand, "Ada", hold=lambda hand: hand.press("Proved together with"))


def beyond(hand: Hand, end: str, what: str) -> None:
    hand.click(hand.region("The strip").locator(f"[data-port='{end}']"))
    hand.pick("Beyond it", what)


def held_by_eye(hand: Hand) -> None:
    """Pulled down and watched for five minutes, the gauge read five times."""
    hold = hand.region("Does it hold")
    hand.press("Read it by eye", at=hold)
    for k, psi in enumerate(("8.7", "8.7", "8.6", "8.6", "8.6"), start=1):
        hand.write(f"Pressure, reading {k}", psi, at=hold)
    expect(hold.get_by_role("status", name="What it says")).to_contain_text("It holds.")


def composite_return(hand: Hand) -> None:
    """An old stub, then hoses with a cooler, a filter and new tube between them: twelve joints on hose."""
    job(hand, "Quay loader")
    known = ("Its whole length", "12")
    line(hand, "Steering return", "an old tube with a bad place", "power steering, return", known)
    hand.pick("Port A is", "source")
    hand.stage(4)
    hand.click(hand.region("The strip").locator("[data-tube] rect").first)
    put_in(hand, "Put in behind", "hose")
    hand.write("Length", "3")
    tube_and_hose(hand, "14")
    put_in(hand, "Put in behind", "cooler")
    hand.write("Length", "11")
    hand.write("Rated for", "10 bar")
    put_in(hand, "Put in behind", "hose")
    hand.write("Length", "3")
    tube_and_hose(hand, "9")
    put_in(hand, "Put in behind", "filter")
    hand.pick("Points to", "end B")
    put_in(hand, "Put in behind", "hose")
    hand.write("Length", "3")
    tube_and_hose(hand, "7")
    hand.settle()
    hand.read()
    fit(hand)
    prove(hand, "Ada", old="sound", closed=("port A",))


def tube_and_hose(hand: Hand, length: str) -> None:
    put_in(hand, "Put in behind", "tube")
    hand.write("Straight for", length)
    put_in(hand, "Put in behind", "hose")
    hand.write("Length", "3")


def union_splice(hand: Hand) -> None:
    """A pipe that rusted at one clip, its ends behind the tank: a short piece between two flared unions."""
    job(hand, "Harbour tug")
    line(
        hand,
        "Fuel, along the frame",
        "an old tube with a bad place",
        "fuel, low pressure",
        ("Its whole length", "60"),
    )
    rusted_through(hand, "31", "33")
    mend(hand, "flared_unions", "both ends sit behind the tank")
    fit(hand)
    prove(hand, "Ada", old="sound", closed=PORTS)


def long_line_in_clips(hand: Hand) -> None:
    """Fifteen feet along a frame, nine bends, held by P-clips that are ticked loose and tight."""
    job(hand, "Launch")
    line(hand, "Fuel, tank to pump", "a tube like the old one", "fuel, low pressure")
    for k, (leg, angle, plane) in enumerate(FRAME, start=1):
        hand.press("Add a bend")
        hand.write(f"Leg to bend {k}", leg)
        hand.write(f"Angle of bend {k}", angle)
        if plane:
            hand.write(f"Plane of bend {k}", plane)
    hand.write("Last leg, to end B", "9")
    hand.settle()
    for end in "AB":
        hand.click(
            hand.page.locator("[data-finding='end_open']")
            .filter(has_text=f"port {end}")
            .get_by_role("button", name="The machine's own hose goes on it")
        )
    hand.settle()
    fit(hand, first=lambda hand: hand.press("Put these"))
    prove(hand, "Ada")


FRAME = (
    ("6", "90", ""),
    ("22", "45", "3:00"),
    ("30", "45", "9:00"),
    ("24", "60", "12:00"),
    ("18", "60", "6:00"),
    ("26", "30", "12:00"),
    ("14", "90", "3:00"),
    ("20", "45", "12:00"),
    ("12", "45", "6:00"),
)
"""Leg to the bend, its angle and its plane, from end A; inches."""


def one_braided_hose(hand: Hand) -> None:
    """A hose to an oil cooler with reusable ends, one of them an elbow."""
    job(hand, "Dock crane")
    line(hand, "Cooler feed", "a hose", "engine-oil cooler", ("Length of it", "22"))
    hand.pick("Held by", "reusable ends")
    hand.pick("End B is", "90°")
    port(hand, "A", "37° cone", "3/4-16")
    port(hand, "B", "37° cone", "3/4-16")
    hand.settle()
    fit(hand)
    prove(hand, "Ada")


JOBS = (
    Job(spliced_cooler_line, 55),
    Job(cooler_let_in, 65),
    Job(braided_oil_feed, 75),
    Job(vacuum_pair, 75),
    Job(composite_return, 75),
    Job(union_splice, 45),
    Job(long_line_in_clips, 75),
    Job(one_braided_hose, 45),
)
