"""Taking a line off and putting it back (common practice)."""

import pytest

from bendrel.core.line.condition import Condition, Fixture
from bendrel.core.line.removal import OpenItem, Removal, RemovedItem, left_over, parts_to_get, refit_steps
from bendrel.core.plan.next_step import next_step
from bendrel.core.plan.planner import plan_line
from bendrel.core.units.notation import UnitError
from bendrel.core.units.quantities import parse_volume
from tests.lines import DOUBLE, bent, replace, row

LOG = Removal(
    items=(
        RemovedItem(kind="nut", what="wheel", wrench="27 mm", count=8, where="hub"),
        RemovedItem(kind="clip", what="P-clip", count=2, fate="replace"),
        RemovedItem(kind="shield", fate="should be here and is not"),
        RemovedItem(kind="connector", what="tube nut", wrench="11 mm"),
    )
)
SOUND = bent(row(100, 90), row(100, 90, "3:00"))


def test_what_came_off_last_goes_on_first():
    assert [step.text for step in refit_steps(LOG)] == [
        "connector tube nut, 11 mm wrench",
        "new shield",
        "2 × new clip P-clip",
        "8 × nut wheel, hub, 27 mm wrench",
    ]
    assert [step.item for step in refit_steps(LOG)] == [3, 2, 1, 0]


def test_what_is_left_over_is_said():
    ticked = replace(LOG, items=tuple(replace(item, refitted=k != 1) for k, item in enumerate(LOG.items)))
    assert left_over(ticked) == ("2 × clip P-clip",)


def test_single_use_parts_are_told_with_their_source(kit):
    """Common practice: crushed washers and O-rings are not used twice."""
    told = plan_line(SOUND, kit).removed.single_use
    assert (set(told.kinds), told.source.kind) == ({"washer", "O-ring"}, "common practice")


def test_both_kinds_feed_the_parts_list(kit):
    parts = [(part.what, part.count, part.because) for part in parts_to_get(LOG)]
    assert parts == [("clip P-clip", 2, "not to be used again"), ("shield", 1, "not there")]
    broken = Condition(fixtures=(Fixture(kind="sleeve", state="broken"), Fixture(state="there")))
    planned = plan_line(replace(SOUND, removal=LOG, condition=broken), kit)
    assert [part.what for part in planned.removed.parts] == ["clip P-clip", "shield", "sleeve"]


@pytest.mark.parametrize(
    ("service", "drain", "pan"),
    [("brake", "upper end", 1.04), ("fuel-low", "low end", 26.0), ("steering-return", "reservoir", 1.56)],
)
def test_where_it_drains_first_and_into_what(kit, service, drain, pan):
    """Common practice: brakes drain by the upper end, a tank by the low end, steering by its reservoir."""
    advice = plan_line(replace(SOUND, service=service), kit).removed.advice
    assert (advice.drain, advice.pan_l) == (drain, pytest.approx(pan))


def test_a_typed_volume_sizes_the_pan_and_a_wrong_one_is_told(kit):
    told = plan_line(replace(SOUND, removal=Removal(volume="2 qt")), kit).removed.advice
    assert told.pan_l == pytest.approx(2 * 0.946353 * 1.3)
    assert plan_line(replace(SOUND, removal=Removal(volume="a lot")), kit).removed.advice.problem.startswith(
        "“a lot”"
    )


@pytest.mark.parametrize(("text", "litres"), [("2", 2), ("1.5 L", 1.5), ("500 ml", 0.5), ("1 gal", 3.785412)])
def test_volumes_as_people_write_them(text, litres):
    assert parse_volume(text) == pytest.approx(litres)


@pytest.mark.parametrize("text", ["", "0", "-1", "1,5 L", "9e9", "2 buckets", "10000 L"])
def test_no_volumes(text):
    with pytest.raises(UnitError, match="write it like 2 L"):
        parse_volume(text)


def test_brakes_are_propped_let_off_at_the_nipples_and_plugged(kit):
    """Common practice: pumping the pedal relieves nothing in the line, it only empties the servo."""
    advice = plan_line(SOUND, kit).removed.advice
    assert [step.id for step in advice.steps] == [
        "clean",
        "brake-pedal",
        "brake-nipples",
        "brake-plug",
    ]
    assert not any("pump" in step.text.lower() for step in advice.steps)
    assert "nipples" in advice.steps[2].text
    assert "3/8-24 plug" in advice.plugs[0].text
    unmeasured = replace(SOUND, end_a=replace(DOUBLE, thread="", nut=None))
    assert "not measured yet" in plan_line(unmeasured, kit).removed.advice.plugs[0].text


def test_every_service_knows_how_it_comes_off(kit):
    assert set(kit.services) == set(kit.removal)
    for service in kit.services:
        assert plan_line(replace(SOUND, service=service), kit).removed.advice.cautions


def test_what_is_taken_out_for_good_never_comes_back(kit):
    """Common practice: a blocked strainer or an old cooler is neither refitted nor bought."""
    out = RemovedItem(kind="part", what="strainer", fate="out for good")
    log = replace(LOG, items=(*LOG.items, out))
    assert refit_steps(log) == refit_steps(LOG)
    assert parts_to_get(log) == parts_to_get(LOG)
    assert left_over(replace(log, items=(out,))) == ()
    planned = plan_line(replace(SOUND, removal=log), kit)
    assert not any("strainer" in need.what for need in planned.chosen.needs)


@pytest.mark.parametrize(
    ("service", "fluid", "litres"),
    [
        ("fuel-low", "not looked at", "lost"),
        ("fuel-low", "clean, goes back", "lost"),
        ("fuel-low", "changed on purpose", "system"),
        ("hydraulic", "dirty or burnt", "system"),
        ("hydraulic", "not looked at", "lost"),
        ("brake", "clean, goes back", "system"),  # brake fluid that was out is never put back
    ],
)
def test_only_what_is_lost_is_bought(kit, service, fluid, litres):
    """Common practice: clean oil and petrol go back; 20 L of petrol are not bought for one line."""
    planned = plan_line(replace(SOUND, service=service, removal=Removal(fluid=fluid)), kit)
    need = next(need for need in planned.chosen.needs if need.ref.startswith("fluid:"))
    advice = planned.removed.advice
    held = planned.chosen.flowing.volume_ml / 1000 + advice.lost_l
    assert need.amount == pytest.approx(advice.volume_l if litres == "system" else held, abs=0.01)
    always = replace(kit, preferences={**kit.preferences, "fluid": "always new"})
    if fluid == "not looked at":
        anew = plan_line(replace(SOUND, service=service), always).chosen.needs
        assert next(n for n in anew if n.ref.startswith("fluid:")).amount == advice.volume_l


def test_a_line_is_not_done_while_anything_is_open(kit):
    tie = OpenItem(kind="temporary tie", what="by the spring", person="Ada", due="2026-12-03")
    line = replace(SOUND, finished=True, open_items=(tie,))
    planned = plan_line(line, kit)
    assert not planned.removed.done
    told = [f.message for f in planned.findings if f.code == "not_done"]
    assert len(told) == 1
    assert "still open: by the spring" in told[0]
    assert next_step(line, planned).text == "Close: by the spring"
    over = replace(line, open_items=(replace(tie, closed=True),), removal=LOG)
    assert next_step(over, plan_line(over, kit)).text == "Refit: 8 × nut wheel"
    done = replace(line, open_items=(replace(tie, closed=True),))
    assert plan_line(done, kit).removed.done
    assert next_step(done, plan_line(done, kit)).text == "Done"
