"""What most tests start from."""

from __future__ import annotations

import pytest
from starlette.testclient import TestClient

from bendrel.api.app import create_app
from bendrel.catalogue.loader import load_kit
from bendrel.services.demo import fill_demo
from bendrel.services.startup import Shop, open_shop


@pytest.fixture(scope="session")
def kit():
    return load_kit()


@pytest.fixture
def shop(tmp_path) -> Shop:
    """An empty shop on a database of its own."""
    opened = open_shop(tmp_path / "shop.db")
    yield opened
    opened.close()


@pytest.fixture
def client(tmp_path):
    """The whole application on demo data, called as a browser on this machine would."""
    path = tmp_path / "api.db"
    shop = open_shop(path)
    fill_demo(shop)
    shop.close()
    with TestClient(create_app(path), base_url="http://127.0.0.1:8470") as opened:
        yield opened
