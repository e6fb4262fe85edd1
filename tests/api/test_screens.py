"""The built screens: kept for good where their name says what is in them, compressed, and small at first."""

import gzip
import re

import pytest

from bendrel.api.screens import INTERFACE


@pytest.fixture(scope="module")
def asked():
    """Every script and sheet that the first page names."""
    return re.findall(r"/assets/[^\"]+", (INTERFACE / "index.html").read_text())


@pytest.mark.browser
def test_what_the_first_page_names_is_compressed_and_kept_for_good(client, asked):
    assert asked
    for path in asked:
        answer = client.get(path, headers={"accept-encoding": "gzip"})
        there = (INTERFACE / path.removeprefix("/")).read_bytes()
        assert answer.headers.get("content-encoding") == ("gzip" if len(there) >= 500 else None)
        assert answer.headers["cache-control"] == "public, max-age=31536000, immutable"
        assert answer.content == there
    assert client.get("/").headers["cache-control"] == "no-store"


@pytest.mark.browser
def test_the_board_is_under_150_kb(asked):
    """All that the page names and the place itself brings before anything is seen, as gzip packs it."""
    loaded, waiting = set(), {path.rsplit("/", 1)[-1] for path in asked}
    while waiting:
        name = waiting.pop()
        loaded.add(name)
        told = (INTERFACE / "assets" / name).read_text()
        waiting |= set(re.findall(r'from"\./([\w.-]+\.js)"', told)) - loaded
    size = sum(len(gzip.compress((INTERFACE / "assets" / name).read_bytes())) for name in loaded)
    assert any("Bring in a job" in (INTERFACE / "assets" / name).read_text() for name in loaded)
    assert size < 150_000
