"""A piece between two old tubes: what the rule reads across the gap after the cuts plans it anew."""

from __future__ import annotations

from dataclasses import replace
from math import hypot

import pytest

from bendrel.core.bend.bench.state import MakingState
from bendrel.core.bend.told.figures import MadeBend
from bendrel.core.line.document import Joint, TubeEnd
from bendrel.core.units.lengths import Length
from bendrel.services.bench.benches import planned_of
from bendrel.services.errors import Refused, Stale
from bendrel.services.job.jobs import JobDraft
from tests.core.test_old_tube import mended

PLANNED = hypot(122, 222)
"""Straights of 100 and 200 mm about a right angle of R 22, straight across."""


def between():
    line = mended("compression", "compression-union")
    before = replace(line.spans[1], id="before", end_a=line.spans[0].end_a, end_b=line.spans[1].end_a)
    new = replace(line.spans[0], end_a=TubeEnd(fitting="compression"))
    union = Joint(kind="compression-union")
    return replace(line, spans=(before, new, line.spans[1]), joints=(union, union))


@pytest.fixture
def begun(shop):
    line = shop.lines.add(shop.jobs.create(JobDraft(name="Launch")).id, between())
    return line.id, shop.makings.begin(line.id, "s1")


def across(shop, making):
    x, y, z = planned_of(making.document, shop.kit, "s1").part.end_b.point
    return hypot(x, y, z)


def test_the_piece_is_planned_for_the_gap_that_is_there(shop, begun):
    line_id, making = begun
    assert across(shop, making) == pytest.approx(PLANNED)
    now = shop.makings.gap(making.id, making.version, Length(text="257 mm"))
    assert across(shop, now) == pytest.approx(257, abs=0.05)
    part = planned_of(now.document, shop.kit, "s1").part
    # the cuts moved, not the bend: it stays as it was read
    assert part.bends[0].angle_deg == pytest.approx(90, abs=0.05)
    assert part.cut_mm > planned_of(making.document, shop.kit, "s1").part.cut_mm
    # the line itself knows it too, and one step back takes it off again
    opened = shop.lines.open(line_id)
    assert next(span for span in opened.document.spans if span.id == "s1").checks.tape.text == "257 mm"
    assert shop.lines.undo(line_id, opened.version).document == between()


def test_blank_takes_it_back(shop, begun):
    _, making = begun
    now = shop.makings.gap(making.id, making.version, Length(text="257 mm"))
    back = shop.makings.gap(making.id, now.version, Length(text=""))
    assert across(shop, back) == pytest.approx(PLANNED)
    assert back.document == making.document


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ("wide", "Straight across: “wide” is not a length"),
        ("900 mm", "900 mm straight across is more than 50 mm from the 253.3 mm that are planned"),
    ],
)
def test_what_cannot_be_is_refused_and_nothing_changes(shop, begun, text, said):
    line_id, making = begun
    with pytest.raises(Refused, match=said):
        shop.makings.gap(making.id, making.version, Length(text=text))
    assert shop.makings.of_line(line_id) == (making,)
    assert shop.lines.open(line_id).document == between()


def test_once_a_bend_is_made_the_gap_stays(shop, begun):
    _, making = begun
    made = MadeBend(bend=1, held="A", start_mm=100, angle_deg=90, clock_deg=0)
    kept = shop.makings.keep(making.id, making.version, MakingState(made=(made,)))
    with pytest.raises(Refused, match="A bend is made already"):
        shop.makings.gap(making.id, kept.version, Length(text="257 mm"))
    with pytest.raises(Stale):
        shop.makings.gap(making.id, making.version, Length(text="257 mm"))
    ended = shop.makings.end(making.id, "scrap")
    with pytest.raises(Refused, match="has ended"):
        shop.makings.gap(making.id, ended.version, Length(text="257 mm"))
