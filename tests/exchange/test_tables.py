"""Points and bend CSV: their two headers, and files that mean harm."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from bendrel.core.geometry.corners import corners_from_bends
from bendrel.exchange.errors import FileError
from bendrel.exchange.shapes.tables import read_bends, read_points, read_shape, write_bends, write_points
from tests.parts import random_part

POINTS = "x_mm,y_mm,z_mm,radius_mm\n0,0,0,\n100,0,0,{r}\n100,100,0,\n"
BENDS = "straight_mm,rotation_deg,angle_deg,radius_mm\n{rows}60,,,\n"


def points(text):
    return read_points(text.encode())


def bends(rows):
    return read_bends(BENDS.format(rows=rows).encode())


def test_a_blank_inner_radius_is_filled_or_refused():
    assert read_points(POINTS.format(r="").encode(), 14).radii_mm == (14,)
    assert points(POINTS.format(r="12.5")).radii_mm == (12.5,)
    with pytest.raises(FileError, match="Row 3: radius_mm is blank"):
        points(POINTS.format(r=""))


def test_blank_radii_take_the_one_that_is_given_and_the_header_names_both_forms():
    shape = read_shape(POINTS.format(r="").encode(), 14)
    assert [bend.radius_mm for bend in shape.bends] == [14]
    assert shape.straights_mm == pytest.approx((86, 86))
    with pytest.raises(FileError) as refused:
        read_shape(b"a,b\n1,2\n")
    for header in (POINTS, BENDS):
        assert header.split("\n")[0] in str(refused.value)


def test_two_points_are_a_straight_tube():
    shape = read_shape(b"x_mm,y_mm,z_mm,radius_mm\n0,0,0,\n0,0,250,\n")
    assert (shape.bends, shape.last_straight_mm) == ((), 250)


def test_the_last_row_alone_is_a_straight_tube():
    assert bends("").last_straight_mm == 60
    assert bends("").bends == ()


def test_byte_order_mark_windows_lines_and_quoted_headers():
    data = b'\xef\xbb\xbf"x_mm","y_mm","z_mm","radius_mm"\r\n0,0,0,\r\n10,0,0,\r\n'
    assert read_points(data).points == ((0, 0, 0), (10, 0, 0))


def test_written_files_read_back_exactly():
    for seed in range(40):
        shape = random_part(seed)
        assert read_bends(write_bends(shape).encode()) == shape
        corners = corners_from_bends(shape)
        assert read_points(write_points(corners).encode()) == corners


@pytest.mark.parametrize(
    ("text", "word"),
    [
        ("", "empty"),
        ("x_mm,y_mm,z_mm\n0,0,0\n1,0,0\n", "column radius_mm is missing"),
        ("x_mm;y_mm;z_mm;radius_mm\n0;0;0;\n", "header must be"),
        ("x_mm,y_mm,z_mm,radius_mm\n0,0,0,\n1,0,0\n", "Row 3: 3 cells instead of 4"),
        ("x_mm,y_mm,z_mm,radius_mm\n0,0,0,\n1,5,0,0,\n", "Row 3: 5 cells"),
        ("x_mm,y_mm,z_mm,radius_mm\n0,0,0,\nabc,0,0,\n", "x_mm “abc” is not a number"),
        ("x_mm,y_mm,z_mm,radius_mm\n0,0,0,\nnan,0,0,\n", "not a number"),
        ("x_mm,y_mm,z_mm,radius_mm\n0,0,0,\n1e999,0,0,\n", "too large"),
        ("x_mm,y_mm,z_mm,radius_mm\n0,0,0,\n200000,0,0,\n", "too large"),
        ("x_mm,y_mm,z_mm,radius_mm\n0,0,0,5\n1,0,0,\n", "an end has no bend"),
        ("x_mm,y_mm,z_mm,radius_mm\n0,0,0,\n", "at least two rows"),
        ('x_mm,y_mm,z_mm,radius_mm\n0,0,0,"\n1,0,0,\n', "quotes"),
        ("x_mm,y_mm,z_mm,radius_mm\n" + "1,2,3,\n" * 6000, "5,000 rows"),
        ("x_mm,y_mm,z_mm,radius_mm\n" + "1" * 3_000_000, "2 MB"),
    ],
)
def test_broken_points_files_say_where(text, word):
    with pytest.raises(FileError, match=word):
        points(text)


@pytest.mark.parametrize(
    ("rows", "word"),
    [
        ("10,0,-45,15\n", "over 0 and up to 360"),
        ("10,0,361,15\n", "over 0 and up to 360"),
        ("10,90,45,15\n", "first rotation must be 0"),
        ("10,,45,15\n10,,45,15\n", "only the first"),
        ("10,,45,15\n10,200,45,15\n", "from -180 to 180"),
        ("-10,,45,15\n", "0 or more"),
        ("10,,45,0\n", "more than 0"),
        ("10,,45,\n", "radius_mm is blank"),
        ("60,,,\n", "angle_deg is blank"),
    ],
)
def test_broken_bend_files_say_where(rows, word):
    with pytest.raises(FileError, match=word):
        bends(rows)


def test_a_bend_file_without_its_last_straight_is_refused():
    with pytest.raises(FileError, match="last straight alone"):
        read_bends(b"straight_mm,rotation_deg,angle_deg,radius_mm\n10,,45,15\n")


def test_not_text_at_all():
    with pytest.raises(FileError, match="UTF-8"):
        read_points(b"\xff\xfex\x00_\x00")
    with pytest.raises(FileError, match="binary"):
        read_points(b"x_mm\x00")


@settings(max_examples=300)
@given(st.binary(max_size=400))
def test_no_bytes_do_worse_than_a_sentence(data):
    said = refusal(b"x_mm,y_mm,z_mm,radius_mm\n" + data)
    assert said is None or (said.endswith(".") and "\n" not in said)


def refusal(data):
    try:
        read_shape(data)
    except FileError as error:
        return str(error)
    return None
