"""The kept lines of version 2 still come to what is told of them; a change shows as text in the commit that
means it (`python tools/golden.py --made --write`)."""

from __future__ import annotations

import os
from difflib import unified_diff

import pytest

from bendrel.catalogue.loader import load_kit
from bendrel.exchange.documents.documents import line_from_value
from tests.kept_answers import A_FILE, COUNT, documents, file_of, told_file
from tests.made_lines import KINDS, share_of


def test_the_kept_lines_are_as_people_make_them() -> None:
    """Every kind is there, eight and more of each."""
    found = share_of(load_kit(), [line_from_value(kept) for kept in documents()])
    assert len(documents()) == COUNT
    assert {kind: found[kind] for kind in KINDS if found[kind] < 8} == {}


@pytest.mark.parametrize("start", range(0, COUNT, A_FILE * (1 if "BENDREL_KEPT" in os.environ else 2)))
def test_what_is_told_of_them_has_not_changed(start: int) -> None:
    """Every other file; all of them by `make golden` and `BENDREL_KEPT=all`."""
    was, now = file_of(start).read_text(encoding="utf-8"), told_file(start, documents())
    assert list(unified_diff(was.splitlines(), now.splitlines(), lineterm="", n=0)) == []
