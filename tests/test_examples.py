"""What the core's functions say of themselves: their worked examples come to what stands beside them (each is
worked by hand), and none raises what it does not name."""

import ast
import doctest
import pkgutil
from importlib import import_module
from pathlib import Path

import pytest

import bendrel.core

CORE = Path(bendrel.core.__path__[0])
ROOMS = sorted(path.parent.name for path in CORE.glob("*/__init__.py"))
FINDER = doctest.DocTestFinder(exclude_empty=True)


def test_every_worked_example_comes_to_what_stands_there():
    tried, failed = 0, []
    for module in pkgutil.walk_packages(bendrel.core.__path__, "bendrel.core."):
        for found in FINDER.find(import_module(module.name)):
            runner = doctest.DocTestRunner(verbose=False)
            runner.run(found, out=failed.append)
            tried += runner.tries
    assert failed == []
    assert tried > 40


def public_functions(tree):
    """Functions of a module and of its classes whose names say that others call them."""
    for node in tree.body:
        if isinstance(node, ast.FunctionDef) and not node.name.startswith("_"):
            yield node
        elif isinstance(node, ast.ClassDef) and not node.name.startswith("_"):
            yield from (one for one in public_functions(node) if isinstance(one, ast.FunctionDef))


@pytest.mark.parametrize("room", ROOMS)
def test_every_public_function_says_what_it_is_and_what_it_raises(room):
    lacking = []
    for path in (CORE / room).rglob("*.py"):
        for function in public_functions(ast.parse(path.read_text())):
            said = ast.get_docstring(function) or ""
            raises = any(isinstance(n, ast.Raise) and n.exc is not None for n in ast.walk(function))
            if not said or (raises and "aise" not in said):
                lacking.append(f"{path.name}:{function.lineno} {function.name}")
    assert lacking == []
