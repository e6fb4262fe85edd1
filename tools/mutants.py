"""Deliberate mistakes, one at a time: how many of a fixed random sample do the tests notice?

    python tools/mutants.py [--sample 300] [--seed 10] [--again]

Mutates the files named under [tool.mutmut] in pyproject.toml, in a copy under mutants/, and runs for each
mistake the core's and the files' tests that pass through its function. Left out of the draw are changes of
wording alone (a text's case, a text with letters added): what is said to people is read by people. --again
tries only those once more that the last run left alive. Prints the share that was noticed and each survivor
as a difference; exits 1 under the share that is asked for.
"""

from __future__ import annotations

import argparse
import ast
import json
import os
import random
import subprocess
import sys
from pathlib import Path

ASKED = 0.85
PLACE = Path("mutants")
ALIVE, UNTOUCHED = {0}, {5, 33}  # of the tester's exit codes: every test passed; no test came by
TOOL = Path(sys.executable).parent / "mutmut"


def run(*names: str) -> None:
    """Make the mutants where sources changed, then try those named."""
    if subprocess.run([TOOL, "run", *names], check=False, stdout=sys.stderr).returncode:
        sys.exit("The tests do not run without mistakes; see above.")


class Wordless(ast.NodeTransformer):
    """A tree without its texts and its function's own name."""

    def visit_Constant(self, node: ast.Constant) -> ast.AST:
        return ast.Constant(value="") if isinstance(node.value, str) else node


def worded_alike(functions: dict[str, ast.AST], name: str) -> bool:
    """Whether a mutant differs from its original in nothing but texts."""
    mine = name.rpartition(".")[2]
    original = mine.rpartition("__mutmut_")[0] + "__mutmut_orig"

    def bare(found: ast.AST) -> str:
        return ast.dump(ast.Module(body=Wordless().visit(found).body, type_ignores=[]))

    return bare(functions[mine]) == bare(functions[original])


def drawn(sample: int, seed: int) -> list[str]:
    """The same names for the same sources and seed."""
    names = []
    for meta in sorted(PLACE.rglob("*.py.meta")):
        made = json.loads(meta.read_text())["exit_code_by_key"]
        tree = ast.parse(meta.with_suffix("").read_text())
        functions = {f.name: f for f in ast.walk(tree) if isinstance(f, ast.FunctionDef)}
        names += [name for name in made if not worded_alike(functions, name)]
    return random.Random(seed).sample(sorted(names), sample)


def outcomes() -> dict[str, int | None]:
    found: dict[str, int | None] = {}
    for meta in PLACE.rglob("*.py.meta"):
        found |= json.loads(meta.read_text())["exit_code_by_key"]
    return found


def main() -> int:
    asked = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    asked.add_argument("--sample", type=int, default=300)
    asked.add_argument("--seed", type=int, default=10)
    asked.add_argument("--again", action="store_true")
    options = asked.parse_args()
    os.environ["HYPOTHESIS_PROFILE"] = "mutants"
    if not PLACE.exists():
        run("bendrel.core.joints.direction.*")  # makes all of them; tries this one's
    chosen = drawn(options.sample, options.seed)
    before = outcomes()
    left = [name for name in chosen if before[name] in ALIVE | UNTOUCHED | {None}]
    run(*(left if options.again else chosen))
    told = outcomes()
    alive = [name for name in chosen if told[name] in ALIVE | UNTOUCHED]
    for name in alive:
        shown = subprocess.run([TOOL, "show", name], check=True, capture_output=True, text=True).stdout
        print(shown)
    share = 1 - len(alive) / len(chosen)
    print(f"{len(chosen)} mistakes, {len(chosen) - len(alive)} noticed: {share:.1%} (asked: {ASKED:.0%})")
    return 0 if share >= ASKED else 1


if __name__ == "__main__":
    sys.exit(main())
