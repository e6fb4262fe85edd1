"""Use cases of fitting, proving and signing off a line: everything that the two stages show."""

from __future__ import annotations

from dataclasses import replace
from datetime import date, datetime, timedelta
from typing import Annotated

from annotated_types import MaxLen

from bendrel.core.findings import Source
from bendrel.core.joints.closing import LineJoint, joints_of
from bendrel.core.line.document import Line
from bendrel.core.line.proving import Hold, SignOff
from bendrel.core.line.signed import signed_stands, stamp_of
from bendrel.core.parts.fluid import ATMOSPHERE_KPA
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.proving import Bleeding, Watch, WrenchRule
from bendrel.core.parts.service import WorkStage
from bendrel.core.parts.step import Step
from bendrel.core.plan.model import Plan
from bendrel.core.plan.planner import plan_line
from bendrel.core.record import record
from bendrel.core.units.quantities import parse_counter
from bendrel.core.work.asked import HoldProof, proof_of
from bendrel.core.work.balancing import balance_of
from bendrel.core.work.closing import work_of
from bendrel.core.work.follow_up import Due, due_of, first_follow_ups
from bendrel.core.work.holding import HoldProposal, HoldUnread, air_of, hold_test, proposed
from bendrel.core.work.proof.balance import Balance
from bendrel.core.work.proof.hold import MOST_ROWS, HoldError, HoldResult, HoldTest, judge_hold, leak_words
from bendrel.core.work.put_on import PutOn
from bendrel.core.work.sign_off import InTheWay, in_the_way, last_hold, places_of, step_done, still_on_now
from bendrel.core.work.standing import JointStanding, standing_of
from bendrel.services.errors import NotFound, Refused
from bendrel.services.line.lines import Lines, OpenLine
from bendrel.services.proof.proof_runs import ProofRuns
from bendrel.services.shelf.shelf import Shelf

MOST_KEPT = 200


@record
class HoldTold:
    """What is said of one hold test: its result, in what it is `short` of what was asked for and whether it
    `counts` as the proof, or why there is no result yet. `limit_kpa` (absolute) must not be reached within
    `asked_s`, with the air at `air_kpa`."""

    id: str
    result: HoldResult | None = None
    short: tuple[str, ...] = ()
    counts: bool = False
    leak: str = ""
    problem: str = ""
    readings: int = 0
    limit_kpa: float | None = None
    air_kpa: float = ATMOSPHERE_KPA
    asked_s: float | None = None


@record
class Closing:
    """All that the stages Fit and Prove show of a line. `done` are ids of steps, `on` of things that are on
    the machine."""

    joints: tuple[LineJoint, ...]
    standing: tuple[JointStanding, ...]
    steps: tuple[Step, ...]
    done: tuple[str, ...]
    put_on: tuple[PutOn, ...]
    on: tuple[str, ...]
    places: tuple[str, ...]
    orders: tuple[Bleeding, ...]
    balance: Balance | None
    volume_ml: float | None
    hold: HoldProposal | None
    holds: tuple[HoldTold, ...]
    in_the_way: tuple[InTheWay, ...]
    signed_stands: bool | None
    competent: bool
    due: tuple[Due, ...]
    cautions: dict[WorkStage, tuple[str, ...]]
    wrench: WrenchRule
    watch: Watch
    rules_version: str
    source: Source


@record
class SignDraft:
    """Who signs, who tested it where somebody competent must, and how far the machine had run."""

    by: Annotated[str, MaxLen(60)]
    competent: Annotated[str, MaxLen(60)] = ""
    day: Annotated[str, MaxLen(10)]
    km: Annotated[str, MaxLen(24)] = ""
    hours: Annotated[str, MaxLen(24)] = ""
    note: Annotated[str, MaxLen(400)] = ""


class Closings:
    """Use cases on closing a line. Raises NotFound, Refused and Stale."""

    def __init__(self, lines: Lines, runs: ProofRuns, shelf: Shelf) -> None:
        self._lines = lines
        self._runs = runs
        self._shelf = shelf
        self._judged: dict[
            tuple[Hold, int, float | None, HoldProposal | None], tuple[HoldTest, HoldProof]
        ] = {}

    def of(self, line: Line, line_id: str, today: date) -> Closing:
        """Everything about closing and proving `line`, whose recorded runs are those of `line_id`."""
        kit = self._shelf.kit
        if line.service not in kit.proving.by_service:
            raise Refused(f"The catalogue has no service “{line.service[:40]}”; choose one that is listed.")
        plan = plan_line(line, kit)
        rule = kit.proving.by_service[line.service]
        joints = joints_of(line, kit)
        standing = tuple(standing_of(line, kit, joint) for joint in joints)
        work = work_of(line, kit, joints)
        volume = _volume(plan)
        carried = plan.chosen.carried if plan.chosen else None
        duty = carried.duty if carried else kit.services[line.service].duty
        proposal = proposed(line, kit, duty, _weakest(plan))
        judged = [self._hold(line, line_id, hold, proposal, volume, kit) for hold in line.proving.holds]
        told = tuple(one for one, _ in judged)
        proofs = {one.id: proof for one, proof in judged if proof is not None}
        named = {joint.id: joint for joint in joints}
        newest = last_hold(line, proofs)
        held = newest is not None and newest.counts
        done = tuple(
            step.id for step in work.steps if step_done(line, kit, step, named.get(step.joint), held)
        )
        return Closing(
            joints=joints,
            standing=standing,
            steps=work.steps,
            done=done,
            put_on=work.put_on,
            on=tuple(thing.id for thing in still_on_now(work, done)),
            places=places_of(line, kit),
            orders=rule.orders,
            balance=balance_of(line, kit, volume),
            volume_ml=volume,
            hold=proposal,
            holds=told,
            in_the_way=in_the_way(line, kit, joints, standing, work, plan.findings, proofs),
            signed_stands=signed_stands(line),
            competent=rule.competent,
            due=due_of(line, today),
            cautions={
                stage: tuple(c.text for c in kit.cautions_at(line.service, stage))
                for stage in ("fit", "prove")
            },
            wrench=kit.proving.wrench,
            watch=kit.proving.watch(line.service),
            rules_version=kit.rules_version,
            source=rule.source,
        )

    def sign(self, line_id: str, version: int, draft: SignDraft) -> OpenLine:
        """Sign a line off as it is saved. Refused with what stands in the way; UnitError for a counter that
        is no number."""
        opened = self._lines.open(line_id)
        line = opened.document
        if not draft.by.strip():
            raise Refused("A sign-off needs a name: who stands for this line?")
        day = _day(draft.day)
        proving = line.proving
        looks = (event.at for work in proving.joints for event in work.events)
        noted = (*(one.at for one in proving.done), *looks)
        last = max((at[:10] for at in noted), default="")
        if last and day.isoformat() < last:
            raise Refused(f"The sign-off is dated {day}, before what was last done at it on {last}.")
        # the shop's clock and the person's may stand a day apart
        if day > date.today() + timedelta(days=1):
            raise Refused(f"The sign-off is dated {day}, which is still to come.")
        said = self.of(line, line_id, day)
        if said.in_the_way:
            first = "; ".join(one.text for one in said.in_the_way[:3])
            more = len(said.in_the_way) - 3
            raise Refused(f"Not signed off. In the way: {first}{f'; and {more} more' if more > 0 else ''}.")
        if said.competent and not draft.competent.strip():
            raise Refused("This service is tested by someone competent before it is used: name them.")
        signed = SignOff(
            by=draft.by.strip(),
            at=day.isoformat(),
            competent=draft.competent.strip(),
            note=draft.note.strip(),
            km=parse_counter(draft.km, "kilometres"),
            hours=parse_counter(draft.hours, "hours"),
            rules=said.rules_version,
            stamp=stamp_of(line),
        )
        rule = self._shelf.kit.proving.by_service[line.service]
        later = line.proving.follow_ups or first_follow_ups(line, rule, day)
        proving = replace(proving, signed=signed, follow_ups=later)
        return self._lines.save(line_id, version, replace(line, proving=proving), signing=True)

    def _hold(
        self,
        line: Line,
        line_id: str,
        hold: Hold,
        proposal: HoldProposal | None,
        volume: float | None,
        kit: Kit,
    ) -> tuple[HoldTold, HoldProof | None]:
        readings = len(hold.rows)
        try:
            if hold.run:
                run = self._runs.open(hold.run)
                if run.line_id != line_id:
                    raise Refused("This run was recorded for another line; it proves nothing here.")
                readings = run.readings
            key = (hold, readings, volume, proposal)
            if key not in self._judged:
                if len(self._judged) >= MOST_KEPT:
                    self._judged.clear()
                self._judged[key] = self._judge(line, hold, proposal, volume, kit)
            test, proof = self._judged[key]
        except (HoldUnread, HoldError, Refused, NotFound) as error:
            return HoldTold(id=hold.id, problem=str(error), readings=readings), None
        told = HoldTold(
            id=hold.id, result=proof.result, leak=leak_words(proof.result), readings=readings,
            limit_kpa=test.threshold_kpa, air_kpa=test.air_kpa, asked_s=test.hold_s,
            short=proof.short, counts=proof.counts,
        )  # fmt: skip
        return told, proof

    def _judge(
        self, line: Line, hold: Hold, proposal: HoldProposal | None, volume: float | None, kit: Kit
    ) -> tuple[HoldTest, HoldProof]:
        """The test without its readings, and what it proves."""
        recorded = None
        if hold.run:
            read = self._runs.readings(hold.run, air_of(hold))
            # a run of many hours is judged on every second or third reading
            every = slice(None, None, 1 + len(read.times_s) // MOST_ROWS)
            warm = read.temperatures_c
            recorded = (read.times_s[every], read.pressures_kpa[every], warm[every] if warm else None)
        test = hold_test(line, hold, proposal, volume, recorded, kit.proving.gas)
        result = judge_hold(test, kit.proving.hold)
        proof = proof_of(hold, test, result, proposal, kit.proving.asked, line.unit)
        return replace(test, times_s=(), pressures_kpa=(), temperatures_c=None), proof


def _weakest(plan: Plan) -> float | None:
    strength = plan.chosen.strength if plan.chosen else None
    known = [e.allowed_kpa for e in strength.elements if e.allowed_kpa is not None] if strength else []
    return min(known, default=None)


def _volume(plan: Plan) -> float | None:
    """What the line holds in ml; None where nothing of it is known."""
    flowing = plan.chosen.flowing if plan.chosen else None
    return (flowing.volume_ml or None) if flowing else None


def _day(text: str) -> date:
    try:
        return datetime.fromisoformat(text).date()
    except ValueError as error:
        raise Refused(f"“{text[:20]}” is no date; write it like 2026-11-27.") from error
