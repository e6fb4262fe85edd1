"""How far a hose lies on a tube is one figure: gap, cut, drawing, sheet and steps take it."""

import os
from dataclasses import replace

import pytest

from bendrel.core.bend.tube.planned import plan_rigid
from bendrel.core.hose.assembly import assembly_of
from bendrel.core.joints.lap import lap_on
from bendrel.core.joints.pieces import place_pieces
from bendrel.core.line.document import HoseSpan
from bendrel.core.line.run import main_run
from bendrel.core.mend.decide import mended
from bendrel.core.mend.proposals import proposals
from bendrel.core.plan.planner import plan_line
from bendrel.core.units.lengths import Length
from bendrel.core.units.notation import format_length
from bendrel.services.mend.splicing import damaged_of
from tests.made_lines import made_line

LINES = int(os.environ.get("BENDREL_HOSE_LINES", "60"))


@pytest.mark.parametrize(
    ("on_mm", "clamps", "wide", "lap"),
    [
        (8.0, 2, None, 25.0),  # three diameters are 24
        (12.0, 2, None, 36.0),
        (12.0, 1, None, 25.0),  # two are 24
        (16.0, 1, None, 32.0),
        (8.0, 2, 9.0, 25.0),  # 9 + 9 and three gaps of 2 are 24
        (8.0, 2, 12.0, 30.0),  # 12 + 12 and three gaps of 2
        (8.0, 1, 12.0, 25.0),
        (16.0, 0, None, 32.0),
    ],
)
def test_a_hose_lies_on_by_its_diameter_and_its_clamps(kit, on_mm, clamps, wide, lap):
    clamp = None if wide is None else replace(kit.clamps["worm_12-20"], width_mm=wide)
    assert lap_on(kit, None, on_mm, clamps=clamps, clamp=clamp).mm == lap


def test_a_spigot_has_its_own_length_and_a_maker_his_wish(kit):
    hose = replace(kit.hoses["cooler_3-8in"], overlap_mm=40.0)
    assert lap_on(kit, hose, 8.0, clamps=2, clamp=None).mm == 40.0
    short = lap_on(kit, hose, 8.0, clamps=2, clamp=kit.clamps["worm_12-20"], typed_mm=18.0)
    assert (short.mm, short.clamps_mm, short.holds_clamps) == (18.0, 24.0, False)


def hoses(kit, lines: int):
    """Lines with clamped hoses, as they are made and as they are mended by hose."""
    found, seed = 0, 0
    while found < lines:
        seed += 1
        line = made_line(kit, 9000 + seed)
        if any(isinstance(span, HoseSpan) and span.joined == "clamps" for span in line.spans):
            found += 1
            yield line


@pytest.mark.long("draws sheets")
def test_the_cut_the_drawing_the_sheet_and_the_steps_agree(kit):
    """Of a hose of known length, what is free between its ends is what does not lie on them, everywhere."""
    for line in hoses(kit, LINES):
        for k, span in enumerate(line.spans):
            if not isinstance(span, HoseSpan) or span.joined != "clamps":
                continue
            known = replace(span, length=Length(text="400 mm", unit="mm"), shape=None, way=None)
            at = replace(line, spans=(*line.spans[:k], known, *line.spans[k + 1 :]))
            plan = plan_line(at, kit)
            placed = next(one for one in place_pieces(at, kit, []).hoses if one.stands.span == span.id)
            laps = [lap.mm for lap in placed.laps]
            assert placed.on_ends_mm == pytest.approx(sum(laps), abs=1e-9)
            drawn = [one for one in plan.in_space.spans if one.span == span.id]
            for one in drawn:
                apart = (
                    sum((b - a) ** 2 for a, b in zip(one.starts.point, one.ends.point, strict=True)) ** 0.5
                )
                assert apart == pytest.approx(max(400 - sum(laps), 1.0), abs=1e-9)
            for side in placed.ends:
                assert side.lap.mm == laps[0 if side.faces == "A" else 1]
            assert not [f for f in plan.findings if f.code == "clamp_room" and not span.lap_a.text]
            made = assembly_of(kit, placed, None, at.unit, wets="oil")
            told = " ".join(step.text for step in made.steps)
            assert made.cut_mm == pytest.approx(400)
            if made.kind == "clamped":
                assert all(format_length(mm, at.unit) in told for mm in laps), told


def test_a_mend_by_hose_is_as_long_as_its_gap_and_what_lies_on_its_ends(kit):
    tried = 0
    for seed in range(200):
        line = made_line(kit, seed)
        run = main_run(line)
        rigid = plan_rigid(run, kit).rigid if run is not None and len(line.spans) == 1 else None
        if rigid is None or tried >= 12:
            continue
        middle = rigid.part.developed_mm / 2
        damaged = damaged_of(kit, rigid, middle, middle + 20, "rust")
        for offer in proposals(kit, damaged, kit.services[line.service]):
            if offer.method != "hose" or offer.verdict == "refused" or offer.piece_mm is None:
                continue
            after = mended(line, kit, rigid, offer, "it is reached from below")
            (hose,) = place_pieces(after, kit, []).hoses
            assert offer.piece_mm == pytest.approx(offer.gap_mm + hose.on_ends_mm, abs=1e-9)
            assert hose.length_mm == pytest.approx(offer.piece_mm, abs=1e-9)
            told = {f.code for f in plan_line(after, kit).findings}
            assert not told & {"clamp_room", "hose_short"}
            tried += 1
    assert tried >= 5
