"""The command line, called in this process."""

from __future__ import annotations

import io
import subprocess
import sys
from contextlib import chdir, redirect_stderr, redirect_stdout
from unittest.mock import patch

from bendrel.cli import main


def bendrel(*words, cwd="."):
    """The command in this process: starting Python anew takes longer than most answers."""
    out, err, code = io.StringIO(), io.StringIO(), 0
    called = ["bendrel", *map(str, words)]
    with chdir(cwd), redirect_stdout(out), redirect_stderr(err), patch.object(sys, "argv", called):
        try:
            main()
        except SystemExit as end:
            code = end.code or 0
    return subprocess.CompletedProcess(words, code, out.getvalue(), err.getvalue())
