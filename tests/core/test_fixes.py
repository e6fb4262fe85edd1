"""No fix brings up anything as bad as what it mends, on random lines across the catalogue; `make matrix`
tries many more."""

from dataclasses import replace

import pytest

from bendrel.catalogue.loader import load_kit
from bendrel.core.findings import Change
from bendrel.core.line.document import ComponentSpan, HoseSpan, Joint, TubeEnd
from bendrel.core.line.edits.changes import with_changes
from bendrel.core.plan.planner import plan_line
from bendrel.core.units.lengths import Length
from tests.lines import bent, row, with_tube
from tests.made_lines import made_line
from tests.often import often
from tests.random_lines import made_worse, random_line, with_fix

KIT = load_kit()


@pytest.mark.parametrize("tens", range(often(7, 12)))
def test_no_fix_makes_it_worse(tens):
    _no_fix_makes_worse(random_line, 10_000 + 10 * tens)


@pytest.mark.parametrize("tens", range(4))
def test_no_fix_makes_a_line_worse_as_people_make_them(tens):
    """Chains, mended and let-in ones, hoses with a way, old tube, logs (tests/made_lines.py)."""
    _no_fix_makes_worse(made_line, 20_000 + 10 * tens)


def _no_fix_makes_worse(made, first):
    tried = 0
    for seed in range(first, first + 10):
        line = made(KIT, seed)
        for finding in plan_line(line, KIT).findings:
            if finding.fix is not None:
                tried += 1
                assert made_worse(line, finding, KIT) == [], (seed, finding.code, finding.fix.label)
    assert tried > 5


@pytest.mark.parametrize(
    ("tube", "bender", "wider"),
    [
        # 3 x 9.525 mm by hand is 28.6: the die of 24 mm is left out, that of 1 1/8 in (28.6) is offered
        ("steel-seamless_3-8in_0.889", "lever_3-8in", "bench_3-8in"),
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


def two_tubes(between=(), joint=""):
    """A tube of 8 mm and one of 10 mm, with something between them or joined."""
    line = bent(last=200, service="cooler", tube="steel-seamless_8mm_1", bender="lever_8mm")
    end = TubeEnd(fitting="compression" if joint else "bead")
    bead = {"end_a": end, "end_b": end}
    wide = with_tube(line, tube="steel-seamless_10mm_1", bender="bench_10mm").spans[0]
    spans = (replace(line.spans[0], **bead), *between, replace(wide, id="s2", **bead))
    joints = tuple(Joint(kind=joint) for _ in spans[1:])
    return replace(line, spans=spans, joints=joints)


def test_a_reducer_joins_two_tubes_of_different_sizes():
    line = two_tubes(joint="compression-union")
    found = next(f for f in plan_line(line, KIT).findings if f.code == "joint_sizes")
    assert found.fix.label == "Put a reducer in, 8 mm to 10 mm"
    mended = with_fix(line, found.fix, KIT)
    assert [getattr(span, "what", span.kind) for span in mended.spans] == ["rigid", "reducer", "rigid"]
    reducer = mended.spans[1]
    assert (reducer.on_a.exact_mm, reducer.on_b.exact_mm) == (8, 10)
    assert [one.kind for one in mended.joints] == ["compression-union"] * 2
    assert "joint_sizes" not in {f.code for f in plan_line(mended, KIT).findings}


def test_a_hose_between_two_sizes_is_cut_in_two_about_a_reducer():
    """No bore goes on 8 and on 10 mm: 8 mm of bore would be stretched by a quarter."""
    line = two_tubes((HoseSpan(id="h1", hose="cooler_5-16in"),))
    found = next(f for f in plan_line(line, KIT).findings if f.code == "hose_tight")
    mended = with_fix(line, found.fix, KIT)
    assert [span.kind for span in mended.spans] == ["rigid", "hose", "component", "hose", "rigid"]
    assert {span.what for span in mended.spans if isinstance(span, ComponentSpan)} == {"reducer"}
    bores = [KIT.hoses[span.hose].id_mm for span in mended.spans if isinstance(span, HoseSpan)]
    assert bores[0] < 8.5 < bores[1]
    codes = {f.code for f in plan_line(mended, KIT).findings}
    assert not codes & {"hose_tight", "hose_loose", "clamp_range"}


@pytest.mark.parametrize("first", [True, False])
def test_a_component_of_another_size_gets_a_reducer_on_its_own_side(first):
    part = ComponentSpan(id="c1", what="filter", on_a=Length(text="10"), on_b=Length(text="10"))
    line = bent(last=200, service="cooler", tube="steel-seamless_8mm_1", bender="lever_8mm")
    tube = line.spans[0]
    line = replace(line, unit="mm", spans=(tube, part) if first else (part, tube), joints=())
    found = next(f for f in plan_line(line, KIT).findings if f.code == "joint_sizes")
    mended = with_fix(line, found.fix, KIT)
    assert [getattr(span, "what", span.kind) for span in mended.spans] == (
        ["rigid", "reducer", "filter"] if first else ["filter", "reducer", "rigid"]
    )
    assert "joint_sizes" not in {f.code for f in plan_line(mended, KIT).findings}


def test_the_sizes_of_a_component_come_from_its_neighbours_until_typed():
    part = ComponentSpan(id="c1", what="filter")
    hoses = (HoseSpan(id="h1", hose="cooler_5-16in"), HoseSpan(id="h2", hose="cooler_3-8in"))
    pieces = plan_line(two_tubes((hoses[0], part, hoses[1])), KIT).chosen.pieces
    assert (pieces.components[0].on_a_mm, pieces.components[0].on_b_mm) == (8, 10)
    assert [sorted(end.on_mm for end in hose.ends) for hose in pieces.hoses] == [[8, 8], [10, 10]]
    typed = replace(part, on_a=Length(text="9.5 mm"), on_b=Length(text="9.5 mm"))
    pieces = plan_line(two_tubes((hoses[0], typed, hoses[1])), KIT).chosen.pieces
    assert (pieces.components[0].on_a_mm, pieces.components[0].on_b_mm) == (9.5, 9.5)
    assert [{end.faces: end.on_mm for end in hose.ends} for hose in pieces.hoses] == [
        {"A": 8, "B": 9.5},
        {"A": 9.5, "B": 10},
    ]
