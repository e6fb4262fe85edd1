"""How far a tool, a hand, a gauge and a trial fit are believed, and what a finished part takes."""

from __future__ import annotations

from bendrel.core.bend.fitting.exactness import Zone
from bendrel.core.bend.fitting.fit import Trust
from bendrel.core.bend.fitting.tweak import May
from bendrel.core.bend.told.doubt import tool_doubt
from bendrel.core.bend.told.observed import Gauge
from bendrel.core.bend.told.standing import Reach
from bendrel.core.bend.told.unknowns import Hand
from bendrel.core.bend.tube.part import Part
from bendrel.core.findings import EndName
from bendrel.core.line.run import Run
from bendrel.core.parts.choices import Choices
from bendrel.core.parts.kit import Kit
from bendrel.core.record import record


@record
class Believed:
    """Everything that the readings of one part are weighed with."""

    trust: Trust
    may: May
    gauge: Gauge
    reach: Reach
    zone: Zone


def believed(run: Run, kit: Kit, chosen: Choices, part: Part) -> Believed:
    """What holds for one tube of a line with its tool and its tube."""
    limits, soft = kit.limits, chosen.material.tweaks_in_place
    fine = run.span.ways.fine_gauge
    degrees = limits["fine_gauge_deg" if fine else "made_reading_deg"].value
    return Believed(
        trust=Trust(
            tool=tool_doubt(kit, chosen.bender, chosen.calibration),
            hand=hand_of(kit),
            slip_sd=limits["slip_sd"].value,
            fits=limits["fits_share"].value,
        ),
        may=May(
            open_deg=limits["open_deg"].value if soft else 0.0,
            more_deg=limits["bend_on_deg"].value,
            twist_mm=limits["twist_straight_mm"].value,
            twist_deg=twist_of(kit, chosen),
            least_deg=limits["tweak_least_deg"].value,
            in_tool=not soft,
            degree_mm=limits["degree_mm"].value,
            surely=limits["tweak_surely"].value,
            alone=limits["tweak_alone"].value,
            enough=limits["tweak_second"].value,
            moves=limits["tweak_moves"].value,
        ),
        gauge=Gauge(angle_deg=degrees, plane_deg=degrees, tape_mm=limits["made_reading_mm"].value),
        reach=reach_of(kit, part, trimmed_end(part)),
        zone=hand_zone(run, kit, chosen, trimmed_end(part)),
    )


def twist_of(kit: Kit, chosen: Choices) -> float:
    """The most that a straight is twisted by hand for each diameter of its length (degrees): soft tube as
    it may be, stiff tube by the shop's own way (what was to be measured on scrap and is not, is not twisted),
    and not what does not stand it. Raises nothing."""
    limits, material = kit.limits, chosen.material
    if material.tweaks_in_place:
        return limits["twist_deg"].value
    if chosen.tube.od_mm > material.twists_up_to_mm:
        return 0.0
    measured = kit.own_figures.get("stiff-twist-scrap", 0.0) / limits["twist_scrap"].value
    return {
        "quarter": limits["twist_stiff_deg"].value, "half": limits["twist_deg"].value, "measured": measured,
    }.get(kit.preferences["stiff-twist"], 0.0)  # fmt: skip


def hand_of(kit: Kit) -> Hand:
    """The shop's own spread, and how exactly a part is tweaked."""
    return Hand(
        place_mm=kit.spread.straight_mm,
        angle_deg=kit.spread.angle_deg,
        turn_deg=kit.spread.rotation_deg,
        tweak_mm=kit.limits["tweak_mm"].value,
        tool_deg=kit.limits["tweak_tool_deg"].value,
    )


def trimmed_end(part: Part) -> EndName:
    """The end that is not the held one: it is made to measure, and so it is the one that lands."""
    return "B" if part.held_end == "A" else "A"


def reach_of(kit: Kit, part: Part, lands: EndName) -> Reach:
    """How near the end that `lands` must come, and what roll and trim may do for it. An end that is flared
    before bending is not trimmed any more."""
    limits, end = kit.limits, part.end_b if lands == "B" else part.end_a
    flared = end.order == "before"
    return Reach(
        mm=limits["meets_mm"].value,
        deg=limits["meets_deg"].value,
        roll_deg=limits["roll_deg"].value,
        trim_mm=0.0 if flared else limits["trim_mm"].value,
        spare_mm=0.0 if flared else max(0.0, part.beyond_mm[lands] - end.allowance_mm),
        lands=lands,
    )


def hand_zone(run: Run, kit: Kit, chosen: Choices, lands: EndName) -> Zone:
    """How far off the end that lands may be to be brought home by hand: more in tube that tweaks in place."""
    soft = chosen.material.tweaks_in_place
    limits = kit.limits
    if any(piece.kind == "hose" for piece in run.end(lands).beyond):
        return Zone(mm=limits["zone_hose_mm"].value, deg=limits["zone_hose_deg"].value)
    if soft:
        return Zone(mm=limits["zone_soft_mm"].value, deg=limits["zone_soft_deg"].value)
    return Zone(mm=limits["zone_stiff_mm"].value, deg=limits["zone_stiff_deg"].value)
