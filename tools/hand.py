"""Somebody at the screen who knows it: what they do is counted, what they read is kept."""

from __future__ import annotations

import re
from collections.abc import Callable
from datetime import datetime, timedelta

from playwright.sync_api import Locator, Page, expect

SAID = """() => [...document.querySelectorAll('main, aside, [role=toolbar], dialog[open], footer')]
  .flatMap(part => part.innerText.split('\\n')).map(line => line.trim()).filter(line => line.length > 3)"""
"""What the page says now, line by line; what is folded is not said."""


class Hand:
    """Somebody at the screen. Each method is one action, but for `look`, `read`, `wait` and `within`."""

    def __init__(self, page: Page) -> None:
        self.page = page
        self.actions = 0
        self.said: set[str] = set()
        self.minutes = 0

    def press(self, name: str, *, role: str = "button", at: Locator | None = None) -> None:
        """What is called so, or begins so."""
        found = (at or self.page).get_by_role(role, name=re.compile(f"^{re.escape(name)}"))
        self.click(found.first)

    def click(self, what: Locator) -> None:
        what.click()
        self.actions += 1

    def write(self, label: str, text: str, *, at: Locator | None = None) -> None:
        """Into the field of that label."""
        found = (at or self.page).get_by_role("textbox", name=label, exact=True)
        found.first.fill(text)
        self.actions += 1

    def pick(self, label: str, option: str, *, at: Locator | None = None) -> None:
        """What is called so, in the list of that label."""
        found = (at or self.page).get_by_role("combobox", name=label, exact=True).first
        named = found.locator("option").filter(has_text=re.compile(f"^{re.escape(option)}"))
        expect(named.first).to_be_attached()
        found.select_option(value=named.first.get_attribute("value"))
        self.actions += 1

    def tick(self, name: str) -> None:
        self.click(self.page.get_by_role("checkbox", name=name, exact=True).first)

    def key(self, keys: str) -> None:
        """One key, or several held together."""
        self.page.keyboard.press(keys)
        self.actions += 1

    def region(self, name: str) -> Locator:
        return self.page.get_by_role("region", name=name)

    @property
    def asked(self) -> Locator:
        """What the stage asks."""
        return self.region("What this stage asks")

    def stage(self, number: int) -> None:
        """To a stage by its key; what was on the one before is read first."""
        self.read()
        self.settle()
        self.key(f"Alt+{number}")
        expect(self.asked.locator("h2, h3, button").first).to_be_visible()
        self.read()

    def settle(self) -> None:
        """Nothing is being worked out, all is saved."""
        expect(self.page.get_by_role("status", name="Being worked out")).to_have_text("")
        expect(self.page.get_by_text(re.compile(r"^saved \d"))).to_be_visible()

    def read(self) -> None:
        """Every sentence on the screen."""
        self.said.update(self.page.evaluate(SAID))

    def as_told(self, *groups: str) -> None:
        """The steps of these groups as told, or of all: kind by kind, and then each that stands alone."""
        self.read()
        for at in [self.region(name) for name in groups] or [self.asked]:
            together = at.get_by_role("button", name=re.compile(r"^All \d+ of these as told"))
            boxes = at.locator("[data-step]").get_by_role("checkbox", checked=False)
            while left := boxes.count():
                # what is safe comes first and by itself, then the rest of its kind together
                self.click(together.first if together.count() else boxes.first)
                expect(boxes).not_to_have_count(left)
        self.settle()
        self.read()

    def later(self, minutes: int) -> None:
        """The page's clock goes on."""
        self.minutes += minutes
        self.page.clock.set_fixed_time(datetime.now() + timedelta(minutes=self.minutes))


def dry(hand: Hand) -> None:
    """What is to be dried is dried, and looked at when its wait is over."""
    watch = hand.region("Leak watch")
    if watch.get_by_role("button", name=re.compile(r"(^|: )Dried")).count() == 0:
        return  # where air leaks in nothing is wiped
    hand.click(watch.get_by_role("button", name=re.compile(r"(^|: )Dried")).first)
    hand.settle()
    hand.later(31)
    hand.click(watch.get_by_role("button", name=re.compile(r"(^|: )It is dry")).first)
    hand.settle()
    hand.read()


def job(hand: Hand, name: str) -> None:
    """A new job, from the board."""
    hand.page.goto("/")
    hand.press("New job")
    hand.write("Name of the job or machine", name)
    hand.key("Enter")
    expect(hand.page.get_by_role("heading", name=name, level=1)).to_be_visible()


def line(hand: Hand, name: str, it_is: str, service: str, *known: tuple[str, str]) -> None:
    """A new line of the job, with what is known of it first."""
    hand.press("New line")
    hand.write("Name of the line", name)
    hand.pick("It is", it_is)
    hand.pick("Service", service)
    for label, text in known:
        hand.write(label, text)
    hand.read()
    hand.key("Enter")
    expect(hand.asked).to_be_visible()
    hand.settle()
    hand.read()


def fit(hand: Hand, *, first: Callable[[Hand], None] | None = None) -> None:
    """The line is fitted, all as told; `first` is what is put in before."""
    hand.stage(7)
    expect(hand.region("Into its place, all loose")).to_be_visible()
    if first is not None:
        first(hand)
        hand.settle()
    hand.as_told()


def prove(
    hand: Hand,
    who: str,
    *,
    old: str = "",
    hold: Callable[[Hand], None] | None = None,
    closed: tuple[str, ...] = (),
) -> None:
    """Filled, watched twice, what it is for tried, and the name under it; `old` is how the old part is,
    `hold` proves that it holds, `closed` are places that nobody opened: nothing is asked of them."""
    hand.stage(8)
    expect(hand.region("Fill and bleed")).to_be_visible()
    for place in closed:
        expect(hand.asked).not_to_contain_text(place)
    hand.as_told("Fill and bleed")
    if hold is not None:
        hold(hand)
    dry(hand)
    hand.as_told("Once more, settled", "Afterwards")
    dry(hand)
    for check in hand.region("Does it work").locator("[data-check]").all():
        hand.click(check.get_by_text("yes", exact=True))
    if old:
        hand.pick("It is", old, at=hand.region("The old part that stays"))
    hand.settle()
    hand.read()
    end = hand.region("Sign-off")
    expect(end).to_contain_text("Nothing is in the way.")
    hand.write("Signed by", who, at=end)
    hand.press("Sign the line off", at=end)
    expect(end).to_contain_text(f"Signed off by {who}")
    hand.read()
