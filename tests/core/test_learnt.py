"""What the shop's own lines taught of joints and of fitting."""

from __future__ import annotations

from dataclasses import replace

from bendrel.catalogue.loader import load_kit
from bendrel.core.line.proving import JointEvent, JointWork, Proving
from bendrel.core.parts.pace import Pace
from bendrel.core.work.learnt import Met, WatchedJoint, learnt, met_of, watched_of
from tests.lines import bent, row

KIT = load_kit()


def test_joints_are_counted_by_how_they_close() -> None:
    """Two of nine sleeve joints nipped again; what nobody watched is left out."""
    sleeves = [WatchedJoint(closes="sleeve", rungs=("nip",) if k < 2 else ()) for k in range(9)]
    told = learnt([*sleeves, WatchedJoint(closes="nut", rungs=())], [], KIT)
    assert [one.said for one in told.joints] == [
        "Nut joints here: none wept, of 1 watched.",
        "Sleeve joints here: 2 nipped again, of 9 watched.",
    ]
    sleeve = told.joints[1]
    assert "compression" in sleeve.fittings
    assert "double-45" not in sleeve.fittings
    assert told.met == ""


def test_a_joint_counts_once_somebody_looked() -> None:
    """Dried alone says nothing; wet, nipped and dry again says all."""
    line = bent(row(100, 90))
    span = line.spans[0].id

    def noted(*seen: str) -> Proving:
        events = tuple(JointEvent(what=what) for what in seen)  # type: ignore[arg-type]
        return Proving(joints=(JointWork(span=span, end="A", events=events),))

    assert watched_of(line, KIT) == ()
    assert watched_of(replace(line, proving=noted("dried")), KIT) == ()
    told = watched_of(replace(line, proving=noted("dried", "wet", "nip", "dried", "dry")), KIT)
    assert [(one.closes, one.rungs) for one in told] == [("nut", ("nip",))]


def test_how_parts_met_their_ports() -> None:
    """Means of what was noted; what cannot be read is not counted."""
    line = bent(row(100, 90))
    assert met_of(line) == Met(missed_mm=None, tweaks=None)
    noted = replace(line, proving=Proving(missed="3 mm", tweaks="2"))
    assert met_of(noted) == Met(missed_mm=3.0, tweaks=2.0)
    assert met_of(replace(line, proving=Proving(missed="a bit", tweaks="some"))) == Met(
        missed_mm=None, tweaks=None
    )
    timed = replace(KIT, pace=Pace(bend_minutes=8.2, parts=3))
    assert learnt([], [], timed).met == "Parts here took 8 min a bend (3 parts)."
    told = learnt([], [met_of(noted), Met(missed_mm=1.0, tweaks=None)], KIT)
    assert told.met == "Parts here missed their port by 2.0 mm on average (2), took 2.0 tweaks (1)."
