"""The kept lines still come to the kept plans and shopping lists; `tools/golden.py` compares the rest too."""

import pytest

from tests.golden import LINES, PART, TOLD, differences, kits, read, told_of

EVERY = 10
"""Every so manieth line's bench report and sheet are compared as well."""


@pytest.fixture(scope="module")
def kept():
    return list(zip(read(LINES), read(TOLD), strict=True))


def test_the_kept_lines_are_of_every_kind(kept):
    documents = [line["document"] for line, _ in kept]
    ends = [document[end] for document in documents for end in ("end_a", "end_b")]
    kit = kits()[0]
    assert len(documents) == 200
    assert {d["service"] for d in documents} >= set(kit.services)
    assert {end["fitting"] for end in ends} == set(kit.fittings)
    spans = [document["spans"][0] for document in documents]
    assert {d["spans"][0]["readings"]["kind"] for d in documents} == {"bends", "corners"}
    assert {piece["kind"] for end in ends for piece in end["beyond"]} == {"hose", "part"}
    for some in (
        [s for s in spans if s["order"]],
        [s for s in spans if s["left_open"]],
        [end for end in ends if end["leave_long"]["text"]],
        [d for d in documents if d["bought"]],
        [d for d in documents if d["checks"]["wire"]["text"]],
        [d for d in documents if d["openings"]],
        [line for line, _ in kept if line["calibrated"]],
        [s for s in spans if s["readings"].get("alongside")],
        [s for s in spans if s["held"] == "B"],
    ):
        assert len(some) >= 3


@pytest.mark.parametrize("tenth", range(EVERY))
@pytest.mark.long("twenty kept lines")
def test_what_is_told_of_them_has_not_changed(kept, tenth):
    for line, was in kept[tenth::EVERY]:
        parts = (*PART, "bench", "sheet") if tenth == 0 else PART
        now = told_of(line, parts)
        assert list(differences({part: was.get(part) for part in now}, now)) == [], line["name"]
