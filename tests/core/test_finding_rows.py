"""Every finding has its row, every row its words, and every figure in them is one that its rule gives."""

from __future__ import annotations

import ast
from collections.abc import Iterator
from pathlib import Path
from string import Formatter

import pytest

import bendrel.core.judge as judge
from bendrel.catalogue.loader import load_kit

KIT = load_kit()
GIVEN = {"rule", "end", "number", "service"}
OF_A_TUBE = {"tube", "material", "bender"}
WORDS = ("title", "message", "advice")


def kinds_of(function: ast.AST, first: ast.expr) -> list[str]:
    """The rows that the first argument of a call can name: as it stands, or as its variable was set."""
    places = [first]
    if isinstance(first, ast.Name):
        places = [
            node.value
            for node in ast.walk(function)
            if isinstance(node, ast.Assign)
            and first.id in {leaf.id for leaf in ast.walk(node.targets[0]) if isinstance(leaf, ast.Name)}
        ]
    leaves = [leaf.value for place in places for leaf in ast.walk(place) if isinstance(leaf, ast.Constant)]
    # a constant names a row, whether it is there or not; of a variable only what is one
    return [leaf for leaf in leaves if leaf in KIT.findings or isinstance(first, ast.Constant)]


def calls() -> Iterator[tuple[str, str, set[str]]]:
    """Every finding that a rule tells: its file, its row, and what is given to it."""
    for file in sorted(Path(judge.__file__).parent.rglob("*.py")):
        for function in ast.walk(ast.parse(file.read_text())):
            if not isinstance(function, ast.FunctionDef):
                continue
            for node in ast.walk(function):
                if (
                    isinstance(node, ast.Call)
                    and isinstance(node.func, ast.Attribute)
                    and node.func.attr == "told"
                ):
                    given = {word.arg for word in node.keywords if word.arg}
                    for kind in kinds_of(function, node.args[0]):
                        yield file.name, kind, given


CALLS = [pytest.param(*call, id=f"{call[0]}:{call[1]}:{k}") for k, call in enumerate(calls())]


@pytest.mark.parametrize(("file", "kind", "given"), CALLS)
def test_every_figure_in_its_words_is_given(file: str, kind: str, given: set[str]) -> None:
    row = KIT.findings[kind]
    for part in WORDS:
        text = getattr(row, part)
        if part in given:
            assert not text, f"{kind} has a {part} in its row that is never said"
            continue
        named = {name.split(".")[0] for _, name, _, _ in Formatter().parse(text) if name}
        assert named <= given | GIVEN | OF_A_TUBE, f"{kind}: {sorted(named - given - GIVEN)} in {file}"
        assert text or part != "title", f"{kind} has no title"


@pytest.mark.parametrize(("_file", "kind", "given"), CALLS)
def test_every_finding_has_a_source(_file: str, kind: str, given: set[str]) -> None:
    row = KIT.findings[kind]
    assert "source" in given or row.rule or row.limit


def test_no_row_is_left_over() -> None:
    assert set(KIT.findings) == {call[1] for call in calls()}


def test_what_a_row_names_is_there() -> None:
    for row in KIT.findings.values():
        assert not row.rule or row.rule in KIT.advice, row.id
        assert not row.limit or row.limit in KIT.limits, row.id
