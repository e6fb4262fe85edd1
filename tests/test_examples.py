"""The worked examples in the core's own words come to what stands beside them; each is worked by hand."""

import doctest
import pkgutil
from importlib import import_module

import bendrel.core

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
