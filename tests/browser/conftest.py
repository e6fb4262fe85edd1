"""The real interface in Debian's Chromium, served by the real command on demo data."""

from __future__ import annotations

import os
import socket
import subprocess
import sys
from pathlib import Path
from shutil import copyfile

import pytest
from playwright.sync_api import BrowserContext, expect

# two cores draw in software, and share them with the other half of the tests: slow is not wrong
PATIENCE_MS = 90_000
expect.set_options(timeout=30_000)

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
    # pages are painted and put together without the graphics stand-in: that is a third of the tests' time
    "--disable-gpu-compositing",
    "--disable-gpu-rasterization",
    # the pages of a context share the process that draws them, and the scripts it has compiled
    "--process-per-site",
    "--in-process-gpu",
    # whoever asks another host hears that there is none, and says so on the console
    "--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1",
    # a page of a test lives for seconds: what is compiled for the long run is never run
    "--js-flags=--max-lazy --no-opt",
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
def database(tmp_path_factory, templates):
    """The file that the server works on."""
    path = tmp_path_factory.mktemp("demo") / "demo.db"
    copyfile(templates["demo"], path)
    return path


@pytest.fixture(scope="session")
def server(database):
    """The address of a running Bendrel with demo data."""
    command = Path(sys.executable).with_name("bendrel")
    data = database.parent
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


@pytest.fixture
def copy_of(api, line_ids):
    """Copies of demo lines in a job of their own, so that tests do not meet."""
    job = api.post("/api/jobs", data={"name": "choosing"}).json()

    def make(name):
        document = api.get(f"/api/lines/{line_ids[name]}").json()["document"]
        line = api.post(f"/api/jobs/{job['id']}/lines", data={"name": name}).json()
        # nobody signs by saving: a copy of a signed line is none
        document["proving"]["signed"] = None
        body = {"version": line["version"], "document": document}
        api.put(f"/api/lines/{line['id']}", data=body)
        return line["id"]

    yield make
    api.delete(f"/api/jobs/{job['id']}")


NO_WEBGL = """{
  const drawn = HTMLCanvasElement.prototype.getContext;
  HTMLCanvasElement.prototype.getContext = function (kind, ...rest) {
    return kind.startsWith("webgl") ? null : drawn.call(this, kind, ...rest);
  };
}"""


class Watch:
    """What goes wrong on any page of any context: script errors, refusals by the content policy, errors of
    the server, and requests to anywhere else."""

    def __init__(self, server: str):
        self.server = server
        self.troubles: list[str] = []
        self.broken_server = False
        """Whether the test breaks the server itself."""

    def over(self, context: BrowserContext):
        context.on("weberror", lambda error: self.troubles.append(str(error.error)))
        context.on("console", self._console)

    def _console(self, message):
        # a refusal in the server's own words is an answer, and is shown; browsers log it all the same
        failed = message.text.startswith("Failed to load resource")
        if message.type == "error" and not (failed and (self.broken_server or " 4" in message.text)):
            self.troubles.append(message.text)


@pytest.fixture(scope="session")
def session_watch(server) -> Watch:
    return Watch(server)


@pytest.fixture
def watch(session_watch, request) -> Watch:
    """The watch, with what the test before saw forgotten."""
    session_watch.troubles.clear()
    session_watch.broken_server = request.node.get_closest_marker("broken_server") is not None
    return session_watch


@pytest.fixture
def troubles(watch) -> list[str]:
    """What went wrong on any page of any context of the test."""
    return watch.troubles


@pytest.fixture(scope="session")
def kept_context(browser, browser_context_args, session_watch):
    """One context for the usual tests. Its first page stays open, so that the process that draws it, with the
    scripts it has compiled, serves the page of every test: that is most of the time it takes to open one."""
    context = browser.new_context(**browser_context_args)
    session_watch.over(context)
    context.set_default_timeout(PATIENCE_MS)
    context.add_init_script(NO_WEBGL)
    context.new_page().goto("/icon.svg")
    yield context
    context.close()


@pytest.fixture
def context(request, watch):  # noqa: ARG001 - it forgets before the first page
    """Without a stage in three dimensions, which takes most of the time of a small machine: the core's
    drawing stands for it. Nothing of one test is left for the next, no page and nothing stored."""
    if request.node.get_closest_marker("webgl"):
        context = request.getfixturevalue("new_context")()
        context.set_default_timeout(PATIENCE_MS)
        yield context
        return
    context = request.getfixturevalue("kept_context")
    yield context
    first, *others = context.pages
    for page in others:
        page.close()
    first.evaluate("localStorage.clear()")


@pytest.fixture
def new_context(browser, browser_context_args, request, watch):
    """Contexts of the test's own, watched like the usual one."""
    contexts = []

    def made(**options):
        context = browser.new_context(**(browser_context_args | options))
        contexts.append(context)
        watch.over(context)
        if request.node.get_closest_marker("webgl") is None:
            context.add_init_script(NO_WEBGL)
        return context

    yield made
    for context in contexts:
        context.close()


@pytest.fixture(autouse=True)
def nothing_breaks(context, troubles):  # noqa: ARG001 - it is watched from before its first page on
    """Nothing goes wrong on any page. A test that breaks the server itself is marked `broken_server`."""
    yield
    assert troubles == []
