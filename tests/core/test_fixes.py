"""No fix brings up anything as bad as what it mends, on random lines across the catalogue; `make matrix`
tries many more."""

import pytest

from bendrel.catalogue.loader import load_kit
from bendrel.core.edits.changes import with_changes
from bendrel.core.findings import Change
from bendrel.core.plan.assemble import plan_line
from tests.lines import bent, row, with_tube
from tests.random_lines import made_worse, random_line

KIT = load_kit()


@pytest.mark.parametrize("tens", range(12))
def test_no_fix_makes_it_worse(tens):
    tried = 0
    for seed in range(10_000 + 10 * tens, 10_010 + 10 * tens):
        line = random_line(KIT, seed)
        for finding in plan_line(line, KIT).findings:
            if finding.fix is not None:
                tried += 1
                assert made_worse(line, finding, KIT) == [], (seed, finding.code, finding.fix.label)
    assert tried > 5


@pytest.mark.parametrize(
    ("tube", "bender", "wider"),
    [
        # 3 x 9.525 mm by hand is 28.6: the dies of 24 and 28 mm are left out, that of 40 mm is offered
        ("steel-seamless_3-8in_0.889", "lever_3-8in", "bench-wide_3-8in"),
        ("steel-seamless_6mm_1", "lever_6mm", "bench_6mm"),  # 18: 19 mm
        ("aluminium-6061_10mm_1", "lever_10mm", "bench-wide_10mm"),  # 40: 42 mm, past one of 30
    ],
)
def test_another_tool_is_offered_only_where_its_radius_is_wide_enough(tube, bender, wider):
    line = bent(row(200, 90), last=200)
    line = with_tube(line, tube=tube, bender=bender)
    found = next(f for f in plan_line(line, KIT).findings if f.code == "radius_too_tight")
    assert [(change.path, change.value) for change in found.fix.changes] == [("/spans/s1/bender", wider)]


def test_a_change_at_a_place_that_is_not_there_is_refused():
    line = random_line(KIT, 1)
    for path in ("/end_a/colour", "/spans/3/tube"):
        with pytest.raises(KeyError):
            with_changes(line, (Change(path=path, value="x"),))
