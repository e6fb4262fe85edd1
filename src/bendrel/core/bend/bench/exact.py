"""How exact the part will be with this shop's hands."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import replace

from bendrel.core.bend.bench.believed import believed
from bendrel.core.bend.fitting.exactness import Exacter, Exactness, Forecast, exactness
from bendrel.core.bend.fitting.rounds import Fitting
from bendrel.core.bend.told.laid import laid_out
from bendrel.core.bend.told.observed import Gauge
from bendrel.core.bend.told.unknowns import Told
from bendrel.core.bend.tube.marking import order_of
from bendrel.core.bend.tube.part import Part, ids_of, place_of_bend, shape_of
from bendrel.core.findings import EndName, Finding
from bendrel.core.geometry.bends import BendList
from bendrel.core.line.exact_ways import ExactWays
from bendrel.core.line.run import Run
from bendrel.core.parts.choices import Choices
from bendrel.core.parts.kit import Kit
from bendrel.core.units.notation import Unit, format_length


def how_exact(run: Run, kit: Kit, chosen: Choices, part: Part) -> tuple[Exactness, tuple[Finding, ...]]:
    """The part with this shop's hand and tool, and what is to be said of it."""
    gauge, now = believed(run, kit, chosen, part).gauge, run.span.ways
    of = forecast_of(run, kit, chosen, part)
    told = exactness(of, kit.spread, gauge, now, _ways(run, kit, part, of, gauge))
    return told, tuple(_findings(run.line.unit, kit, chosen, part, told))


def _ways(
    run: Run, kit: Kit, part: Part, of: Forecast, gauge: Gauge
) -> dict[Exacter, tuple[bool, Forecast, Gauge, ExactWays]]:
    """What may be done to be more exact: whether it is done, and what a forecast with it starts from."""
    now, limits = run.span.ways, kit.limits
    fine = limits["fine_gauge_deg"].value
    found: dict[Exacter, tuple[bool, Forecast, Gauge, ExactWays]] = {
        "bend_short": (now.bend_short, of, gauge, replace(now, bend_short=True)),
        "plane_first": (now.plane_first, of, gauge, replace(now, plane_first=True)),
        "fine_gauge": (
            now.fine_gauge,
            of,
            replace(gauge, angle_deg=fine, plane_deg=fine),
            replace(now, fine_gauge=True),
        ),
        "fit_rounds": (now.fit_rounds, of, gauge, replace(now, fit_rounds=True)),
    }
    if len(of.told) > 1 and not run.span.order:
        other = replace(
            of,
            told=told_in(of.planned, [(t.bend, _other(t.held)) for t in reversed(of.told)]),
            reach=replace(of.reach, lands=_other(of.reach.lands)),
        )
        found["other_end"] = (False, other, gauge, now)
    long = limits["left_long_mm"].value
    if (
        of.reach.spare_mm < long / 2
        and (part.end_b if of.reach.lands == "B" else part.end_a).order != "before"
    ):
        found["leave_long"] = (False, replace(of, reach=replace(of.reach, spare_mm=long)), gauge, now)
    return found


def _other(end: EndName) -> EndName:
    return "B" if end == "A" else "A"


def told_in(planned: BendList, order: Sequence[tuple[int, EndName]]) -> tuple[Told, ...]:
    """Every bend of a part as it will be told, in this order."""
    laid = laid_out(planned)
    told: list[Told] = []
    for k, held in order:
        clock = laid.clocks_deg[k]
        told.append(
            Told(
                bend=k,
                held=held,
                start_mm=laid.starts_mm[k],
                angle_deg=laid.angles_deg[k],
                clock_deg=clock,
                beyond_deg=clock - told[-1].clock_deg if told else 0.0,
            )
        )
    return tuple(told)


def forecast_of(run: Run, kit: Kit, chosen: Choices, part: Part) -> Forecast:
    """What the forecast of one tube starts from: every bend as it will be told."""
    trust, planned = believed(run, kit, chosen, part), shape_of(part)
    order, _ = order_of(run.span, ids_of(part))
    limits = kit.limits
    return Forecast(
        planned=planned,
        told=told_in(planned, [(setting.bend, setting.held) for setting in order]),
        tool=trust.trust.tool,
        hand=trust.trust.hand,
        reach=trust.reach,
        zone=trust.zone,
        fitting=Fitting(
            may=trust.may,
            read_mm=limits["offer_mm"].value,
            read_deg=limits["offer_deg"].value,
            fits=trust.trust.fits,
            od_mm=part.od_mm,
        ),
        carried=limits["carried_share"].value,
    )


def _findings(unit: Unit, kit: Kit, chosen: Choices, part: Part, told: Exactness) -> Iterator[Finding]:
    least = kit.limits["least_share"].value
    if not part.bends or told.made.hand >= least:
        return
    soft = chosen.material.tweaks_in_place
    bend = part.bends[(told.worst or 1) - 1]
    name = chosen.material.name
    stiff = "" if soft else f" In {name} nothing is tweaked in place: out, bend, in again."
    of_tool = told.tool_share > told.worst_share
    most_of = "What is not known of the tool" if of_tool else f"Bend {bend.number}"
    half, most, zone = (format_length(mm, unit) for mm in (told.half_mm, told.most_mm, told.zone.mm))
    yield Finding(
        severity="note" if soft else "caution",
        code="seldom_fits",
        where=place_of_bend(part, bend.number),
        title=f"Made as told, {told.made.hand:.0%} of such parts come home by hand",
        message=(
            f"With this shop's spread half of them miss by more than {half}, one in twenty by {most}; "
            f"a hand brings {zone} home. "
            f"{most_of} matters most.{stiff}"
        ),
        source=kit.limits["spread_angle_deg"].source,
        advice="Check each bend as it is made and let the rest be re-planned; leave the far end long.",
    )
