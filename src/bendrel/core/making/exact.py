"""How exact the part will be with this shop's hands."""

from __future__ import annotations

from collections.abc import Iterator

from bendrel.core.findings import Finding, Place
from bendrel.core.fitup.exactness import Exactness, Spread, exactness
from bendrel.core.line.run import Run
from bendrel.core.making.remade import hand_zone
from bendrel.core.rigid.part import Part, shape_of
from bendrel.core.shop.choices import Choices
from bendrel.core.shop.kit import Kit
from bendrel.core.units import Unit, format_length


def how_exact(run: Run, kit: Kit, chosen: Choices, part: Part) -> tuple[Exactness, tuple[Finding, ...]]:
    """The part with this shop's spread, and what is to be said of it."""
    told = exactness(shape_of(part), spread_for(kit, chosen), hand_zone(run, kit, chosen))
    return told, tuple(_findings(run.line.unit, kit, chosen, part, told))


def spread_for(kit: Kit, chosen: Choices) -> Spread:
    """The shop's spread with this tool: a calibration tells the radius and the dial better."""
    spread, told = kit.spread, chosen.calibration
    radius = kit.limits["trial_radius_mm"].value if told is None else told.doubt[0] / 2
    if chosen.bender.radius_mm is None:
        radius = 0.0
    return Spread(
        straight_mm=spread.straight_mm,
        angle_deg=spread.angle_deg,
        rotation_deg=spread.rotation_deg,
        radius_mm=radius,
        readings=spread.readings,
    )


def _findings(unit: Unit, kit: Kit, chosen: Choices, part: Part, told: Exactness) -> Iterator[Finding]:
    least = kit.limits["least_share"].value
    if not part.bends or told.share >= least:
        return
    soft = chosen.material.tweaks_in_place
    bend = part.bends[(told.worst or 1) - 1]
    name = chosen.material.name
    stiff = "" if soft else f" In {name} nothing is tweaked in place: out, bend, in again."
    half, most, zone = (format_length(mm, unit) for mm in (told.half_mm, told.most_mm, told.zone.mm))
    yield Finding(
        severity="note" if soft else "caution",
        code="seldom_fits",
        where=Place(
            kind="bend",
            span=part.span,
            row=bend.id,
            number=bend.number,
            from_mm=bend.start_mm,
            to_mm=bend.end_mm,
        ),
        title=f"{told.share:.0%} of such parts drop into the port",
        message=(
            f"With this shop's spread half of them miss by more than {half}, one in twenty by {most}; "
            f"a hand brings {zone} home. "
            f"Bend {bend.number} matters most.{stiff}"
        ),
        source=kit.limits["spread_angle_deg"].source,
        advice="Check each bend as it is made and let the rest be re-planned; leave the far end long.",
    )
