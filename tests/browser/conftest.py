"""The real interface in Debian's Chromium, served by the real command on demo data."""

from __future__ import annotations

import os
import socket
import subprocess
import sys
from pathlib import Path

import pytest
from playwright.sync_api import expect

expect.set_options(timeout=15_000)  # two cores draw the stage in software: slow is not wrong

CHROMIUM_FLAGS = [
    "--headless",
    "--no-sandbox",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--no-first-run",
    "--use-angle=swiftshader",
    "--enable-unsafe-swiftshader",
    "--ignore-gpu-blocklist",
]


def free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return probe.getsockname()[1]


@pytest.fixture(scope="session")
def browser_type_launch_args():
    return {"executable_path": "/usr/bin/chromium", "args": CHROMIUM_FLAGS}


@pytest.fixture(scope="session")
def browser_context_args(server):
    return {"viewport": {"width": 1280, "height": 800}, "base_url": server}


@pytest.fixture(scope="session")
def server(tmp_path_factory):
    """The address of a running Bendrel with demo data."""
    command = Path(sys.executable).with_name("bendrel")
    data = tmp_path_factory.mktemp("demo")
    process = subprocess.Popen(
        [command, "demo", "--data", data, "--port", str(free_port())],
        stdout=subprocess.PIPE,
        text=True,
        env=os.environ | {"PYTHONUNBUFFERED": "1"},
    )
    said = process.stdout.readline()
    yield said.split("open at ")[1].split()[0].rstrip("/")
    process.terminate()
    process.wait(timeout=10)


@pytest.fixture
def api(playwright, server):
    """Requests as the page itself would make them."""
    context = playwright.request.new_context(base_url=server)
    yield context
    context.dispose()


@pytest.fixture
def line_ids(api):
    jobs = api.get("/api/jobs").json()
    return {line["name"]: line["id"] for job in jobs for line in job["lines"]}


@pytest.fixture
def own_line(api, line_ids):
    """A copy of the demo's sound line, in a job of its own, so that tests do not meet."""
    document = api.get(f"/api/lines/{line_ids['Rear axle, left']}").json()["document"]
    job = api.post("/api/jobs", data={"name": "test job"}).json()
    line = api.post(f"/api/jobs/{job['id']}/lines", data={"name": "copy"}).json()
    body = {"version": line["version"], "document": document | {"name": "copy"}}
    api.put(f"/api/lines/{line['id']}", data=body)
    yield line["id"]
    api.delete(f"/api/jobs/{job['id']}")


NO_WEBGL = "HTMLCanvasElement.prototype.getContext = function () { return null; };"


@pytest.fixture(autouse=True)
def plain_stage(request, context):
    """The core's drawing instead of the stage, except for tests of the stage: drawing three
    dimensions in software takes most of the time on a small machine."""
    if request.node.get_closest_marker("webgl") is None:
        context.add_init_script(NO_WEBGL)


@pytest.fixture(autouse=True)
def nothing_breaks(page, server):
    """No script error, no refused style or script, and no request to anywhere else."""
    troubles: list[str] = []
    page.on("pageerror", lambda error: troubles.append(str(error)))
    page.on(
        "console",
        lambda message: troubles.append(message.text) if "Content Security Policy" in message.text else None,
    )
    page.on(
        "request",
        lambda request: (
            None if request.url.startswith((server, "data:", "blob:")) else troubles.append(request.url)
        ),
    )
    yield
    assert troubles == []
