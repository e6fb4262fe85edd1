"""Tube sizes against the gauge table of another library and against their own designations."""

from collections.abc import Mapping

import pytest
from fluids.piping import t_from_gauge

from bendrel.catalogue.loader import load_kit

TUBES = load_kit().tubes.values()
GAUGED = [tube for tube in TUBES if "BWG" in tube.source.text]
NAMED = [tube for tube in TUBES if tube.size.endswith(" mm")]


@pytest.mark.parametrize("tube", GAUGED, ids=lambda tube: tube.id)
def test_inch_tube_has_the_wall_of_its_gauge(tube):
    """Birmingham wire gauge as tabled in `fluids.piping` (Perry's handbook)."""
    gauge = int(tube.source.text.split("BWG ")[1].split()[0])
    assert tube.wall_mm == pytest.approx(t_from_gauge(gauge, SI=True, schedule="BWG") * 1000, abs=0.0015)


@pytest.mark.parametrize("tube", NAMED, ids=lambda tube: tube.id)
def test_metric_tube_is_what_its_name_says(tube):
    assert tube.od_mm == float(tube.size.removesuffix(" mm"))
    assert tube.wall_mm == float(tube.id.rsplit("_", 1)[1])


def test_what_is_from_memory_is_counted_honestly_and_is_less_than_two_fifths():
    """A row whose source is its own name says nothing: none is called derived for it. Ratings of whole kinds
    of end count as rows of their own."""
    kit = load_kit()
    ratings = [fitting.rated for fitting in kit.fittings.values() if fitting.rated is not None]
    assert len(ratings) == 7
    shown = [
        kit.tubes, kit.fittings, kit.end_sizes, kit.nuts, kit.torques, kit.clips, kit.seats, kit.threads,
        kit.pipes, kit.hoses, kit.hose_classes, kit.clamps, kit.fluids, kit.benders, kit.wrenches,
        kit.limits, kit.advice,
    ]  # fmt: skip
    tables = [table.values() if isinstance(table, Mapping) else table for table in shown]
    rows = [row.source for table in (*tables, ratings) for row in table]
    assert not [s for s in rows if "its designation" in s.text and s.kind != "from memory"]
    kinds = [source.kind for source in rows]
    assert len(kinds) > 1000
    assert kinds.count("from memory") < 0.4 * len(kinds), kinds.count("from memory") / len(kinds)
