"""Every constant has a source, and every row can be used."""

import csv
import tomllib
from dataclasses import replace
from importlib.resources import files
from typing import get_args

import pytest

from bendrel.core.line.document import COMPONENT_KINDS
from bendrel.core.parts.rule_names import AdviceName, LimitName
from bendrel.core.plan.planner import plan_line
from bendrel.core.plan.working import order_of_work
from tests.lines import End, bent
from tests.lines import row as reading

KINDS = {"standard", "common practice", "from memory", "derived"}


def data_files(suffix):
    folder = files("bendrel.catalogue") / "data"
    return [item for item in folder.iterdir() if item.name.endswith(suffix)]


@pytest.mark.parametrize("file", data_files(".csv"), ids=lambda file: file.name)
def test_every_csv_row_says_where_it_comes_from(file):
    rows = list(csv.DictReader(file.read_text(encoding="utf-8").splitlines()))
    assert rows
    for row in rows:
        assert None not in row, row
        assert row["source_kind"] in KINDS, row
        assert row["source"].strip(), row


SOURCED = [file for file in data_files(".toml") if file.name != "findings.toml"]  # see test_finding_rows


@pytest.mark.parametrize("file", SOURCED, ids=lambda file: file.name)
def test_every_toml_table_says_where_it_comes_from(file):
    """Every row of a table of rows, and every named rule, carries a source; or the whole file has one."""
    data = tomllib.loads(file.read_text(encoding="utf-8"))
    rows = [data] if "source" in data else []
    for value in () if rows else data.values():
        if isinstance(value, list):
            rows += value
        elif isinstance(value, dict):
            rows += [value] if "source" in value else list(value.values())
    assert rows
    for row in rows:
        assert row["source"]["kind"] in KINDS, row
        assert row["source"]["text"].strip(), row
        if "duty" in row:
            assert row["duty"]["source"]["text"].strip(), row


def test_every_named_material_size_is_there(kit):
    sizes = {"3/16 in", "1/4 in", "5/16 in", "3/8 in", "4.75 mm", "6 mm", "8 mm", "10 mm"}
    for material in ("copper-nickel", "steel-double-wall", "stainless-304", "aluminium-3003"):
        assert {t.size for t in kit.tubes.values() if t.material == material} >= sizes
    for size in sizes:
        assert kit.benders_for(size)
        for fitting in ("double-45", "bubble"):
            assert kit.nuts_for(fitting, size)
            assert (fitting, size) in kit.end_sizes


def test_rows_refer_to_rows_that_exist(kit):
    for tube in kit.tubes.values():
        assert tube.material in kit.materials
        assert 0 < tube.bore_mm < tube.od_mm
    for nut in kit.nuts.values():
        assert nut.fitting in kit.fittings
        assert kit.thread(nut.thread).designation == nut.thread


def test_rows_that_refer_to_rows_of_other_files(kit):
    for fitting, size in kit.end_sizes:
        assert fitting in kit.fittings
        assert any(t.size == size for t in kit.tubes.values()), (fitting, size)
    for hose in kit.hoses.values():
        assert hose.hose_class in kit.hose_classes
        assert hose.id_mm < hose.od_mm
    for clamp in kit.clamps.values():
        assert clamp.kind in kit.clamp_kinds
        assert clamp.closed_mm < clamp.open_mm
    for seat in kit.seats.values():
        assert {*seat.takes, *(pair.id for pair in seat.wrong)} <= set(kit.fittings)
    for name in kit.threads:
        assert kit.thread(name).designation == name
    families = {fluid.family for fluid in kit.fluids.values()}
    for service in kit.services.values():
        if service.duty is not None:
            assert service.duty.fluid in kit.fluids
            assert set(service.duty.families) <= families
            assert kit.fluids[service.duty.fluid].family in service.duty.families
            assert service.duty.test_kpa >= service.duty.working_kpa
            assert bool(service.duty.available_kpa) == bool(service.duty.least_lpm)
            assert service.duty.flow_source is not None or not service.duty.available_kpa
        assert set(service.cautions) <= set(kit.cautions)
        assert not service.like or service.like in kit.services
        assert not service.hose_class or service.hose_class in kit.hose_classes
        if service.start is not None:
            assert {service.start.inch, service.start.metric} <= set(kit.outside_mm)
            assert {service.start.end_inch, service.start.end_metric} <= set(kit.fittings)
    for end, material in kit.pairs:
        assert end in kit.fittings
        assert material in kit.materials
    for shared in kit.shared_threads:
        assert set(shared.ends) <= set(kit.fittings)
        assert shared.threads
        assert all(kit.thread(name).designation == name for name in shared.threads)
    for hose_class in kit.hose_classes.values():
        assert set(hose_class.families) <= families


def test_every_row_has_a_verdict_in_every_service(kit):
    rows = {
        "tube": kit.materials,
        "end": kit.fittings,
        "hose": kit.hose_classes,
        "clamp": kit.clamp_kinds,
        "joint": kit.joints,
        "component": kit.component_families,
    }
    services = {s.id for s in kit.services.values() if s.duty is not None and not s.left_to}
    for of, items in rows.items():
        for item in items:
            for service in services:
                assert kit.verdict(of, item, service) is not None, (of, item, service)
    for of, item, service in kit.verdicts:
        # a kind of component has a verdict only where something stands against it
        assert item in rows[of] or item in COMPONENT_KINDS
        assert service in services
    for verdict in kit.verdicts.values():
        question, _, answer = verdict.school.partition(":")
        assert not question or answer in {option.id for option in kit.schools[question].options}


@pytest.mark.parametrize(
    ("size", "thread"),
    [("3/16 in", "3/8-24"), ("1/4 in", "7/16-24"), ("5/16 in", "1/2-20"), ("3/8 in", "5/8-18")],
)
def test_usual_inverted_flare_nuts(kit, size, thread):
    """SAE J512 tube nut threads, from memory."""
    assert kit.nuts_for("double-45", size)[0].thread == thread


@pytest.mark.parametrize(
    ("size", "thread"),
    [
        ("3/16 in", "3/8-24"),
        ("1/4 in", "7/16-20"),
        ("3/8 in", "9/16-18"),
        ("1/2 in", "3/4-16"),
        ("5/8 in", "7/8-14"),
    ],
)
def test_usual_37_degree_nuts(kit, size, thread):
    """SAE J514 dash sizes −3, −4, −6, −8 and −10, from memory."""
    assert kit.nuts_for("single-37", size)[0].thread == thread


@pytest.mark.parametrize(
    ("series", "size", "thread"),
    [
        ("bite-light", "6 mm", "M12x1.5"),
        ("bite-light", "12 mm", "M18x1.5"),
        ("bite-light", "22 mm", "M30x2"),
        ("bite-heavy", "8 mm", "M16x1.5"),
        ("bite-heavy", "16 mm", "M24x1.5"),
    ],
)
def test_usual_24_degree_nuts(kit, series, size, thread):
    """ISO 8434-1 series L and S, from memory."""
    assert kit.nuts_for(series, size)[0].thread == thread


@pytest.mark.parametrize(
    ("end", "size", "thread", "kpa"),
    [
        ("bite-extra-light", "6 mm", "M10x1", 10_000),  # ISO 8434-1, series LL
        ("bite-light", "42 mm", "M52x2", 10_000),  # ISO 8434-1, series L
        ("bite-heavy", "25 mm", "M36x2", 40_000),  # ISO 8434-1, series S
        ("bite-inch", "1/2 in", "3/4-16", 24_000),  # SAE J514: flareless has the thread of the 37° body
        ("face-seal", "1/4 in", "9/16-18", 41_500),  # SAE J1453
        ("face-seal", "3/4 in", "1 3/16-12", 41_500),
        ("metric-boss", "12 mm", "M18x1.5", 25_000),  # ISO 6149-3, light duty
        ("bspp-swivel", "1/2 in", "G1/2", 25_000),  # BS 5200
        ("single-37", "4.75 mm", "3/8-24", 34_500),  # SAE J514, dash 3
        ("single-37", "15 mm", "7/8-14", 24_000),  # ISO 8434-2
        ("single-37", "18 mm", "1 1/16-12", 24_000),
        ("single-37", "25 mm", "1 5/16-12", 20_000),
    ],
)
def test_ends_needed_daily_are_there_with_nut_and_rating(kit, end, size, thread, kpa):
    assert kit.nuts_for(end, size)[0].thread == thread
    assert kit.end_size(end, size).rated_kpa == kpa


def test_a_makers_own_joint_has_no_rating_and_no_nut_of_ours(kit):
    """Common practice: sleeve, nut and figure come from the machine's maker."""
    sizes = {tube.size for tube in kit.tubes.values()}
    assert sizes
    assert all(kit.end_size("maker-sleeve", size) is None for size in sizes)
    assert not any(kit.nuts_for("maker-sleeve", size) for size in sizes)


def test_every_torque_is_of_a_joint_that_is_there(kit):
    made = {(nut.fitting, nut.thread) for nut in kit.nuts.values()}
    assert kit.torques
    assert {(row.fitting, row.thread) for row in kit.torques.values()} <= made
    assert kit.torques
    assert all(row.least_nm <= row.most_nm for row in kit.torques.values())


@pytest.mark.parametrize(
    ("end", "thread", "least", "most"),
    [
        ("single-37", "9/16-18", 24, 28),  # 18 to 20 lbf·ft, steel −6 nuts as commonly published
        ("single-37", "3/4-16", 49, 53),  # 36 to 39 lbf·ft, −8
        ("face-seal", "11/16-16", 24, 27),  # SAE J1453, −6: 18 to 20 lbf·ft
    ],
)
def test_torques_of_common_nuts(kit, end, thread, least, most):
    torque = kit.torque_for(end, thread, "steel-seamless")
    assert (torque.least_nm, torque.most_nm) == (least, most)


def test_the_rules_are_named_as_the_types_name_them(kit):
    assert set(kit.limits) == set(get_args(LimitName))
    assert set(kit.advice) == set(get_args(AdviceName))


def test_an_end_type_is_rows_alone(kit):
    """Every row that names one end, once more under another name: a line with it is planned, judged, made and
    bought as one with the first, word for word but for the name."""
    other, name = "invented", "double-45"

    def renamed(rows):
        more = {key: row for key, row in rows.items() if getattr(row, "fitting", "") == name}
        return {
            **rows,
            **{f"{other} {k}": replace(row, id=f"{other} {k}", fitting=other) for k, row in more.items()},
        }

    sizes = {
        (other, size): replace(row, fitting=other)
        for (end, size), row in kit.end_sizes.items()
        if end == name
    }
    seats = {
        seat.id: replace(seat, takes=(*seat.takes, other)) if name in seat.takes else seat
        for seat in kit.seats.values()
    }
    of = {key: row for key, row in kit.verdicts.items() if key[:2] == ("end", name)}
    wider = replace(
        kit,
        fittings={**kit.fittings, other: replace(kit.fittings[name], id=other)},
        end_sizes={**kit.end_sizes, **sizes},
        nuts=renamed(kit.nuts),
        torques=renamed(kit.torques),
        seats=seats,
        verdicts={**kit.verdicts, **{("end", other, key[2]): row for key, row in of.items()}},
    )
    with_it = End(fitting=other, nut=f"{other} double-45_3-16in_3-8-24", thread="3/8-24", proved=True)
    line = bent(reading(100, 90), reading(60, 45), last=120)
    renamed_line = bent(reading(100, 90), reading(60, 45), last=120, end_a=with_it, end_b=with_it)
    was, now = plan_line(line, kit), plan_line(renamed_line, wider)
    assert [(f.code, f.title, f.message) for f in now.findings] == [
        (f.code, f.title, f.message) for f in was.findings
    ]
    assert now.part.terms == was.part.terms
    told = [[step.text for step in order_of_work(*one)] for one in ((line, kit), (renamed_line, wider))]
    assert told[0] == told[1]
