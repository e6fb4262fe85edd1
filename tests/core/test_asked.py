"""A hold test is a proof when it is the one that was asked for. Limits from both sides; figures by hand.

Source: what each service asks for (10 bar for ten minutes of an air brake and so on), common practice.
"""

from __future__ import annotations

from dataclasses import replace

import pytest

from bendrel.core.joints.closing import joints_of
from bendrel.core.line.document import Line
from bendrel.core.line.proving import Hold, HoldRow
from bendrel.core.parts.proving import HoldKind
from bendrel.core.work.asked import HoldProof, proof_of
from bendrel.core.work.closing import work_of
from bendrel.core.work.holding import HoldProposal, HoldUnread, hold_test, proposed
from bendrel.core.work.proof.hold import judge_hold
from bendrel.core.work.sign_off import in_the_way
from bendrel.core.work.standing import standing_of
from tests.core.test_closing import KIT, line, tube

DONE = {"gas": "above the air", "liquid": "above the air", "vacuum": "below the air"}


def asked_of(service: str) -> HoldProposal:
    found = proposed(line(service, (tube("s1"),)), KIT, KIT.services[service].duty, None)
    assert found is not None
    return found


def held(service: str, kind: HoldKind, bar: float, lasting: float, **more: str) -> HoldProof:
    """A test that stands still at `bar` over `lasting` minutes, read every half minute by eye."""
    rows = tuple(
        HoldRow(minutes=f"{lasting * k / 20:g}", pressure=f"{bar - 0.0001 * (k % 2):g} bar")
        for k in range(21)
    )
    hold = Hold(kind=kind, rows=rows, reads=DONE[kind], volume="500 ml", **more)  # type: ignore[arg-type]
    made, asked = line(service, (tube("s1"),)), asked_of(service)
    test = hold_test(made, hold, asked, None, None, KIT.proving.gas)
    return proof_of(hold, test, judge_hold(test, KIT.proving.hold), asked, KIT.proving.asked, made.unit)


@pytest.mark.parametrize(("service", "kind", "bar", "minutes"), [
    ("air-brake", "gas", 10.0, 10), ("air-brake", "gas", 9.6, 10), ("air", "gas", 10.0, 12),
    ("vacuum", "vacuum", 0.6, 5), ("vacuum-actuator", "vacuum", 0.8, 6),
    ("fuel-low", "liquid", 0.35, 10), ("coolant", "liquid", 1.0, 10), ("brake", "liquid", 60.0, 5),
])  # fmt: skip
def test_the_test_that_was_asked_for_is_a_proof(
    service: str, kind: HoldKind, bar: float, minutes: float
) -> None:
    """At the pressure, for the time: it counts, and nothing is said against it."""
    proof = held(service, kind, bar, minutes)
    assert proof.result.verdict == "holds"
    assert proof.short == ()
    assert proof.counts


@pytest.mark.parametrize(("service", "kind", "bar", "minutes", "more", "word"), [
    ("air-brake", "gas", 0.5, 10, {}, "stood at 0.50 bar"),
    ("air-brake", "gas", 9.4, 10, {}, "stood at 9.40 bar"),
    ("air-brake", "gas", 10, 1, {"minutes": "1"}, "watched for 1.0 min"),
    ("air-brake", "gas", 10, 9.7, {}, "watched for 9.7 min"),
    ("air-brake", "gas", 10, 10, {"threshold": "5 bar"}, "50% go"),
    ("air-brake", "liquid", 10, 10, {"threshold": "9.5 bar", "minutes": "10"}, "a gas is asked for"),
    ("vacuum", "vacuum", 0.05, 5, {"threshold": "0.04 bar"}, "stood at 0.05 bar"),
    ("vacuum", "gas", 0.6, 5, {"threshold": "0.5 bar", "minutes": "5"}, "vacuum is asked for"),
    ("fuel-low", "gas", 1.9, 10, {"threshold": "1.8 bar", "minutes": "10"}, "a liquid is asked for"),
    ("brake", "liquid", 10.0, 5, {}, "stood at 10.0 bar"),
])  # fmt: skip
def test_what_is_less_than_was_asked_proves_nothing(
    service: str, kind: HoldKind, bar: float, minutes: float, more: dict[str, str], word: str
) -> None:
    """It holds and is no proof; with a reason it is taken on."""
    proof = held(service, kind, bar, minutes, **more)
    assert proof.result.verdict == "holds"
    assert any(word in text for text in proof.short), proof.short
    assert not proof.counts
    assert replace(proof, taken="the compressor gives no more; the local test follows").counts
    assert not replace(proof, taken="   ").counts


def test_gas_over_two_bar_in_a_fuel_line_is_refused() -> None:
    """It is no proof with any reason: it is not judged at all."""
    with pytest.raises(HoldUnread, match=r"2\.00 bar at most"):
        held("fuel-low", "gas", 2.2, 10, instead="there was no fuel in it")


def test_a_leak_is_not_talked_away() -> None:
    """A reason takes on what is less than was asked, never what leaks."""
    proof = held("air-brake", "gas", 10, 10, instead="good enough")
    assert not replace(proof, result=replace(proof.result, verdict="leaks")).counts


def test_the_sign_off_says_what_the_test_is_short_of() -> None:
    """Air brake at half a bar: in the way, with the figures."""
    made: Line = replace(line("air-brake", (tube("s1"),)))
    proving = replace(made.proving, holds=(Hold(id="h1", kind="gas"),))
    made = replace(made, proving=proving)
    joints = joints_of(made, KIT)
    standing = tuple(standing_of(made, KIT, joint) for joint in joints)
    work = work_of(made, KIT, joints)
    proof = held("air-brake", "gas", 0.5, 1, minutes="1")
    told = [one.text for one in in_the_way(made, KIT, joints, standing, work, (), {"h1": proof})]
    found = [text for text in told if text.startswith("The hold test is not the one that is asked for")]
    assert len(found) == 1
    assert "10.0 bar is asked for" in found[0]
    taken = replace(proof, taken="the manual's own test was done with the tester, 9.8 bar, 10 min")
    told = [one.text for one in in_the_way(made, KIT, joints, standing, work, (), {"h1": taken})]
    assert told
    assert not any("hold test" in text.lower() for text in told)


HYDRAULIC, AIR, SERVO = "brake", "air-brake", "vacuum"


@pytest.mark.parametrize(("service", "words"), [
    (HYDRAULIC, ("bleed", "pedal hard", "competent")),
    (AIR, ("builds up", "full application", "low pressure", "spring brakes", "chamber", "competent")),
    (SERVO, ("check valve", "strokes", "pedal sinks", "competent")),
])  # fmt: skip
def test_brakes_are_proved_as_brakes(service: str, words: tuple[str, ...]) -> None:
    """Must-steps of their own, somebody competent named, and what they hold."""
    rule = KIT.proving.by_service[service]
    must = " ".join(step.text for step in rule.steps if step.must).lower()
    for word in words:
        assert word in must, word
    assert rule.competent
    assert service == HYDRAULIC or (rule.hold is not None and rule.hold.must)
    assert rule.services == (service,)


def test_the_makers_order_of_bleeding_comes_first() -> None:
    """Every layout names four wheels once; the manual's own order is typed."""
    orders = KIT.proving.by_service["brake"].orders
    assert orders[0].places == ()
    assert "manual" in orders[0].name
    layouts = [order for order in orders if order.places]
    assert {order.id for order in layouts} == {"front-rear", "diagonal", "nearest"}
    for order in layouts:
        assert len(set(order.places)) == 4
    by_id = {order.id: [place[0] for place in order.places] for order in layouts}
    assert by_id == {"front-rear": list("rrff"), "diagonal": list("rfrf"), "nearest": list("ffrr")}
    text = next(s.text for s in KIT.proving.by_service["brake"].steps if s.id == "wheel")
    assert "maker's order" in text
    assert "valve block" in text
