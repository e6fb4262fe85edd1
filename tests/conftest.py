"""What most tests start from."""

from __future__ import annotations

import os
from fcntl import LOCK_EX, flock
from pathlib import Path
from shutil import copyfile
from typing import TYPE_CHECKING

import pytest
from hypothesis import settings

from bendrel.catalogue.loader import load_kit

if TYPE_CHECKING:
    from fastapi import FastAPI

    from bendrel.services.startup import Shop

pytest_plugins = ["tests.timing"]

# fewer drawn cases while deliberate mistakes are counted (tools/mutants.py): each runs the tests once more
settings.register_profile("mutants", max_examples=25, deadline=None)
if "HYPOTHESIS_PROFILE" in os.environ:
    settings.load_profile(os.environ["HYPOTHESIS_PROFILE"])


@pytest.fixture(scope="session")
def kit():
    return load_kit()


@pytest.fixture(scope="session")
def templates(tmp_path_factory) -> dict[str, Path]:
    """An empty database and one with the demo data, made once for all processes of the run and copied."""
    from bendrel.services.demo.demo import fill_demo  # a test of the core alone need not wait for it
    from bendrel.services.startup import open_shop

    run = tmp_path_factory.getbasetemp()
    folder = (run.parent if "PYTEST_XDIST_WORKER" in os.environ else run) / "templates"
    made = {name: folder / f"{name}.db" for name in ("empty", "demo")}
    folder.mkdir(exist_ok=True)
    with (folder / "lock").open("w") as lock:
        flock(lock, LOCK_EX)
        for name, path in made.items():
            if path.exists():
                continue
            opened = open_shop(path.with_suffix(".new"))
            opened.jobs.patience_s = 60.0
            if name == "demo":
                fill_demo(opened)
                opened.jobs.board()  # so that every copy knows what it says
            opened.close()
            path.with_suffix(".new").rename(path)
    return made


@pytest.fixture
def shop(tmp_path, templates) -> Shop:
    """An empty shop on a database of its own."""
    from bendrel.services.startup import open_shop

    copyfile(templates["empty"], tmp_path / "shop.db")
    opened = open_shop(tmp_path / "shop.db", backups=False)
    opened.jobs.patience_s = 60.0  # a test asks once, and wants to know
    yield opened
    opened.close()


@pytest.fixture(scope="session")
def application(templates, tmp_path_factory) -> FastAPI:
    """The application, built once: its routes take longer to build than most tests to run."""
    from bendrel.api.app import create_app

    path = tmp_path_factory.mktemp("application") / "unused.db"
    copyfile(templates["empty"], path)
    return create_app(path)


@pytest.fixture
def client(application, templates, tmp_path):
    """The whole application on demo data of its own, called as a browser on this machine would."""
    from starlette.testclient import TestClient

    from bendrel.services.startup import open_shop

    path = tmp_path / "api.db"
    copyfile(templates["demo"], path)
    shop = open_shop(path, backups=False)
    shop.jobs.patience_s = 60.0
    first, application.state.shop = application.state.shop, shop
    yield TestClient(application, base_url="http://127.0.0.1:8470")
    application.state.shop = first
    shop.close()
