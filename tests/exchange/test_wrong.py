"""What a validator finds wrong is said in our words: where, what, and what is accepted."""

from __future__ import annotations

import re
from datetime import date
from typing import Annotated, Literal

import pytest
from annotated_types import Ge, Le, MaxLen, MinLen
from pydantic import TypeAdapter, ValidationError

from bendrel.core.record import record
from bendrel.exchange.documents.wrong import first_error, place_of, spoken_steps


@record
class Row:
    angle: Annotated[float, Ge(0), Le(60)] = 0
    note: Annotated[str, MinLen(1), MaxLen(3)] = "x"
    school: Literal["clock", "degrees"] = "clock"


@record
class Thing:
    rows: Annotated[tuple[Row, ...], MaxLen(2)] = ()
    count: int = 1
    day: date = date(2026, 1, 1)
    sure: bool = False
    made: dict[str, int] | None = None


THING = TypeAdapter(Thing)


@pytest.mark.parametrize(
    ("value", "said"),
    [
        ({"rows": [{"angle": 61}]}, "Row 1, angle: must be 60 or less."),
        ({"rows": [{}, {"angle": -1}]}, "Row 2, angle: must be 0 or more."),
        ({"rows": [{"angle": "wide"}]}, "Row 1, angle: must be a number."),
        ({"rows": [{"note": ""}]}, "Row 1, note: must not be blank."),
        ({"rows": [{"note": "long"}]}, "Row 1, note: may have 3 characters at most."),
        ({"rows": [{"school": "sun"}]}, "Row 1, school: must be one of “clock”, “degrees”."),
        ({"rows": [{"angel": 1}]}, "Row 1, angel: is not known here; leave it out."),
        ({"rows": [{}, {}, {}]}, "Rows: may have 2 entries at most."),
        ({"rows": "three"}, "Rows: must be a list."),
        ({"rows": [7]}, "Row 1: must be named values."),
        ({"count": 1.5}, "Count: must be a whole number."),
        ({"day": "soon"}, "Day: must be a date such as 2026-11-27."),
        ({"sure": "perhaps"}, "Sure: must be true or false."),
        ([], "This is not a thing: it must be named values."),
    ],
)
def test_every_kind_of_error_is_one_sentence_of_ours(value, said):
    with pytest.raises(ValidationError) as found:
        THING.validate_python(value)
    assert first_error(found.value, "a thing") == said


def test_a_million_wrong_items_are_one_error():
    """A sequence is given up at the first: what a validator collects would be larger than the file."""
    with pytest.raises(ValidationError) as found:
        THING.validate_python({"rows": [7] * 1_000_000})
    assert found.value.error_count() == 1


def test_the_way_to_a_field_counts_from_one_and_names_what_it_counts():
    assert place_of(("spans", 0, "readings", "rows", 3, "angle")) == "piece 1, readings, row 4, angle"
    assert place_of(("body", "document", "port_a", "label")) == "port a, label"
    assert place_of(()) == ""


def test_hostile_names_are_cut_and_printable():
    said = spoken_steps(("rows", "x" * 200 + "\n", "a\x00b\x1b[31m", "BendReadings"))
    assert said == ["rows", "x" * 40, "a?b?[31m"]
    assert not re.search(r"[\x00-\x1f]", "".join(said))
