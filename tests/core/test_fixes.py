"""No fix brings up anything as bad as what it mends, on random lines across the catalogue; `make matrix`
tries many more."""

import pytest

from bendrel.catalogue.loader import load_kit
from bendrel.core.findings import Change
from bendrel.core.line.changes import with_changes
from bendrel.core.plan.assemble import plan_line
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


def test_a_change_at_a_place_that_is_not_there_is_refused():
    line = random_line(KIT, 1)
    for path in ("/end_a/colour", "/spans/3/tube"):
        with pytest.raises(KeyError):
            with_changes(line, (Change(path=path, value="x"),))
