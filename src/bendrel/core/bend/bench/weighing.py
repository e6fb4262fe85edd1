"""What is read of a part in the making, weighed with what was told: what to read again, what tells most."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from bendrel.core.bend.bench.believed import Believed
from bendrel.core.bend.bench.told import NextBend
from bendrel.core.bend.fitting.fit import Fit, fit, unknowns_of
from bendrel.core.bend.fitting.tweak import May
from bendrel.core.bend.told.figures import READ_NAMES, AsBuilt, MadeBend
from bendrel.core.bend.told.lone import Lone, Slip, SlipSizes, lone_readings, slips_of
from bendrel.core.bend.told.observed import observed, told_bends
from bendrel.core.bend.told.offered import TypedOffer, Unreadable, read_offers
from bendrel.core.bend.told.tells import Known, tells_most
from bendrel.core.bend.told.unknowns import Unknowns
from bendrel.core.bend.told.weighed import Weighed, weigh
from bendrel.core.bend.tube.part import Part
from bendrel.core.geometry.bends import BendList
from bendrel.core.line.landed import ByHand
from bendrel.core.measure.landing import port_of
from bendrel.core.parts.kit import Kit

LOOKED_AT = 3
"""Of so many bends, the last ones, it is said which reading would tell most."""


def lone_of(
    kit: Kit, part: Part, planned: BendList, read: AsBuilt, made: Sequence[MadeBend], trust: Believed
) -> tuple[Lone, ...]:
    """The readings that stand alone and are to be read again before they count. Raises nothing."""

    def unknowns() -> Unknowns:
        return unknowns_of(
            planned, told_bends(made), (), trust.trust, trust.may, trust.reach, first_turns=_first_turns(read)
        )

    return lone_readings(
        unknowns,
        read.figures,
        lambda figure: READ_NAMES[figure.kind] in made[figure.index].sure,
        trust.gauge,
        slip_sd=trust.trust.slip_sd,
        alone_sd=kit.limits["lone_sd"].value,
        sizes=_slip_sizes(kit),
        beyond_mm=part.beyond_mm,
        od_mm=part.od_mm,
    )


def weighed_of(
    kit: Kit,
    part: Part,
    planned: BendList,
    built: AsBuilt,
    made: Sequence[MadeBend],
    typed: tuple[TypedOffer, ...],
    trust: Believed,
) -> tuple[Fit, Weighed, tuple[Unreadable, ...], tuple[Slip, ...]]:
    """Everything read of the part weighed together. A bend that is not made yet counts as planned and is not
    tweaked, and no straight is twisted while there are such bends."""
    limits, whole = kit.limits, len(made) == len(planned.bends)
    by_hand = ByHand(
        mm=limits["offer_mm"].value, deg=limits["offer_deg"].value, eye_share=limits["offer_eye_share"].value
    )
    offers, unreadable = read_offers(typed if whole else (), by_hand, part.od_mm)
    may = trust.may if whole else _while_making(trust.may, made, len(planned.bends))
    unknowns = unknowns_of(
        planned,
        told_bends(made),
        offers,
        trust.trust,
        may,
        trust.reach,
        first_turns=_first_turns(built),
    )
    readings = observed(unknowns, built.figures, trust.gauge, part.beyond_mm, part.od_mm)
    stands, weighed = fit(
        planned, unknowns, readings, offers, trust.reach, trust.trust, may=may, od_mm=part.od_mm
    )
    slips = slips_of(unknowns, weighed, trust.trust.hand, trust.trust.slip_sd, _slip_sizes(kit))
    return stands, weighed, unreadable, slips


def known_now(
    part: Part, planned: BendList, built: AsBuilt, made: Sequence[MadeBend], following: NextBend | None,
    trust: Believed,
) -> Known:  # fmt: skip
    """What would tell most now: of the bends made last, and of the next one as if it were made as told."""
    also = list(made)
    if following is not None:
        also.append(
            MadeBend(
                bend=following.move.bend,
                held=following.move.held,
                start_mm=following.start_mm,
                angle_deg=following.angle_deg,
                clock_deg=following.clock_deg,
                beyond_deg=following.beyond_deg,
            )
        )
    unknowns = unknowns_of(
        planned, told_bends(also), (), trust.trust, trust.may, trust.reach, first_turns=_first_turns(built)
    )
    readings = observed(unknowns, built.figures, trust.gauge, part.beyond_mm, part.od_mm)
    weighed = weigh(unknowns, readings, slip_sd=trust.trust.slip_sd)
    return tells_most(
        unknowns,
        weighed,
        [(figure.index, figure.kind) for figure in built.figures],
        range(max(0, len(also) - LOOKED_AT), len(also)),
        trust.gauge,
        port_of(planned, trust.reach.lands),
        trust.reach,
        beyond_mm=part.beyond_mm,
        od_mm=part.od_mm,
    )


def _slip_sizes(kit: Kit) -> SlipSizes:
    limits = kit.limits
    return SlipSizes(
        least_mm=limits["least_slip_mm"].value,
        least_deg=limits["least_slip_deg"].value,
        near_mm=limits["slip_mm"].value,
        near_deg=limits["slip_deg"].value,
    )


def _first_turns(built: AsBuilt) -> bool:
    return any(figure.index == 0 and figure.kind == "clock" for figure in built.figures)


def _while_making(may: May, made: Sequence[MadeBend], count: int) -> May:
    done = {item.bend for item in made}
    return replace(may, twist_deg=0.0, fixed=tuple(k for k in range(1, count + 1) if k not in done))
