"""Imports of broken and hostile files: a sentence or a line, never a crash and never half of one.

`BENDREL_FUZZ` sets how many mangled files are tried (600 as a rule).
"""

import os
import random

import pytest

from bendrel.catalogue.loader import load_kit
from bendrel.core.geometry.corners import corners_from_bends
from bendrel.core.plan.starting import starting_line
from bendrel.exchange.documents.archive import ArchivedJob, read_archive, write_archive
from bendrel.exchange.documents.documents import write_line
from bendrel.exchange.errors import FileError
from bendrel.exchange.shapes.dxf import write_dxf
from bendrel.exchange.shapes.tables import write_bends, write_points
from bendrel.services.errors import Refused
from bendrel.services.line.importing import import_text
from tests.lines import bent, row
from tests.measured import shop_part

COUNT = int(os.environ.get("BENDREL_FUZZ", "600"))
PART = shop_part(2, bends=4)
LINE = bent(row(100, 90), row(60, 45, "3:00"))
SEEDS = {
    "document": write_line(LINE),
    "points": write_points(corners_from_bends(PART)),
    "bends": write_bends(PART),
    "dxf": write_dxf(PART),
}
BITS = [
    "NaN", "inf", "-", "1e999", "9" * 400, "\0", "\ufeff", "<script>alert(1)</script>", "'; DROP TABLE", "…",
    '"', ",,,,", "\r", "{", "[" * 50, "-0", "𝟙", "1,5",
]  # fmt: skip


def mangled(text: str, rng: random.Random) -> str:
    """One to four blows: cut short, swap, double, drop, or put something nasty in."""
    for _ in range(rng.randint(1, 4)):
        at = rng.randrange(len(text) + 1)
        end = min(len(text), at + rng.randint(0, 40))
        text = rng.choice(
            [
                text[:at],
                text[:at] + rng.choice(BITS) + text[at:],
                text[:at] + rng.choice(BITS) + text[end:],
                text[:at] + text[at:end] * 3 + text[end:],
                text[:at] + text[end:],
                text[:at] + chr(rng.randrange(1, 0x2FFF)) + text[at + 1 :],
            ]
        )
    return text


def taken(text: str) -> bool:
    """Whether a text became a line; anything but a refusal in one sentence fails the test."""
    into = starting_line(load_kit(), "into", "brake", "mm")
    try:
        read = import_text(text, into, "", None, load_kit())
    except (FileError, Refused) as refusal:
        said = str(refusal)
        assert said.strip()
        assert "\n" not in said
        assert len(said) < 400
        return False
    assert read.document.name == "into"
    assert read.understood
    return True


@pytest.mark.parametrize("kind", SEEDS)
def test_the_whole_file_is_taken(kind):
    assert taken(SEEDS[kind])


@pytest.mark.parametrize("kind", SEEDS)
def test_mangled_files_get_a_sentence_or_become_a_line(kind):
    rng = random.Random(kind)
    results = [taken(mangled(SEEDS[kind], rng)) for _ in range(COUNT // 5)]
    assert not all(results)


def test_mangled_archives_get_a_sentence_or_are_read():
    data = write_archive(ArchivedJob(name="job", lines=(LINE,)), {"a" * 32: b"picture"})
    rng, refused = random.Random(1), 0
    for _ in range(COUNT // 5):
        broken = bytearray(data)
        for _ in range(rng.randint(1, 12)):
            broken[rng.randrange(len(broken))] = rng.randrange(256)
        try:
            read_archive(bytes(broken[: rng.choice([len(broken), rng.randrange(len(broken))])]))
        except FileError:
            refused += 1
    assert refused > 0


@pytest.mark.parametrize(
    "text", ["9" * 4_000_000, "0\n" * 1_000_000, "1," * 1_500_000, "{" * 1_000_000, '"' * 100_000]
)
def test_megabytes_of_nonsense_are_refused_at_once(text):
    assert not taken(text)


def test_a_script_in_a_name_stays_a_name():
    into = starting_line(load_kit(), "<script>alert(1)</script>", "brake", "mm")
    assert import_text(SEEDS["bends"], into, "", None, load_kit()).document.name == into.name
