"""A line made after another, and pieces of one put into another."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from bendrel.core.ids import NotAChain
from bendrel.core.line.condition import Condition, Damage, Decision, Fixture
from bendrel.core.line.document import Joint
from bendrel.core.line.edits.twin import copied_in, twin_of
from bendrel.core.line.opened import stays
from bendrel.core.line.proving import Hold, Proving
from bendrel.core.line.removal import OpenItem, Removal
from bendrel.core.plan.planner import plan_line
from bendrel.core.units.lengths import Length
from tests.lines import known_kit
from tests.made_lines import made_line

KIT = known_kit()


def worked(seed):
    """A line as people make them, with everything noted that is of that line alone."""
    line = made_line(KIT, seed)
    return replace(
        line,
        condition=Condition(
            damage=(Damage(at=Length(text="10")),),
            fixtures=(Fixture(at=Length(text="20"), state="broken", shared="the return"),),
            decision=Decision(choice="splice", reason="sound elsewhere"),
        ),
        removal=Removal(went_out="oil"),
        open_items=(OpenItem(what="tie"),),
        proving=Proving(holds=(Hold(),)),
        notes="theirs",
        finished=True,
    )


@pytest.mark.parametrize("seed", range(30))
@pytest.mark.parametrize("mirror", [False, True])
def test_what_is_read_and_chosen_comes_along_and_what_was_done_does_not(seed, mirror):
    source = worked(seed)
    made = twin_of(source, "other side", mirror=mirror)
    assert made.name == "other side"
    assert [(span.id, span.kind, stays(span)) for span in made.spans] == [
        (span.id, span.kind, stays(span)) for span in source.spans
    ]
    assert [joint.kind for joint in made.joints] == [joint.kind for joint in source.joints]
    assert (made.removal, made.open_items, made.proving, made.notes, made.finished, made.set_aside) == (
        Removal(), (), Proving(), "", False, (),
    )  # fmt: skip
    assert (made.condition.damage, made.condition.decision) == ((), None)
    (clip,) = made.condition.fixtures
    assert (clip.state, clip.shared, clip.at) == ("to fit", "", Length(text="20"))
    assert not any(port.proved or port.opened or port.on for port in (made.port_a, made.port_b))
    if not mirror:
        assert [piece.part.cut_mm for piece in plan_line(made, KIT).pieces if piece.part] == [
            piece.part.cut_mm for piece in plan_line(source, KIT).pieces if piece.part
        ]


@pytest.mark.parametrize("seed", range(30))
def test_every_tube_of_the_mirror_image_is_a_mirror_image(seed):
    """Distances between all bends are kept, and the handedness of every four of them is turned over."""
    source = worked(seed)
    made = twin_of(source, "other side", mirror=True)
    pairs = zip(plan_line(source, KIT).pieces, plan_line(made, KIT).pieces, strict=True)
    tubes = [(one.part, other.part) for one, other in pairs if one.part and other.part]
    for one, other in tubes:
        ours, theirs = (np.array([point for _, point in part.path]) for part in (one, other))
        assert np.linalg.norm(ours[:, None] - ours, axis=2) == pytest.approx(
            np.linalg.norm(theirs[:, None] - theirs, axis=2), abs=1e-6
        )
        for k in range(0, len(ours) - 3, 3):
            volume = np.linalg.det(ours[k + 1 : k + 4] - ours[k])
            assert np.linalg.det(theirs[k + 1 : k + 4] - theirs[k]) == pytest.approx(-volume, abs=1e-3)


def test_a_piece_of_chain_is_put_in_elsewhere_with_ids_of_its_own():
    source = next(line for line in map(worked, range(60)) if len(line.spans) >= 3)
    target = next(line for line in map(worked, range(60)) if len(line.spans) == 1)
    made = copied_in(target, target.spans[0].id, "B", source.spans[:2], source.joints[:1])
    assert [span.kind for span in made.spans] == [span.kind for span in (*target.spans, *source.spans[:2])]
    assert len({span.id for span in made.spans}) == 3
    assert made.joints == (Joint(), replace(source.joints[0], done="", opened=""))
    before = copied_in(made, made.spans[-1].id, "A", made.spans[:1], ())
    assert [span.kind for span in before.spans][2] == target.spans[0].kind
    with pytest.raises(NotAChain, match="no span"):
        copied_in(target, "gone", "B", source.spans[:1], ())


def test_at_end_a_the_pieces_come_before_and_at_end_b_behind():
    source = next(line for line in map(worked, range(60)) if len(line.spans) >= 3)
    target = next(line for line in map(worked, range(60)) if len(line.spans) == 1)
    own = target.spans[0]
    for end, place in (("A", -1), ("B", 0)):
        made = copied_in(target, own.id, end, source.spans[:2], source.joints[:1])
        assert made.spans[place].id == own.id
