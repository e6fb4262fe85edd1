"""Where an old tube can be cut, and what the joints beside it need, found again by trying every place."""

from __future__ import annotations

import random
from dataclasses import replace

import numpy as np
import pytest

from bendrel.core.bend.tube.planned import plan_rigid
from bendrel.core.geometry.bends import BendList
from bendrel.core.line.run import main_run
from bendrel.core.mend.cuts import Room, cut_before, cut_behind, lacking
from bendrel.core.mend.proposals import Damaged, proposals
from bendrel.core.plan.planner import plan_line
from bendrel.services.mend.letting_in import LetInOrder, letting_in
from tests.lines import bent, row
from tests.measured import marks, shop_part
from tests.reference.test_shape_occ import occ_wire

STEP = 0.25


def tried(shape: BendList, edge: float, room: Room, clips: list[float]) -> float | None:
    """The highest place up to `edge` with the side of A kept: every quarter of a millimetre tried."""
    arcs, whole = marks(shape)
    for at in np.arange(np.floor(edge / STEP) * STEP, 0, -STEP):
        if at > edge or any(start < at < stop for start, stop in arcs):
            continue
        behind_us = max((stop for _, stop in arcs if stop <= at), default=None)
        ahead = min((start for start, _ in arcs if start >= at), default=whole)
        kept = at - (0.0 if behind_us is None else behind_us)
        if behind_us is None:
            kept -= room.end_a
        clear = all(at - clip >= room.stays if clip <= at else clip - at >= room.piece for clip in clips)
        if kept >= room.stays and ahead - at >= room.piece and clear:
            return float(at)
    return None


def turned_round(shape: BendList) -> BendList:
    """The same part told from end B."""
    bends, after = shape.bends, [bend.straight_mm for bend in shape.bends[1:]] + [shape.last_straight_mm]
    turned = [
        replace(bend, straight_mm=straight, rotation_deg=0.0)
        for bend, straight in zip(reversed(bends), reversed(after), strict=True)
    ]
    return BendList(bends=tuple(turned), last_straight_mm=bends[0].straight_mm)


def test_no_place_nearer_to_the_damage_would_do() -> None:
    found = 0
    for seed in range(150):
        rng = random.Random(seed)
        shape = shop_part(seed)
        whole = shape.developed_mm
        damage = rng.uniform(0.1, 0.9) * whole
        clips = [rng.uniform(0, whole) for _ in range(rng.randint(0, 4))]
        room = Room(
            stays=rng.choice([20, 30, 45, 60]),
            piece=rng.choice([10, 30, 40]),
            end_a=rng.choice([0, 12, 25]),
            end_b=rng.choice([0, 12, 25]),
        )
        other = Room(stays=room.stays, piece=room.piece, end_a=room.end_b, end_b=room.end_a)
        before, behind = cut_before(shape, damage, room, clips), cut_behind(shape, damage, room, clips)
        a = tried(shape, damage, room, clips)
        b = tried(turned_round(shape), whole - damage, other, [whole - clip for clip in clips])
        for told, by_trying in ((before, a), (None if behind is None else whole - behind, b)):
            assert (told is None) == (by_trying is None) or _only_between_the_steps(told, by_trying)
            if told is not None and by_trying is not None:
                assert by_trying <= told + 1e-6 <= by_trying + STEP + 1e-5
                found += 1
        if before is not None:
            assert lacking(shape, before, "A", room) == ""
        if behind is not None:
            assert lacking(shape, behind, "B", room) == ""
    assert found > 150


def _only_between_the_steps(told: float | None, by_trying: float | None) -> bool:
    """A place so narrow that no quarter of a millimetre falls into it."""
    return told is not None and by_trying is None


# straight that stays: on a straight of 900 mm of 8 mm seamless steel tube
ROOMS = {
    # 40 as common practice has it: sleeve of 10 + nut, no flare, no tool
    "sleeve_unions": 40,
    # nut 17.5, flare 1.45 long (its cone: (10.9 − 8)/2), 25 in the tool's die, 5 for a hand
    "flared_unions": 60,
    "hose": 30,
}


@pytest.mark.parametrize("method", ROOMS)
def test_a_cut_leaves_what_the_joint_needs(kit, method: str) -> None:
    """Damage is moved towards end A until the way is refused: the last cut leaves at least the room that the
    trade gives it, and no more than flare, nut, die and a hand's width can ask."""
    stays = ROOMS[method]
    last = None
    for start in range(300, 20, -1):
        hurt = Damaged(
            shape=BendList(bends=(), last_straight_mm=900.0),
            tube=kit.tubes["steel-seamless_8mm_1"],
            from_mm=float(start),
            to_mm=float(start + 20),
        )
        (offer,) = (o for o in proposals(kit, hurt, kit.services["cooler"]) if o.method == method)
        if offer.cut_a_mm is None:
            break
        last = offer.cut_a_mm
    assert last is not None
    assert stays <= last <= stays + 25


@pytest.mark.parametrize("seed", range(12))
def test_what_is_let_in_leaves_end_b_where_opencascade_has_it(kit, seed: int) -> None:
    """Both halves of the old tube stay where they were, so the line ends where it ended."""
    rng = random.Random(seed)
    rows = [
        row(rng.choice((90, 140, 200)), rng.choice((30, 60, 90)), "3:00") for _ in range(rng.randint(1, 4))
    ]
    line = bent(*rows, last=600, service="cooler", tube="steel-seamless_8mm_1", bender="lever_8mm")
    rigid = plan_rigid(main_run(line), kit).rigid
    assert rigid is not None
    end = occ_wire(rigid.shape)[1]
    told = letting_in(line, LetInOrder(span="s1", what="filter", length=str(rng.choice((60, 90, 120)))), kit)
    space = plan_line(told.document, kit).in_space
    assert space.spans[-1].ends.point == pytest.approx((end.X(), end.Y(), end.Z()), abs=1e-6)
