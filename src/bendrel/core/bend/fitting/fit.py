"""A finished part at its ports: does it fit, and what is to be done now."""

from __future__ import annotations

from collections.abc import Sequence

from bendrel.core.bend.fitting.tweak import May, Tweak, act_sd, acted, best_tweaks
from bendrel.core.bend.told.laid import laid_out, shape_from
from bendrel.core.bend.told.many import end_of, one
from bendrel.core.bend.told.standing import Reach, Standing, likely_parts, stands
from bendrel.core.bend.told.trial import Offer
from bendrel.core.bend.told.unknowns import Hand, Told, ToolDoubt, Unknowns
from bendrel.core.bend.told.weighed import Reading, Weighed, offered, weigh
from bendrel.core.findings import EndName
from bendrel.core.geometry.bends import BendList
from bendrel.core.measure.landing import port_of
from bendrel.core.record import record


@record
class Trust:
    """How far everything is believed: the tool, the hand, and how many standard deviations are a slip.
    `fits` is the share of likely parts that must fit before a part is said to."""

    tool: ToolDoubt
    hand: Hand
    slip_sd: float
    fits: float


@record
class Fit:
    """`fits`: surely enough. `lands` is the end that is told of, with the other one home. `in_tool` says that
    a bend goes back into the tool. `tweaks` are the one or two things to do now, together; none when it fits
    or when nothing is expected to help. `again` says that it is worth while to read it once more."""

    fits: bool
    lands: EndName
    stands: Standing
    in_tool: bool
    tweaks: tuple[Tweak, ...]
    again: bool


def unknowns_of(
    planned: BendList,
    told: Sequence[Told],
    offers: Sequence[Offer],
    trust: Trust,
    may: May,
    reach: Reach,
    *,
    first_turns: bool = False,
) -> Unknowns:
    """The unknowns of a part with everything that was done to it. `first_turns`: the plane of the first bend
    made was read against a line on the tube, so that its turn is not known either."""
    laid = laid_out(planned)
    part = one(laid)
    at = end_of(part, laid.length_mm, reach.lands).point
    acts = []
    for act in (act for offer in offers for act in offer.then):
        moved = end_of(acted(part, act, 1.0), laid.length_mm, reach.lands).point - at
        lever = float((moved**2).sum() ** 0.5)
        acts.append((act, act_sd(trust.hand, act, act.deg, lever, in_tool=may.in_tool)))
    return Unknowns(
        laid, told, trust.tool, trust.hand, acts, len(offers), reach.roll_deg, first_turns=first_turns
    )


def fit(
    planned: BendList,
    unknowns: Unknowns,
    readings: Sequence[Reading],
    offers: Sequence[Offer],
    reach: Reach,
    trust: Trust,
    *,
    may: May,
    od_mm: float,
) -> tuple[Fit, Weighed]:
    """Where the end that lands is after all that was read and done, and what to do now."""
    port = port_of(planned, reach.lands)
    weighed = weigh(unknowns, (*readings, *offered(unknowns, offers, planned)), slip_sd=trust.slip_sd)
    parts = likely_parts(unknowns, weighed, len(unknowns.acts))
    length = unknowns.planned.length_mm
    now = stands(parts, length, port, reach)
    sure = now.chance >= trust.fits
    straights = shape_from(weighed.laid).straights_mm
    tweaks = (
        ()
        if sure
        else best_tweaks(
            parts, length, port, reach, may, trust.hand, now, straights_mm=straights, od_mm=od_mm
        )
    )
    near = now.miss_mm <= reach.mm + now.doubt_mm and now.miss_deg <= reach.deg + now.doubt_deg
    again = not sure and not tweaks and near
    return Fit(
        fits=sure, lands=reach.lands, stands=now, in_tool=may.in_tool, tweaks=tweaks, again=again
    ), weighed
