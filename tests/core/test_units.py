"""Lengths as people write them. Expected values follow from 1 in = 25.4 mm (1959 agreement)."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from bendrel.core.units.notation import (
    PlaneUnsaid,
    UnitError,
    format_angle,
    format_clock,
    format_length,
    parse_angle,
    parse_length,
    parse_plane,
)


@pytest.mark.parametrize(
    ("text", "mm"),
    [
        ("27", 27.0),
        ("27.5in", 698.5),
        ("27 3/4", 704.85),
        ('27-3/4"', 704.85),
        ("1' 2 3/16\"", 360.3625),
        ("1'-2 3/16\"", 360.3625),
        ("1’ 2 3/16”", 360.3625),
        ("¾", 19.05),
        ("27¾", 704.85),
        ("450mm", 450.0),
        ("45 cm", 450.0),
        ("0.45 m", 450.0),
        ("0.45 M", 450.0),
        ("2 IN", 50.8),
        ("1 ft 2 in", 355.6),
        ("  5/8 ", 15.875),
    ],
)
def test_lengths_are_read_as_written(text, mm):
    assert parse_length(text, "mm") == pytest.approx(mm, abs=1e-9)


def test_a_bare_number_is_in_the_unit_of_the_field():
    assert parse_length("27", "in") == pytest.approx(685.8)
    assert parse_length("27mm", "in") == 27.0


@pytest.mark.parametrize(
    ("text", "word"),
    [
        ("", "missing"),
        ("1,5", "comma"),
        ("1,500", "comma"),
        ("5/4", "improper"),
        ("3/0", "improper"),
        ("1/2mm", "metric"),
        ("1e3", "not a length"),
        ("1' 12\"", "12 or more"),
        ("1.5' 2\"", "decimal feet"),
        ("0", "more than 0"),
        ("-3", "more than 0"),
        ("nan", "not a length"),
        ("27 furlongs", "not a length"),
        ("101 m", "100 m"),
        ("9" * 60, "too long"),
        ("٣", "not a length"),
    ],
)
def test_what_is_refused_says_why(text, word):
    with pytest.raises(UnitError, match=word):
        parse_length(text, "mm")


def test_coordinates_may_be_negative():
    assert parse_length("-1 1/2", "in", "any") == pytest.approx(-38.1)
    assert parse_length("0", "mm", "any") == 0


def refusal(text):
    try:
        parse_length(text)
    except UnitError as error:
        return str(error)
    return None


@given(st.text(max_size=60))
def test_no_text_does_worse_than_one_sentence(text):
    said = refusal(text)
    assert said is None or (said.endswith(".") and "\n" not in said)


@given(st.integers(1, 32 * 200))
def test_a_printed_fraction_reads_back_as_itself(parts):
    mm = parts * 25.4 / 32
    assert parse_length(format_length(mm, "in"), "mm") == pytest.approx(mm, abs=1e-9)


def test_printing():
    assert format_length(920.75, "in") == '36 1/4"'
    assert format_length(0, "in") == '0"'
    assert format_length(-19.05, "in") == '-3/4"'
    assert format_length(710.04, "mm") == "710 mm"


@pytest.mark.parametrize(
    ("text", "kind", "degrees"),
    [
        ("3:00", "clock", 90),
        ("12:00", "clock", 0),
        ("10:30", "clock", 315),
        ("9 o'clock", "clock", 270),
        ("-45", "rotation", -45),
        ("-180", "rotation", 180),
        ("90°", "rotation", 90),
        # half a turn that a gauge read a little over
        ("180.5", "rotation", -179.5),
        ("-183°", "rotation", 177),
    ],
)
def test_planes(text, kind, degrees):
    assert parse_plane(text) == (kind, degrees)


@pytest.mark.parametrize("text", ["13:00", "3:60", "186", "200", "up", ""])
def test_planes_refused(text):
    with pytest.raises(UnitError):
        parse_plane(text)


@pytest.mark.parametrize(
    ("value", "text"), [(12.25, "12.3"), (12.35, "12.4"), (-12.25, "-12.3"), (-0.04, "0")]
)
def test_half_a_tenth_is_rounded_away_from_nought_as_on_the_screen(value, text):
    """The same figures stand in web/src/format/units.test.ts."""
    assert format_length(value) == f"{text} mm"
    assert format_angle(value) == f"{text}°"


def test_clock_is_printed_to_the_minute():
    assert format_clock(315) == "10:30"
    assert format_clock(359.9) == "12:00"
    assert format_clock(-90) == "9:00"


@pytest.mark.parametrize("text", ["0", "-5", "361", "ninety", "1e2"])
def test_angles_refused(text):
    with pytest.raises(UnitError):
        parse_angle(text)


@pytest.mark.parametrize(
    ("text", "school", "kind", "degrees"),
    [
        ("3", "clock", "clock", 90.0),
        ("12", "clock", "clock", 0.0),
        ("0", "clock", "clock", 0.0),
        ("3", "degrees", "rotation", 3.0),
        ("12", "degrees", "rotation", 12.0),
        ("+3", "clock", "rotation", 3.0),
        ("3°", "clock", "rotation", 3.0),
        ("-3", "clock", "rotation", -3.0),
        ("3h", "degrees", "clock", 90.0),
        ("3:00", "degrees", "clock", 90.0),
        ("90", "clock", "rotation", 90.0),
        ("90", "", "rotation", 90.0),
        ("0", "", "rotation", 0.0),
    ],
)
def test_a_bare_plane_is_what_the_shop_reads(text, school, kind, degrees):
    """Common practice: a shop reads planes by the clock or in degrees; the other kind needs its sign."""
    assert parse_plane(text, school) == (kind, degrees)


@pytest.mark.parametrize("text", ["1", "3", "12", "3.5", "07"])
def test_a_bare_plane_is_asked_before_it_is_guessed(text):
    with pytest.raises(PlaneUnsaid, match="could be"):
        parse_plane(text)
    with pytest.raises(UnitError):
        parse_plane("3.5", "clock")
