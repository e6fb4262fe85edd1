"""What meets in a line: faces, and what stands against two of them. What goes together and what does not is
common practice and the standards that the seats and threads are of."""

from dataclasses import replace

import pytest

from bendrel.core.ids import NotAChain
from bendrel.core.joints.closing import joints_of
from bendrel.core.joints.faces import face_of, port_face
from bendrel.core.joints.mate import mate
from bendrel.core.joints.pieces import place_pieces
from bendrel.core.joints.put_in import put_for, put_in, rejoined, usual_hose
from bendrel.core.judge.whole.judge_hose_joint import joint_of
from bendrel.core.line.document import (
    BendReadings,
    ComponentSpan,
    HoseSpan,
    JoinedTo,
    Joint,
    Line,
    Port,
    RigidSpan,
    Side,
    TubeEnd,
)
from bendrel.core.line.opened import joint_opened, port_opened
from bendrel.core.line.removal import Removal, RemovedItem
from bendrel.core.plan.assemble import with_fix
from bendrel.core.plan.planner import plan_line, tube_of_plan
from bendrel.core.plan.retube import ended, retubed
from bendrel.core.plan.starting import starting_line
from bendrel.core.units.lengths import Length

SERVICES = (
    "brake", "clutch", "brake-feed", "fuel-low", "fuel-injection", "tank-vent", "cooler", "hydraulic",
    "hydraulic-return", "steering-return", "steering-pressure", "oil-cooler", "oil-feed", "coolant", "vacuum",
    "vacuum-actuator", "vent", "air", "air-brake",
)  # fmt: skip


def tube(name, fitting, nut=None, material="steel-double-wall_8mm_0.711", state="to make"):
    end = TubeEnd(fitting=fitting, nut=nut)
    return RigidSpan(
        id=name, tube=material, bender="lever_8mm", state=state, end_a=end, end_b=end,
        readings=BendReadings(last=Length(text="300 mm")),
    )  # fmt: skip


def line_of(*spans, service="fuel-low", joints=(), **more):
    return Line(name="joints", service=service, unit="mm", spans=spans, joints=joints, **more)


def started(kit, service):
    """The tube that a service starts with, read."""
    (span,) = starting_line(kit, "x", service, "mm").spans
    return replace(span, readings=BendReadings(last=Length(text="400 mm")))


def told(kit, line):
    return {found.code: found for found in plan_line(line, kit).findings}


def any_tube(kit, size, material):
    return next(t.id for t in kit.tubes.values() if t.size == size and t.material == material)


def test_a_brass_sleeve_union_does_not_take_flares(kit):
    steel = any_tube(kit, "5/16 in", "steel-plated")
    flared = [tube(name, "double-45", "double-45_5-16in_1-2-20", steel) for name in ("s1", "s2")]
    line = line_of(*flared, joints=(Joint(kind="compression-union"),))
    found = told(kit, line)["union_ends"]
    assert found.severity == "stop"
    after = told(kit, with_fix(line, kit, found.fix))
    assert "union_ends" not in after


def test_a_steel_sleeve_union_between_thin_brazed_flares(kit):
    steel = any_tube(kit, "5/16 in", "steel-plated")
    flared = [tube(name, "double-45", "double-45_5-16in_1-2-20", steel) for name in ("s1", "s2")]
    line = line_of(*flared, service="fuel-injection", joints=(Joint(kind="bite-union"),))
    found = told(kit, line)["union_ends"]
    assert found.severity == "stop"
    # thin brazed tube takes no steel sleeve: the way out is the union that the flares are for
    assert found.fix.label == "Take a flared union"


def test_two_flares_of_two_kinds_do_not_share_a_body(kit):
    one = tube("s1", "double-45", material="copper-nickel_8mm_1")
    line = line_of(
        one, tube("s2", "bubble", material="copper-nickel_8mm_1"), joints=(Joint(kind="flared-union"),)
    )
    assert "two kinds" in told(kit, line)["union_ends"].title


def test_a_hose_joint_without_a_hose(kit):
    one, other = (tube(name, "single-37", material="copper-nickel_8mm_1") for name in ("s1", "s2"))
    line = line_of(one, other, joints=(Joint(kind="crimped-hose"),))
    assert told(kit, line)["joint_without_hose"].severity == "stop"


def braided(**more):
    return HoseSpan(id="h1", hose="oil-cooler_dash6", joined="reusable", length=Length(text="400 mm"), **more)


@pytest.mark.parametrize(
    ("thread", "seat", "codes"),
    [
        ("1/2-14 NPT", "npt-port", {"wrong_seat", "joint_threads"}),
        ("9/16-18", "cone-37", set()),
        ("3/4-16", "cone-37", {"joint_threads"}),
        ("9/16-18", "o-ring-port", {"wrong_seat"}),
        ("", "", set()),
    ],
)
def test_a_37_hose_end_in_a_port(kit, thread, seat, codes):
    """-6 is 9/16-18 over a 37° cone: SAE J514."""
    line = line_of(braided(), service="oil-cooler", port_a=Port(thread=thread, seat=seat))
    stops = {f.code for f in plan_line(line, kit).findings if f.severity == "stop"}
    assert {code for code in stops if code in ("wrong_seat", "joint_threads")} == codes


def test_an_adapter_joins_two_threads_and_a_wrong_one_does_not(kit):
    port = Port(thread="3/8-18 NPT", seat="npt-port")
    right = ComponentSpan(id="c1", what="adapter", row="adapter-37-6-to-3-8-npt-steel", turned=True)
    assert {"nothing_between", "wrong_seat", "joint_threads"}.isdisjoint(
        told(kit, line_of(right, braided(), service="oil-cooler", port_a=port))
    )
    small = replace(right, row="adapter-37-6-to-1-4-npt-steel")
    assert "joint_threads" in told(kit, line_of(small, braided(), service="oil-cooler", port_a=port))
    round_about = replace(right, turned=False)
    assert "nothing_between" in told(kit, line_of(round_about, braided(), service="oil-cooler", port_a=port))


def test_a_beaded_end_straight_at_a_port(kit):
    bead = tube("s1", "bead", material="copper-nickel_8mm_1")
    found = [f for f in plan_line(line_of(bead), kit).findings if f.code == "end_open"]
    open_end = next(f for f in found if f.where.end == "A")
    assert open_end.severity == "caution"
    assert "end_open" not in {
        f.code
        for f in plan_line(with_fix(line_of(bead), kit, open_end.fix), kit).findings
        if f.where.end == "A"
    }
    for port in (Port(thread="M14x1.5", seat="cone-24"), Port(seat="spigot")):
        found = [f for f in plan_line(line_of(bead, port_a=port), kit).findings if f.code == "end_open"]
        stop = next(f for f in found if f.where.end == "A")
        assert stop.severity == "stop"
        assert "no hose between them" in stop.title


def test_a_hose_is_clamped_on_spigots_only(kit):
    hose = HoseSpan(id="h1", hose="fuel-low_5-16in", length=Length(text="200 mm"))
    assert "hose_on_what" in told(kit, line_of(hose, port_a=Port(thread="M14x1.5", seat="cone-24")))
    assert "hose_on_what" not in told(kit, line_of(hose, port_a=Port(seat="spigot")))
    cone = ComponentSpan(id="c1", what="filter", side_a=Side(kind="socket", of="cone-37", thread="9/16-18"))
    assert "hose_on_what" in told(kit, line_of(hose, cone))


@pytest.mark.parametrize(
    "what", ["shut-off valve", "filter", "cooler", "quick connector", "check valve", "reservoir"]
)
@pytest.mark.parametrize("service", ["brake", "clutch"])
def test_no_such_part_in_a_brake_line(kit, what, service):
    pipe = tube("s1", "double-45", "double-45_3-16in_3-8-24", any_tube(kit, "3/16 in", "copper-nickel"))
    line = line_of(pipe, ComponentSpan(id="c1", what=what, rated="250 bar"), service=service)
    assert told(kit, line)["part_refused"].severity == "stop"


@pytest.mark.parametrize(
    ("service", "severity"),
    [
        ("brake", "stop"),
        ("hydraulic", "stop"),
        ("fuel-injection", "stop"),
        ("cooler", "caution"),
        ("vacuum", None),
    ],
)
def test_a_rating_that_nobody_knows(kit, service, severity):
    line = line_of(ComponentSpan(id="c1", what="union"), service=service)
    start = started(kit, service)
    found = told(kit, replace(line, spans=(start, *line.spans))).get("rating_unknown_component")
    assert (found.severity if found else None) == severity
    rated = replace(line.spans[0], rated="400 bar")
    assert "rating_unknown_component" not in told(kit, replace(line, spans=(start, rated)))
    old = replace(line.spans[0], age="old")  # it has held so far
    assert "rating_unknown_component" not in told(kit, replace(line, spans=(start, old)))


def test_a_part_is_judged_by_what_it_is_made_for(kit):
    start = started(kit, "fuel-injection")
    lift = ComponentSpan(id="c1", what="filter", row="filter-fuel-filter-8-mm-low-pressure")
    found = told(kit, line_of(start, lift, service="fuel-injection"))
    assert found["part_refused"].severity == "stop"
    assert found["pressure_component"].severity == "stop"  # 2.5 bar for 5 bar
    assert "part_refused" not in told(kit, line_of(started(kit, "fuel-low"), lift))


def test_a_side_that_cannot_be_is_one_sentence(kit):
    def problems(side):
        line = line_of(ComponentSpan(id="c1", what="filter", side_a=side))
        return [p.message for p in plan_line(line, kit).problems if p.path.startswith("/spans/c1")]

    assert problems(Side(kind="plug", of="bead")) == [
        "Say which end it seals as: one of the end types that go into a seat."
    ]
    (said,) = problems(Side(kind="socket", of="cone-37", thread="half inch or so"))
    assert "half inch or so" in said
    (said,) = problems(Side(kind="socket", of="nowhere"))
    assert "no seat “nowhere”" in said
    line = line_of(ComponentSpan(id="c1", what="filter", row="adapter-37-6-to-3-8-npt-steel"))
    assert any("no filter" in p.message for p in plan_line(line, kit).problems)


# ---- what is opened


def stub(**port):
    """Old tube that stays, a hose, new tube."""
    hose = HoseSpan(id="h1", hose="fuel-low_5-16in", length=Length(text="200 mm"), clamp="worm_12-20")
    old = tube("s1", "bead", material="copper-nickel_8mm_1", state="stays")
    return line_of(old, hose, tube("s2", "bead", material="copper-nickel_8mm_1"), port_a=Port(**port))


def test_a_port_that_nobody_opened_is_not_closed(kit):
    assert "s1-A" not in {joint.id for joint in joints_of(stub(), kit)}
    bracket = Removal(items=(RemovedItem(kind="bracket"),))
    assert "s1-A" not in {joint.id for joint in joints_of(replace(stub(), removal=bracket), kit)}
    off = Removal(done=("plug-A",))
    assert "s1-A" in {joint.id for joint in joints_of(replace(stub(), removal=off), kit)}
    assert "s1-A" in {joint.id for joint in joints_of(stub(opened="opened"), kit)}
    assert port_opened(stub(), "B")
    assert joint_opened(stub(), 0)


def test_what_stays_closed_is_not_judged_either(kit):
    nut = next(row.id for row in kit.nuts_for("double-45", "8 mm"))
    old = tube("s1", "double-45", nut, material="copper-nickel_8mm_1", state="stays")
    wrong = Port(thread="M14x1.5", seat="cone-24")
    line = line_of(old, tube("s2", "double-45", material="copper-nickel_8mm_1"), port_a=wrong)
    assert not {"wrong_seat", "prove_nut", "nut_port"} & {
        f.code for f in plan_line(line, kit).findings if f.where.end == "A" and f.where.span == "s1"
    }


# ---- what is put in


@pytest.mark.parametrize("unit", ["mm", "in"])
@pytest.mark.parametrize("side", ["A", "B"])
@pytest.mark.parametrize("service", SERVICES)
def test_a_hose_put_in_comes_as_its_neighbours_take_it(kit, service, side, unit):
    """No stop of its own: the bore fits, the clamp holds, its tube's end takes it."""
    line = starting_line(kit, "new", service, unit)
    read = replace(line.spans[0], readings=BendReadings(last=Length(text="400 mm")))
    line = replace(line, spans=(read,))
    before = {(f.code, f.where.spot) for f in plan_line(line, kit).findings if f.severity == "stop"}
    made, name = put_in(line, kit, line.spans[0].id, side, "hose")
    hose = made.span(name)
    assert hose.hose
    stops = {
        f.code
        for f in plan_line(made, kit).findings
        if f.severity == "stop" and (f.code, f.where.spot) not in before
    }
    assert not stops & {
        "hose_tight", "hose_loose", "clamp_range", "clamp_on_class", "hose_over_end", "no_clamp",
        "wrong_seat", "nothing_between", "joint_threads", "end_open", "hose_refused",
    }  # fmt: skip


def test_a_tube_put_in_at_a_port_ends_as_the_service_usually_does(kit):
    """A return of a steering gear: beaded for hose; between two hoses both of its ends go under hose."""
    first = tube("s1", "bead", material="steel-plated_3-8in_0.711", state="stays")
    line = line_of(first, service="steering-return")
    line, hose = put_in(line, kit, "s1", "B", "hose")
    line, last = put_in(line, kit, hose, "B", "tube")
    assert [line.span(last).end_a.fitting, line.span(last).end_b.fitting] == ["bead", "bead"]
    assert "end_service" not in {f.code for f in plan_line(line, kit).findings if f.where.span == last}


def test_a_hose_put_in_is_cut_from_what_the_line_has_where_that_goes_on(kit):
    """A filter with spigots of 10 mm between hoses of 3/8 in, which go on it: one hose is bought."""
    first = tube("s1", "bead", material="steel-plated_3-8in_0.711", state="stays")
    line = line_of(first, service="steering-return")
    line, hose = put_in(line, kit, "s1", "B", "hose")
    line, part = put_in(line, kit, hose, "B", "filter")
    line, other = put_in(line, kit, part, "B", "hose")
    assert line.span(other).hose == line.span(hose).hose
    alone, own = put_in(line_of(line.span(part), service="steering-return"), kit, part, "B", "hose")
    assert kit.hoses[alone.span(own).hose].id_mm == 10


def test_a_hose_in_a_size_that_its_usual_class_is_not_made_in_is_of_another_class(kit):
    """SAE J517 100R4, return hose, begins at 3/4 in: a spigot of 5/8 in takes another that is right there."""
    line = Line(name="return", service="hydraulic-return", unit="in", spans=(HoseSpan(id="h1", hose=""),))
    hose = usual_hose(line, kit, "h1", (15.9,))
    assert (kit.hoses[hose.hose].hose_class, kit.hoses[hose.hose].id_mm) == ("steering-return", 15.9)
    assert kit.verdict("hose", "steering-return", "hydraulic-return").verdict == "right"
    assert hose.clamp is not None
    assert kit.hoses[usual_hose(line, kit, "h1", (19.1,)).hose].hose_class == "hydraulic-return"


def test_a_component_put_in_is_the_one_that_goes_there(kit):
    line = line_of(braided(), service="oil-cooler", port_a=Port(thread="3/8-18 NPT", seat="npt-port"))
    made, name = put_in(line, kit, "h1", "A", "adapter")
    assert made.span(name).row == "adapter-37-6-to-3-8-npt-steel"
    assert {"nothing_between", "wrong_seat", "joint_threads"}.isdisjoint(told(kit, made))
    swapped, other = put_for(made, kit, name, "elbow")
    assert swapped.span(other).row == "elbow-90-37-6-to-3-8-npt-steel"


def test_a_union_brings_its_ends_along(kit):
    one, other = (tube(name, "double-45", material="copper-nickel_8mm_1") for name in ("s1", "s2"))
    line = line_of(one, other, joints=(Joint(kind="flared-union", apart=Length(text="12")),))
    made = rejoined(line, kit, "s1", "compression-union")
    assert [made.span("s1").end_b.fitting, made.span("s2").end_a.fitting] == ["compression"] * 2
    assert made.span("s1").end_a.fitting == "double-45"
    assert made.joints[0].apart.exact_mm == 2  # the centre wall of a sleeve union
    assert "union_ends" not in told(kit, made)
    third = tube("s3", "double-45", material="copper-nickel_8mm_1")
    long = rejoined(
        replace(line, spans=(one, other, third), joints=line.joints * 2), kit, "s1", "compression-union"
    )
    assert [long.span(name).end_a.fitting for name in ("s2", "s3")] == ["compression", "double-45"]
    assert long.joints[0].apart.exact_mm == 2
    assert rejoined(line, kit, "s1", "flared-union").joints[0].apart.exact_mm == 12  # seat to seat
    stays = replace(line, spans=(replace(one, state="stays"), other))
    kept = rejoined(stays, kit, "s1", "compression-union")
    assert kept.span("s1").end_b.fitting == "double-45"
    assert "union_ends" in told(kit, kept)
    with pytest.raises(NotAChain, match="no joint “glue”"):
        rejoined(line, kit, "s1", "glue")


# ---- how it is closed


def test_a_tapered_stud_takes_sealant_and_a_37_nut_none(kit):
    """A pipe thread seals on itself, a cone does not."""
    adapter = ComponentSpan(id="c1", what="adapter", row="adapter-37-6-to-3-8-npt-steel", turned=True)
    line = line_of(
        adapter, braided(), service="oil-cooler", port_a=Port(thread="3/8-18 NPT", seat="npt-port")
    )
    closed = {joint.id: joint for joint in joints_of(line, kit)}
    assert closed["c1-A"].closes == "taper"
    assert "none on the first thread" in closed["c1-A"].applied
    assert (closed["h1-A"].closes, closed["h1-A"].thread) == ("nut", "9/16-18")
    assert closed["h1-A"].place == "the hose, end A, on the adapter"


def test_faces_say_what_they_are(kit):
    plug = face_of(kit, braided(), "A")
    socket = port_face(kit, Port(thread="9/16-18", seat="cone-37"))
    assert (plug.kind, plug.of, plug.thread, socket.kind) == ("plug", "single-37", "9/16-18", "socket")
    assert mate(kit, plug, socket) == mate(kit, socket, plug) == ()


# ---- another tube, another end


def test_another_size_brings_nuts_tool_and_hose_along(kit):
    hose = HoseSpan(id="h1", hose="cooler_3-8in", clamp="worm_12-20", length=Length(text="200 mm"))
    line = line_of(started(kit, "cooler"), hose, service="cooler")
    made = retubed(line, kit, "s1", size="1/2 in")
    tube = kit.tubes[made.spans[0].tube]
    assert (tube.size, tube.material) == ("1/2 in", kit.tubes[line.spans[0].tube].material)
    assert kit.takes(kit.benders[made.spans[0].bender], "1/2 in")
    assert not {"hose_tight", "hose_loose", "clamp_range", "bender_size"} & set(told(kit, made))
    with pytest.raises(NotAChain, match="no tube of “cheese”"):
        retubed(line, kit, "s1", material="cheese")


def test_another_material_keeps_the_ends_that_its_ports_take(kit):
    """A double flare forms in copper-nickel and in steel; in stainless it is hard, and said to be."""
    nut = kit.nuts_for("double-45", "3/16 in")[0].id
    pipe = tube("s1", "double-45", nut, any_tube(kit, "3/16 in", "copper-nickel"))
    port = Port(thread="3/8-24", seat="inverted-45")
    line = line_of(replace(pipe, bender="lever_3-16in"), service="brake", port_a=port, port_b=port)
    for material in ("steel-plated", "stainless-304"):
        made = retubed(line, kit, "s1", material=material)
        assert [span.kind for span in made.spans] == ["rigid"]
        assert (made.spans[0].end_a.fitting, made.spans[0].end_a.nut) == ("double-45", nut)
        assert ("double_flare_hard" in told(kit, made)) == (material == "stainless-304")
        assert not {"wrong_seat", "nut_port", "no_nut"} & set(told(kit, made))


def test_another_end_comes_with_the_nut_that_its_port_takes(kit):
    pipe = tube("s1", "bead", None, any_tube(kit, "3/16 in", "copper-nickel"))
    line = line_of(pipe, service="brake", port_a=Port(thread="M10x1", proved=True))
    made = ended(line, kit, "s1", "A", "double-45")
    assert kit.nuts[made.spans[0].end_a.nut].thread == "M10x1"
    assert not made.port_a.proved
    assert ended(made, kit, "s1", "A", "plain").spans[0].end_a.nut is None


def test_a_port_on_another_line_is_asked_there(kit):
    bead = tube("s1", "bead", material="copper-nickel_8mm_1")
    line = line_of(bead, port_a=Port(on=JoinedTo(line="other", span="t1", branch="C")))
    assert {f.where.end for f in plan_line(line, kit).findings if f.code == "end_open"} == {"B"}


def test_a_hose_for_the_only_tube_meets_the_ports(kit):
    """What was there before says nothing of the ends that the new piece needs."""
    port = Port(thread="3/8-24", seat="inverted-45")
    line = line_of(started(kit, "brake"), service="brake", port_a=port, port_b=port)
    made, name = put_for(line, kit, "s1", "hose")
    hose = made.span(name)
    assert (hose.own_a, hose.own_b) == (Side(kind="plug", of="double-45", thread="3/8-24"),) * 2
    assert not {"nothing_between", "wrong_seat", "joint_threads"} & set(told(kit, made))


def test_a_size_that_nobody_lists_is_refused(kit):
    with pytest.raises(NotAChain, match="no “7 furlongs” in this material"):
        retubed(line_of(started(kit, "cooler"), service="cooler"), kit, "s1", size="7 furlongs")


def test_a_components_own_sides_are_not_mixed_up(kit):
    """What is typed of one side is the size of that side."""
    part = ComponentSpan(id="c1", what="filter", on_a=Length(text="8 mm"), on_b=Length(text="10 mm"))
    assert [face_of(kit, part, end).mm for end in ("A", "B")] == [8.0, 10.0]


def test_any_tube_of_a_line_can_be_asked_for(kit):
    """The main one is the first that is to make, unless another is named."""
    old = replace(tube("s1", "double-45", material="copper-nickel_8mm_1"), state="stays")
    new = tube("s2", "double-45", material="copper-nickel_8mm_1")
    line = line_of(old, new)
    told = [tube_of_plan(line, kit, name)[0] for name in ("", "s1", "s2")]
    assert [one.run.span.id for one in told if one is not None] == ["s2", "s1", "s2"]
    assert tube_of_plan(line, kit, "s9") == (None, ())


@pytest.mark.parametrize(
    ("joined", "clamps", "joint"),
    [
        ("clamps", 2, "hose-and-clamps"),
        ("clamps", 0, "push-on"),
        ("crimped", 0, "crimped-hose"),
        ("reusable", 0, "reusable-hose"),
    ],
)
def test_what_a_hose_is_joined_by(kit, joined, clamps, joint):
    hose = HoseSpan(id="h1", hose="steering-return_10mm", joined=joined, clamps_each=clamps)
    (placed,) = place_pieces(line_of(hose), kit, []).hoses
    assert joint_of(placed) == joint
