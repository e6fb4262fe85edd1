"""The eight jobs that `tools/journeys.py` works: invented ones of the museum's workshop."""

from __future__ import annotations

from journeys import Hand, fit, job, line, prove


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
    hand.tick("rusted through")
    hand.press("Add damage")
    hand.write("Damage 1 from", "24")
    hand.write("Damage 1 to", "29")
    hand.pick("Depth of damage 1", "through")
    hand.pick("End B", "seized in an expensive part")
    hand.pick("Your school", "economy")
    mend(hand, "hose", "end B would break in the cooler")
    fit(hand)
    prove(hand, "Ada", old="sound")


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
    prove(hand, "Ada", old="sound")
