"""How far the hand may twist a straight: soft tube as it stands it, thin steel by the shop's own way."""

import pytest

from bendrel.core.bend.bench.believed import twist_of
from bendrel.core.bend.tube.choosing import choose_rows
from bendrel.core.line.run import main_run
from bendrel.core.parts.school import figure_of
from tests.lines import bent, known_kit, replace, row

KIT = known_kit()
STEEL, STAINLESS, SOFT = (
    "steel-double-wall_3-16in_0.711", "stainless-304_3-16in_0.711", "copper-nickel_3-16in_0.711",
)  # fmt: skip


def twist(tube, way, **measured):
    kit = replace(KIT, preferences={**KIT.preferences, "stiff-twist": way}, own_figures=measured)
    return twist_of(kit, choose_rows(main_run(bent(row(100, 90), tube=tube)), kit, []))


@pytest.mark.parametrize(("turned", "way", "deg"), [(5.0, "quarter", 0.25), (10.0, "half", 0.5)])
def test_what_scrap_stood_counts_as_the_way_that_asks_for_so_much(turned, way, deg):
    """The two ways name their trials: 100 mm of 5 mm tube, twenty diameters, turned by 5° and by 10°."""
    assert twist(STEEL, "measured", **{"stiff-twist-scrap": turned}) == pytest.approx(deg)
    assert twist(STEEL, way) == pytest.approx(deg)


def test_the_most_that_can_be_typed_twists_no_steel_further_than_soft_tube():
    figure = figure_of(KIT.schools.values(), "stiff-twist-scrap")
    assert figure is not None
    assert twist(STEEL, "measured", **{figure.id: figure.most_deg}) <= twist(SOFT, "never")


def test_what_was_not_measured_is_not_twisted():
    assert twist(STEEL, "measured") == 0
    assert twist(STEEL, "never", **{"stiff-twist-scrap": 8.0}) == 0


def test_scrap_of_thin_steel_says_nothing_of_stainless_and_soft_tube_needs_none():
    assert twist(STAINLESS, "measured", **{"stiff-twist-scrap": 8.0}) == 0
    assert twist(SOFT, "measured") == twist(SOFT, "never") > 0
