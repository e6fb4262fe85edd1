"""What every finding, suggestion and plan is made of, whatever the line: all words there, all places on the
line, every fix a change that the document takes."""

from __future__ import annotations

import re

import pytest

from bendrel.catalogue.loader import load_kit
from bendrel.core.findings import Finding
from bendrel.core.line.condition import Condition, Damage, Decision, Fixture
from bendrel.core.line.document import Line, Opening
from bendrel.core.plan.planner import plan_line
from bendrel.core.units.lengths import Length
from tests.core.test_refused import hosed, line
from tests.core.test_room_and_route import hole
from tests.lines import DOUBLE, Component, bent, end_of, replace, row
from tests.made_lines import made_line
from tests.often import often
from tests.random_lines import random_line, with_fix

KIT = load_kit()
NOTHING = r"\bNone\b(?! is listed)"
NUMBER, END = ("number",), ("end",)
PLACES = {"bend": NUMBER, "straight": NUMBER, "end": END, "tube": ()}


def sound(finding: Finding, line: Line, developed: float, count: int) -> None:
    """Every field as it is promised, and the words agree with the place."""
    for text in (finding.title, finding.message, finding.code):
        assert isinstance(text, str), finding
        assert text.strip(), finding
        assert not re.search(NOTHING, text), finding
    assert isinstance(finding.advice, str)
    assert not re.search(NOTHING, finding.advice), finding
    assert finding.severity in ("stop", "caution", "note")
    assert isinstance(finding.safety, bool)
    assert finding.source.text
    assert finding.title[0] == finding.title[0].upper()
    assert not finding.title.endswith(".")
    assert re.search(r"[.?…”)]$|\d$", finding.message.strip()), finding.message
    where = finding.where
    if where.kind == "span":
        assert where.span in {span.id for span in line.spans}, finding
        return
    assert {n for n in ("number", "end") if getattr(where, n) is not None} == set(PLACES[where.kind]), finding
    if where.kind == "tube" and not where.span and len([s for s in line.spans if s.kind == "rigid"]) != 1:
        assert (where.from_mm, where.to_mm) == (None, None)  # the whole line, not one tube of it
        return
    assert where.from_mm is not None, finding
    assert where.to_mm is not None, finding
    assert -1e-6 <= where.from_mm <= where.to_mm <= developed + 1e-6
    if where.kind == "bend":
        assert 1 <= where.number <= count
    named = re.match(r"End ([AB])\b", finding.title)
    if named and where.end is not None:
        assert named[1] == where.end, finding
    numbered = re.match(r"Bend (\d+)\b", finding.title)
    if numbered and where.kind == "bend":
        assert int(numbered[1]) == where.number


def checked(made) -> int:
    plan = plan_line(made, KIT)
    if plan.chosen is None:
        return 0
    for finding in plan.findings:
        piece = plan.piece(finding.where.span) or plan.piece()
        part = piece.part if piece else None
        # where the last straight is missing its bend ends beyond the tube
        reach = max([part.developed_mm, *(bend.end_mm for bend in part.bends)]) if part else 0.0
        sound(finding, made, reach, len(part.bends) if part else 0)
        if finding.fix is not None:
            assert finding.fix.label.strip()
            assert not re.search(NOTHING, finding.fix.label)
            assert finding.fix.changes or finding.fix.reduce
            changed = with_fix(made, finding.fix, KIT)
            assert changed != made, finding.fix
    order = [("stop", "caution", "note").index(f.severity) for f in plan.findings]
    assert order == sorted(order), "what is worst comes first"
    return len(plan.findings)


@pytest.mark.parametrize("start", range(0, often(80, 120), 20))
def test_lines_as_people_make_them_say_whole_things(start):
    """Chains, mended and let-in ones, hoses with a way, old tube, logs (tests/made_lines.py)."""
    assert sum(checked(made_line(KIT, seed)) for seed in range(start, start + 20)) > 60


@pytest.mark.parametrize("start", range(0, often(200, 400), 50))
def test_random_lines_say_whole_things(start):
    assert sum(checked(random_line(KIT, seed)) for seed in range(start, start + 50)) > 100


WORN = Condition(
    reasons=("chafed", "rusted through"),
    damage=(Damage(kind="chafe", at=Length(text="40"), to=Length(text="60")),),
    fixtures=(Fixture(kind="clip", state="missing", at=Length(text="55")), Fixture(at=Length(text="10"))),
    cause="contact",
    decision=Decision(choice="splice"),
)
ODD = {
    "worn": bent(row(100, 90), row(60, 90, "3:00"), condition=WORN),
    "no way in": bent(row(100, 90), row(60, 90, "3:00"), openings=(hole(across=6, deep=30, room=40),)),
    "unread hole": bent(row(100, 90), openings=(Opening(at=Length(text="here")),)),
    "tight": bent(row(20, 170, radius=6), row(5, 90, "3:00", radius=6), last=10),
    "too far": bent(row(100, 190), last=100),
    "odd port": bent(row(100, 90), end_b=replace(DOUBLE, thread="G1/8", proved=False)),
    "no such port": bent(row(100, 90), end_b=replace(DOUBLE, thread="M10", proved=False)),
    "against it": bent(
        row(100, 90),
        service="vacuum",
        end_a=replace(DOUBLE, fitting="plain", nut=None, role="source"),
        end_b=replace(
            DOUBLE,
            fitting="plain",
            nut=None,
            beyond=(Component(what="check valve", points="B"), Component(what="filter")),
        ),
    ),
    "short hose": hosed(
        "cooler", "steel-plated_3-8in_0.711", "plain", "cooler_3-8in", clamp="worm_40-60", length="30 mm"
    ),
    "sleeve": line("hydraulic-return", "steel-seamless_22mm_2", "bite-light"),
}  # fmt: skip


@pytest.mark.parametrize("name", ODD)
def test_odd_lines_say_whole_things(name):
    assert checked(ODD[name]) >= 1


ROWS = "/spans/s1/readings/rows"


def told(made, code):
    return next(f for f in plan_line(made, KIT).findings if f.code == code)


def test_places_along_the_tube_are_those_of_what_is_meant():
    """Chafed from 40 to 60 mm, a clip missing at 55; bend 1 runs from 100 to 123.6 mm."""
    worn = ODD["worn"]
    contact = told(worn, "old_contact").where
    assert (contact.from_mm, contact.to_mm) == (40, 60)
    clip = told(worn, "fixture").where
    assert (clip.from_mm, clip.to_mm) == (55, 55)
    stuck = told(ODD["no way in"], "does_not_pass").where
    assert (stuck.kind, stuck.number) == ("bend", 1)
    assert (stuck.from_mm, stuck.to_mm) == pytest.approx((100, 123.562), abs=1e-3)
    end = told(ODD["odd port"], "threads_mixed").where
    assert (end.end, end.to_mm) == ("B", pytest.approx(223.562, abs=1e-3))
    assert end.from_mm == pytest.approx(123.562, abs=1e-3)
    short = told(bent(row(100, 90), row(8, 90, "3:00"), last=100), "bends_too_close").where
    assert (short.kind, short.number) == ("straight", 2)
    assert (short.from_mm, short.to_mm) == pytest.approx((123.562, 131.562), abs=1e-3)


@pytest.mark.parametrize(
    ("made", "code", "label", "changes"),
    [
        (
            bent(row(100, 90), row(8.2, 90, "3:00"), last=100),
            "bends_too_close",
            "Make this leg 12 mm",
            [(f"{ROWS}/r2/length/exact_mm", None), (f"{ROWS}/r2/length/text", "12 mm")],
        ),
        (
            # to the bend's centre, radius 15: flare 1.12, nut 15.9, the tool's 15 behind it, to the next half
            bent(row(100, 90), last=9, last_from="centre"),
            "straight_missing",
            "Make this leg 47.5 mm",
            [("/spans/s1/readings/last/exact_mm", None), ("/spans/s1/readings/last/text", "47.5 mm")],
        ),
        (
            bent(row(100, 90, radius=20), last=100),
            "radius_not_the_tools",
            "Use the tool’s radius",
            [("/spans/s1/readings/rows/r1/radius", None)],
        ),
        (
            bent(row(100, 90, radius=8), last=100),
            "radius_too_tight",
            "Use the tool’s radius",
            [("/spans/s1/readings/rows/r1/radius", None)],
        ),
        (ODD["worn"], "twin", "There is no twin", [("/condition/twin", "no twin")]),
        (ODD["worn"], "not_planned", "Replace it whole", [("/condition/decision/choice", "replace whole")]),
        (
            bent(row(100, 90), end_b=replace(DOUBLE, proved=False)),
            "prove_nut",
            "It runs home by hand",
            [("/port_b/proved", True)],
        ),
        (
            bent(row(100, 90), spare=Length()),
            "no_spare",
            "Add 25 mm",
            [("/spans/s1/spare/exact_mm", None), ("/spans/s1/spare/text", "25 mm")],
        ),
    ],
)  # fmt: skip
def test_a_fix_changes_just_what_it_says(made, code, label, changes):
    """Legs end on the next half millimetre that is long enough; from the corner, 15 mm lie in the bend."""
    fix = told(made, code).fix
    assert fix.label == label
    assert [(change.path, change.value) for change in fix.changes] == changes
    assert code not in {f.code for f in plan_line(with_fix(made, fix, KIT), KIT).findings}


@pytest.mark.parametrize(
    ("index", "side", "words"),
    [(0, "near", "on the tube"), (0, "far", "on the far spigot"), (1, "near", "on the near spigot")],
)
def test_words_say_what_a_hose_goes_on(index, side, words):
    """The first hose goes on the tube; its far end and a hose behind a part go on spigots."""
    size = {"near": Length(text="14 mm")} if side == "near" else {"far": Length(text="14 mm")}
    made = hosed("cooler", "steel-plated_3-8in_0.711", "bead", "cooler_3-8in", clamp="worm_12-20", **size)
    if index:
        beyond = (Component(what="adapter"), *end_of(made, "B").beyond)
        made = replace(made, end_b=replace(end_of(made, "B"), beyond=beyond))
    assert words in told(made, "hose_tight").title


@pytest.mark.parametrize(("side", "word"), [("near", "tube"), ("far", "spigot")])
def test_words_say_what_is_bare(side, word):
    bare = {"far": Length(text="8 mm"), "far_plain": True} if side == "far" else {}
    end = "bead" if side == "far" else "plain"
    made = hosed(
        "fuel-low",
        "steel-plated_5-16in_0.711",
        end,
        "fuel-low_5-16in",
        clamp="worm_12-20",
        clamps_each=1,
        **bare,
    )
    assert told(made, "one_clamp").title == f"One clamp on bare {word}"
