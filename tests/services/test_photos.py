"""Photographs are checked, turned, scaled and kept beside the database."""

import io

import pytest
from PIL import Image

from bendrel.exchange.errors import FileError
from bendrel.exchange.readings.pictures import read_picture
from bendrel.services.errors import NotFound


def picture(size=(40, 30), kind="PNG", **how):
    out = io.BytesIO()
    Image.new("RGB", size, (180, 90, 30)).save(out, kind, **how)
    return out.getvalue()


def test_a_photograph_is_kept_once_and_found_again(shop):
    first, second = shop.photos.keep(picture()), shop.photos.keep(picture())
    assert first == second
    with Image.open(shop.photos.path(first.id)) as kept:
        assert (kept.format, kept.size) == ("JPEG", (40, 30))


def test_large_ones_are_scaled_and_turned_upright():
    exif = Image.Exif()
    exif[0x0112] = 6  # EXIF 2.3: the camera was held a quarter turn clockwise
    kept = read_picture(picture((3200, 1000), "JPEG", exif=exif))
    assert (kept.width, kept.height) == (500, 1600)
    with Image.open(io.BytesIO(kept.data)) as opened:
        assert dict(opened.getexif()) == {}


@pytest.mark.parametrize(
    "data",
    [
        b"",
        b"not a picture",
        picture()[:60],
        b"<svg onload='x'/>",
        picture(kind="GIF"),
        b"\xff\xd8\xff" + b"0" * 99,
    ],
)
def test_what_is_no_photograph_is_refused(data):
    with pytest.raises(FileError, match="JPEG, PNG or WebP"):
        read_picture(data)


def test_a_picture_that_unpacks_to_far_too_much_is_refused():
    """A 30,000 × 30,000 image of one colour is a few kilobytes on the way in."""
    bomb = io.BytesIO()
    Image.new("1", (30_000, 30_000)).save(bomb, "PNG")
    assert len(bomb.getvalue()) < 200_000
    with pytest.raises(FileError, match="60 million pixels"):
        read_picture(bomb.getvalue())


def test_a_photograph_that_is_not_there(shop, client):
    with pytest.raises(NotFound):
        shop.photos.path("0" * 32)
    assert client.get("/api/photos/..%2F..%2Fshop.db").status_code == 404
    assert client.post("/api/photos", content=b"x").status_code == 422
    assert client.post("/api/photos", content=b"x" * 15_000_001).status_code == 413
    kept = client.post("/api/photos", content=picture()).json()
    answer = client.get(f"/api/photos/{kept['id']}")
    assert answer.headers["content-type"] == "image/jpeg"


def test_a_picture_that_cannot_be_scaled_as_it_is_read_may_have_fewer_pixels():
    wide = io.BytesIO()
    Image.new("1", (5_001, 5_000)).save(wide, "PNG")
    with pytest.raises(FileError, match="over 25 million pixels"):
        read_picture(wide.getvalue())
