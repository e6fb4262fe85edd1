"""The demo shop's flexible lines."""

from __future__ import annotations

from dataclasses import replace

from bendrel.core.line.condition import Condition
from bendrel.core.line.document import Carries, ComponentSpan, HoseSpan, JoinedTo, Line, Port, Side
from bendrel.core.line.hose_way import Beside, EndMove, HoseEndAt, HoseWay
from bendrel.core.units.lengths import Length


def _at(x: str, y: str, z: str, way: str, seat: str = "") -> HoseEndAt:
    return HoseEndAt(x=Length(text=x), y=Length(text=y), z=Length(text=z), way=way, seat=seat)


def axle_brake_hose() -> Line:
    """From the chassis to the second axle, which moves up and down and rolls; bought made up."""
    way = HoseWay(
        a=_at("0", "0", "0", "down"),
        b=_at("30", "130", "-250", "left"),
        moves=(
            EndMove(id="m1", what="the axle", how="slide", axis="up", least="-90 mm", most="75 mm"),
            EndMove(
                id="m2",
                what="axle roll",
                how="hinge",
                y=Length(text="500"),
                z=Length(text="-300"),
                axis="ahead",
                least="-6",
                most="6",
            ),
        ),
        beside=(
            Beside(
                id="b1",
                what="tail pipe",
                kind="exhaust",
                form="bar",
                x=Length(text="-400"),
                y=Length(text="-110"),
                z=Length(text="-160"),
                to_x=Length(text="400"),
                to_y=Length(text="-110"),
                to_z=Length(text="-160"),
                across=Length(text="60"),
            ),
        ),
    )
    return Line(
        name="Chassis to second axle, hose",
        service="brake",
        unit="mm",
        port_a=Port(label="bracket on the chassis", thread="3/8-24", seat="inverted-45", role="source"),
        port_b=Port(label="tee on the axle", thread="3/8-24", seat="inverted-45", role="return"),
        spans=(
            HoseSpan(
                id="h1",
                hose="brake_1-8in",
                length=Length(text="430"),
                joined="crimped",
                clamps_each=0,
                way=way,
                own_a=Side(kind="plug", of="double-45", thread="3/8-24"),
                own_b=Side(kind="plug", of="double-45", thread="3/8-24"),
            ),
        ),
        condition=Condition(reasons=("brittle",), urgency="soon"),
        carries=Carries(),
    )


def _braided(length: str, way: HoseWay) -> HoseSpan:
    """Braided hose with an elbow at each end."""
    return HoseSpan(
        id="h1",
        hose="oil-cooler_dash8",
        length=Length(text=length),
        joined="reusable",
        clamps_each=0,
        way=way,
        angle_a=90,
        angle_b=45,
    )


def oil_cooler_feed() -> Line:
    """Engine to oil cooler: braided, two angled ends that are clocked to each other."""
    way = HoseWay(
        a=_at("0", "0", "0", "ahead", "left"),
        b=_at("420", "160", "90", "ahead", "-1 0 1"),
    )
    return Line(
        name="Oil cooler, feed, braided",
        service="oil-cooler",
        unit="mm",
        port_a=Port(label="engine, oil gallery", thread="3/4-16", seat="cone-37", role="feed", tag="red"),
        port_b=Port(label="cooler, lower", thread="3/4-16", seat="cone-37", role="return"),
        spans=(_braided("505", way),),
        condition=Condition(reasons=("upgrade",), urgency="can wait"),
    )


def oil_cooler_return(feed: str) -> Line:
    """Oil cooler to engine, the pair of the feed: it begins where that ends, behind the cooler."""
    way = HoseWay(
        a=_at("420", "-160", "90", "back", "-1 0 1"),
        b=_at("0", "-60", "0", "back", "right"),
    )
    cooler = ComponentSpan(
        id="c1",
        what="cooler",
        row="cooler-plate-cooler-37-8",
        length=Length(text="320"),
        loses="0.3 bar",
        holds="0.8 L",
        points="B",
    )
    return Line(
        name="Oil cooler, return, braided",
        service="oil-cooler",
        unit="mm",
        port_a=Port(label="cooler, lower", role="source", tag="blue", on=JoinedTo(line=feed, branch="B")),
        port_b=Port(label="engine, filter head", thread="3/4-16", seat="cone-37", role="return", tag="blue"),
        spans=(cooler, replace(_braided("475", way), angle_a=45, angle_b=90)),
        condition=Condition(reasons=("upgrade",), urgency="can wait"),
    )
