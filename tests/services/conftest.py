"""What the tests of the services start from."""

from __future__ import annotations

import pytest


@pytest.fixture(autouse=True)
def as_long_as_it_takes(monkeypatch):
    """A board is asked for once, and is to know all, however busy the machine is."""
    monkeypatch.setattr("bendrel.services.job.jobs.PATIENCE_S", 60.0)
