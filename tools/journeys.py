"""Eight whole jobs, from intake to sign-off, worked through the interface by somebody who knows it: how many
actions each takes, and what is wrong in the sentences on the way (`make journeys`).

An action is a key that confirms or moves on, a click, or a field filled. The page's clock goes on while what
was dried waits; nobody waits for it here. Exits with 1 where a job takes more than it may, or says something
wrong.
"""

from __future__ import annotations

import re
import subprocess
import sys
import tempfile
from pathlib import Path

from playwright.sync_api import Browser, expect, sync_playwright

ROOT = Path(__file__).parents[1]
sys.path.insert(0, str(ROOT))

from hand import Hand  # noqa: E402
from tests.browser.conftest import CHROMIUM_FLAGS, free_port  # noqa: E402
from tests.sentences import names_in, wrong_in  # noqa: E402
from whole_jobs import JOBS, Job  # noqa: E402

from bendrel.catalogue.loader import load_kit  # noqa: E402

PATIENCE_MS = 60_000
OTHER_UNIT_BESIDE = re.compile(r"^[\d.]+ mm$|[\d.]+ mm (?=\([\d.]+ in\))")
"""What a reading is in mm, beside its field; and walls, which are sold by either name."""


def worked(browser: Browser, address: str, job: Job) -> bool:
    """Work one job and say how it went; whether it went as it should."""
    context = browser.new_context(viewport={"width": 1280, "height": 800}, base_url=address)
    context.set_default_timeout(PATIENCE_MS)
    hand = Hand(context.new_page())
    job.work(hand)
    context.close()
    names = names_in(load_kit())
    lines = (OTHER_UNIT_BESIDE.sub("", line) for line in sorted(hand.said))
    wrong = [found for line in lines for found in wrong_in(line, "in", names)]
    name = job.work.__name__.replace("_", " ")
    print(f"{hand.actions:4d} of {job.most} actions, {len(hand.said)} lines read, {len(wrong)} wrong: {name}")
    for kind, where in wrong:
        print(f"       {kind}: {where}")
    return hand.actions <= job.most and not wrong


def main() -> None:
    expect.set_options(timeout=PATIENCE_MS)
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as playwright:
        command = [
            Path(sys.executable).with_name("bendrel"),
            "demo",
            "--data",
            folder,
            "--port",
            str(free_port()),
        ]
        server = subprocess.Popen(command, stdout=subprocess.PIPE, text=True)
        try:
            address = server.stdout.readline().split("open at ")[1].split()[0] if server.stdout else ""
            browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=CHROMIUM_FLAGS)
            asked = sys.argv[1:]
            went = [worked(browser, address, job) for job in JOBS if not asked or job.work.__name__ in asked]
            browser.close()
        finally:
            server.terminate()
            server.wait(timeout=20)
    sys.exit(not all(went))


if __name__ == "__main__":
    main()
