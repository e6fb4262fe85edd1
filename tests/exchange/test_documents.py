"""Line documents, the drawing and the sheet."""

import io
import json
from datetime import date
from xml.etree import ElementTree

import jsonschema_rs
import pytest
from pypdf import PdfReader

from bendrel.core.line.document import Carries
from bendrel.core.plan.planner import plan_line
from bendrel.core.plan.working import order_of_work
from bendrel.core.units.lengths import Length
from bendrel.exchange.documents.documents import (
    line_from_value,
    line_schema,
    line_to_value,
    read_line,
    write_line,
)
from bendrel.exchange.errors import FileError
from bendrel.exchange.paper.sheet import build_sheet
from bendrel.exchange.shapes.svg import draw_svg
from tests.lines import Component, End, Hose, bent, cornered, replace, row

LINE = bent(row(100, 90), row(60, 45, "3:00"), row(80, 60, "7:30"), name="Łódź pump, links")


def test_a_document_comes_back_unchanged():
    for line in (LINE, cornered((0, 0, 0), (100, 0, 0), (100, 50, 20))):
        assert read_line(write_line(line)) == line


FITTED = replace(
    LINE,
    service="cooler",
    carries=Carries(fluid="atf", pressure="7 bar", temperature="120 °C", flow="1.5 gpm", flows="A to B"),
    end_b=End(
        fitting="bead",
        seat="spigot",
        body="brass",
        beyond=(
            Hose(hose="cooler_3-8in", length=Length(text="200"), clamp="worm_12-20", rubs=True),
            Component(what="filter", points="B", age="old", note="second-hand"),
        ),
    ),
)


def test_hoses_parts_and_what_is_carried_come_back_unchanged():
    assert read_line(write_line(FITTED)) == FITTED
    jsonschema_rs.validate(line_schema(), json.loads(write_line(FITTED)))


@pytest.mark.parametrize(
    ("path", "value", "word"),
    [
        (("spans", 1, "clamps_each"), 3, "clamps each"),
        (("spans", 1, "joined"), "glue", "joined"),
        (("spans", 2, "what"), "kettle", "what"),
        (("spans", 2, "points"), "up", "points"),
        (("carries", "flows"), "sideways", "flows"),
        (("carries", "pressure"), "x" * 200, "pressure"),
    ],
)
def test_what_is_no_hose_part_or_duty_is_refused_by_name(path, value, word):
    document = json.loads(write_line(FITTED))
    place = document
    for step in path[:-1]:
        place = place[step]
    place[path[-1]] = value
    with pytest.raises(FileError, match=word):
        read_line(json.dumps(document).encode())


def test_more_spans_than_a_line_has_are_refused():
    document = json.loads(write_line(FITTED))
    hose = document["spans"][1]
    document["spans"] += [{**hose, "id": f"more{k}"} for k in range(40)]
    with pytest.raises(FileError, match="Spans: may have 40 entries"):
        read_line(json.dumps(document).encode())


def test_the_published_schema_accepts_what_is_written_and_no_more():
    jsonschema_rs.validate(line_schema(), json.loads(write_line(LINE)))
    with pytest.raises(jsonschema_rs.ValidationError):
        jsonschema_rs.validate(line_schema(), json.loads(write_line(LINE)) | {"surprise": 1})


def test_the_schema_knows_every_field_of_a_document():
    properties = line_schema()["properties"]
    assert set(json.loads(write_line(LINE))) == set(properties)


@pytest.mark.parametrize(
    ("change", "word"),
    [
        ({"format": "other"}, "Format: must be one of"),
        ({"version": 3}, "version: This document is of version 3; this Bendrel reads up to version 2"),
        ({"surprise": 1}, "Surprise: is not known here"),
        ({"name": ""}, "Name: must not be blank"),
        ({"spans": []}, "nothing in it"),
        ({"port_a": {"label": "x" * 61}}, "Port a, label: may have 60 characters"),
        ({"version": 1, "end_c": {}}, "end_c: A line of version 1 has end_a and end_b and no other end"),
    ],
)
def test_a_document_that_is_not_one_names_the_field(change, word):
    value = json.loads(write_line(LINE)) | change
    with pytest.raises(FileError, match=word):
        read_line(json.dumps(value))


@pytest.mark.parametrize("text", ["{", "[]", "null", "[" * 50_000, '{"name":"x"}', "\ud800"])
def test_text_that_is_no_document(text):
    with pytest.raises(FileError):
        read_line(text.encode("utf-8", "surrogatepass"))


def test_an_id_that_is_there_twice_is_named():
    value = json.loads(write_line(FITTED))
    value["spans"][2]["id"] = value["spans"][1]["id"]
    with pytest.raises(FileError, match="“b1” is there twice among the spans"):
        read_line(json.dumps(value))
    value = json.loads(write_line(LINE))
    value["spans"][0]["readings"]["rows"][2]["id"] = "r1"
    with pytest.raises(FileError, match="“r1” is there twice among the rows"):
        read_line(json.dumps(value))


def test_too_many_rows_are_refused():
    value = json.loads(write_line(LINE))
    value["spans"][0]["readings"]["rows"] *= 100
    with pytest.raises(FileError, match="rows"):
        read_line(json.dumps(value))


def sheet_text(line, kit):
    plan = plan_line(line, kit)
    cautions = " ".join(caution.text for caution in kit.cautions_at("brake"))
    data = build_sheet(
        line,
        plan,
        kit,
        order_of_work(line, kit),
        job="Fire tender",
        machine="",
        cautions=cautions,
        tube="brake",
        today=date(2026, 11, 24),
    )
    reader = PdfReader(io.BytesIO(data))
    return [page.extract_text() for page in reader.pages]


def test_the_sheet_holds_what_the_bench_needs(kit):
    made, *closed = sheet_text(LINE, kit)
    text = made
    # 100 + 60 + 80 + 100 straight, R 15 through 90 + 45 + 60 degrees, two flares of 2.05, spare 25
    for expected in ("Łódź pump, links", "2026-11-24", "420.1 mm", "anticlockwise", "3:00"):
        assert expected in text
    assert kit.rules_version in text
    assert text.index("Both nuts on") < text.index("Flare end A") < text.index("Bend in the order")
    assert "never a jack alone" in text
    assert "DO NOT MAKE" not in text
    assert "Blow through both ways" in made
    flared, *work = closed
    assert flared.index("Flaring") < flared.index("Ends A and B") < flared.index("End B measured across")
    assert work[0].index("Fit and prove") < work[0].index("Bring it in loose")


def test_a_line_with_stops_says_so_on_its_sheet(kit):
    assert "DO NOT MAKE YET" in sheet_text(bent(row(100, 200)), kit)[0]


@pytest.mark.parametrize("count", [0, 1, 12, 30, 40])
def test_what_is_made_stays_on_one_page(kit, count):
    rows = [row(100, 45, "3:00" if k % 2 else "12:00") for k in range(count)]
    made, *closed = sheet_text(replace(bent(*rows), name="long name " * 12), kit)
    assert "never a jack alone" in made
    assert "Fit and prove" not in made
    assert 1 <= len(closed) <= 2


def test_the_drawing_is_well_formed_and_names_every_bend(kit):
    part = plan_line(LINE, kit).part
    for view in part.views.values():
        root = ElementTree.fromstring(draw_svg(part, view))
        bends = {node.get("data-bend") for node in root if node.get("data-bend")}
        assert bends == {"1", "2", "3"}
        numbers = [
            float(v) for n in root if n.get("points") for v in n.get("points").replace(",", " ").split()
        ]
        assert min(numbers) >= 0
        assert max(numbers) <= 760


def _without_spans(value):
    value["spans"], value["joints"] = [], []


def _twice(value):
    value["spans"].append(dict(value["spans"][0]))


def _too_many_joints(value):
    value["joints"] = [{}, {}]


def _later(value):
    value["version"] = 3


def _strange_kind(value):
    value["spans"][0]["kind"] = "rope"


@pytest.mark.parametrize(
    ("spoil", "said"),
    [
        (
            _without_spans,
            "line document: The line has nothing in it; it needs at least one tube",
        ),
        (_twice, "The id “s1” is there twice among the spans"),
        (_too_many_joints, "2 joints for 1 spans; one lies between two."),
        (_later, "version: This document is of version 3; this Bendrel reads up to version 2."),
        (
            _strange_kind,
            "kind: “rope” is none of the kinds that there are: rigid, hose, component.",
        ),
    ],
)
def test_a_chain_that_is_none_is_refused_with_one_sentence(spoil, said):
    value = line_to_value(bent())
    spoil(value)
    with pytest.raises(FileError) as refused:
        line_from_value(value)
    assert said in str(refused.value)
    assert "Value error" not in str(refused.value)
