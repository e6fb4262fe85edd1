"""A server that is killed at any moment, again and again: nothing that it acknowledged is lost.

`BENDREL_KILLS` sets how often (6 as a rule; `make soak` 300).
"""

import json
import os
import subprocess
import sys
from pathlib import Path

import pytest

CYCLES = int(os.environ.get("BENDREL_KILLS", "6"))


@pytest.mark.long("kills a server again and again")
def test_nothing_acknowledged_is_lost_by_killing_the_server(tmp_path):
    done = subprocess.run(
        [sys.executable, "-m", "tests.api.killing", str(tmp_path), str(CYCLES), "15"],
        cwd=Path(__file__).parents[2],
        capture_output=True,
        text=True,
        timeout=60 + 10 * CYCLES,
    )
    assert done.returncode == 0, done.stderr[-2000:]
    told = json.loads(done.stdout)
    assert told["lost"] == []
    assert told["left"] == []
    assert told["acknowledged"] >= CYCLES // 2  # it did work between the kills
