"""A cooler or filter let into a tube: cuts and hoses by hand arithmetic, and where the line then ends."""

from dataclasses import replace

import pytest

from bendrel.core.errors import BendrelError
from bendrel.core.line.document import ComponentSpan, HoseSpan, Port
from bendrel.core.plan.planner import plan_line
from bendrel.services.mend.letting_in import LetInOrder, letting_in
from tests.lines import bent, row


def line_of(service="cooler", role="return", **changes):
    line = bent(row(300, 90), last=600, service=service, tube="steel-seamless_8mm_1", bender="lever_8mm")
    return replace(line, port_b=Port(role=role), **changes)


def stops(line, kit):
    return {finding.code for finding in plan_line(line, kit).findings if finding.severity == "stop"}


def test_a_filter_in_line_goes_into_the_longest_straight(kit):
    """The straight behind the bend runs 300 + 22·π/2 to 934.6: its middle is 634.6. A filter of 120 with 20
    to either spigot takes 160 out; the hoses are 20 + two overlaps of 25."""
    order = LetInOrder(span="s1", what="filter", length="120")
    told = letting_in(line_of(), order, kit)
    middle = 300 + 22 * 3.141592653589793 / 2 + 300
    assert told.place.cut_a_mm == pytest.approx(middle - 80)
    assert told.place.cut_b_mm == pytest.approx(middle + 80)
    assert told.place.hoses_mm == (70, 70)
    kinds = [getattr(span, "what", span.kind) for span in told.document.spans]
    assert kinds == ["rigid", "hose", "filter", "hose", "rigid"]
    part = told.document.span(told.span)
    assert isinstance(part, ComponentSpan)
    assert (part.points, part.on_a.exact_mm) == ("B", 8)
    assert stops(told.document, kit) <= stops(line_of(), kit)


def test_the_line_ends_where_it_ended(kit):
    line = line_of()
    was = plan_line(line, kit).part.path[-1][1]
    told = letting_in(line, LetInOrder(span="s1", what="cooler", length="200"), kit)
    space = plan_line(told.document, kit).in_space
    assert space.spans[-1].ends.point == pytest.approx(was, abs=1e-6)


def test_a_cooler_mounted_elsewhere_hangs_on_hoses_that_are_measured_later(kit):
    order = LetInOrder(span="s1", what="cooler", mounted="elsewhere, on hoses", hose_a="900", mount="grille")
    told = letting_in(line_of(), order, kit)
    hoses = [span for span in told.document.spans if isinstance(span, HoseSpan)]
    assert [hose.length.exact_mm for hose in hoses] == [900, None]
    assert told.document.span(told.span).note == "grille"
    assert told.place.cut_b_mm - told.place.cut_a_mm == pytest.approx(20)


def test_where_the_flow_is_not_known_the_arrow_stays_open_and_it_is_said(kit):
    told = letting_in(line_of(role="not known"), LetInOrder(span="s1", what="filter"), kit)
    assert told.document.span(told.span).points == "not marked"
    assert told.place.verdict == "care"
    assert any("establish it" in reason.text for reason in told.place.reasons)


def test_hoses_are_refused_where_the_service_refuses_them(kit):
    told = letting_in(line_of(service="brake"), LetInOrder(span="s1", what="filter"), kit)
    assert told.place.verdict == "refused"
    assert told.document is None
    assert told.place.reasons[0].source.text


@pytest.mark.parametrize(
    ("order", "said"),
    [
        (LetInOrder(span="s1", at="310"), "Bend 1 lies in the cut-out"),
        (LetInOrder(span="s1", at="255"), "arc of bend 1"),
        (LetInOrder(span="s1", at="20"), "beyond the tube"),
        (LetInOrder(span="s1", at="soon"), "Where"),
        (LetInOrder(span="s1", length="2 m"), "No straight has room"),
        (LetInOrder(span="s1", at="75", length="60"), "are needed for what joins it"),
        (LetInOrder(span="x"), "no such tube"),
    ],
)
def test_what_cannot_be_is_one_sentence(kit, order, said):
    with pytest.raises(BendrelError, match=said):
        letting_in(line_of(), order, kit)


@pytest.mark.parametrize(("tube_mm", "goes"), [(220, True), (219.9, False)])
def test_the_least_straight_that_takes_a_filter(kit, tube_mm, goes):
    """120 of filter, 20 to either spigot, and 30 of straight that stays on either side for its hose."""
    line = bent(last=tube_mm, service="cooler", tube="steel-seamless_8mm_1", bender="lever_8mm")
    order = LetInOrder(span="s1", what="filter", length="120")
    if goes:
        place = letting_in(line, order, kit).place
        assert (place.cut_a_mm, place.cut_b_mm) == (pytest.approx(30), pytest.approx(190))
        return
    with pytest.raises(BendrelError, match="220 mm are needed, the longest is"):
        letting_in(line, order, kit)


@pytest.mark.parametrize(("at", "goes"), [("110", True), ("109.5", False), ("110.5", False)])
def test_half_a_millimetre_too_little_beside_a_cut_is_too_little(kit, at, goes):
    line = bent(last=220, service="cooler", tube="steel-seamless_8mm_1", bender="lever_8mm")
    order = LetInOrder(span="s1", what="filter", length="120", at=at)
    if goes:
        assert letting_in(line, order, kit).place.cut_a_mm == pytest.approx(30)
        return
    with pytest.raises(BendrelError, match=r"leaves (29\.5|30) mm straight"):
        letting_in(line, order, kit)


def test_what_is_not_rated_is_refused_where_it_can_hurt_somebody(kit):
    """Its own ends bring no hose into a pressure line, but its rating must be known and hold; a brake line
    takes no such part, however it is rated."""
    order = LetInOrder(span="s1", what="shut-off valve", joined="its own ends")
    brake = letting_in(line_of(service="brake"), replace(order, rated="400 bar"), kit)
    assert brake.place.verdict == "refused"
    line = line_of(service="steering-pressure")
    unknown = letting_in(line, order, kit)
    assert unknown.place.verdict == "refused"
    assert "not known" in unknown.place.reasons[0].text
    weak = letting_in(line, replace(order, rated="10 bar"), kit)
    assert (weak.place.verdict, "It is rated for 10.0 bar" in weak.place.reasons[0].text) == ("refused", True)
    strong = letting_in(line, replace(order, rated="400 bar"), kit)
    assert strong.place.verdict != "refused"
    assert strong.document.span(strong.span).rated == "400 bar"
    assert [span.kind for span in strong.document.spans] == ["rigid", "component", "rigid"]
    assert letting_in(line_of(), replace(order, rated=""), kit).place.verdict != "refused"
    with pytest.raises(BendrelError, match="Rated for"):
        letting_in(line, replace(order, rated="strong"), kit)
