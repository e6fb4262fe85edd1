"""How a line of one service is filled, proved and looked at again: the catalogue's rows."""

from __future__ import annotations

from typing import Annotated, Literal

from annotated_types import Ge, Gt

from bendrel.core.findings import Source
from bendrel.core.record import record

Rung = Literal["nip", "re-seat", "another clamp", "re-make"]

HoldKind = Literal["vacuum", "gas", "liquid"]


@record
class HoldRules:
    """What the judgement goes by, from the catalogue. `settle_s`: settling times looked at. `settle_share`:
    what may settle, of what stood above the air. `lost_share`: what may be gone at the end without being
    called a loss. `sure`: how often the true leak lies within the doubt. `fall_share`: without a threshold,
    the doubt of the fall that is small enough. `strays`: how far readings may stray from any course.
    `most_wait`: how many times its length a run is proposed to go on at most. `warm_c`: what a shut-in
    liquid's temperature may move before that is said, `warm_gas_c` a gas's. `drift_c` is what a gas may warm
    or cool unseen where nobody measured it, `drift_share` the part of what was measured that the gas itself
    may not have followed. `nothing_share` of the air's pressure is nothing held,
    `emptied_share` of what was set cannot be gone by settling. `model_share`: how exactly the kinds of leak
    describe a real one. `say_so`: how sure it must be that a limit is not reached. `latest_share`: from where
    on a run is judged at the latest."""

    settle_s: tuple[float, ...]
    settle_share: float
    lost_share: float
    sure: float
    fall_share: float
    strays: float
    most_wait: float
    warm_c: float
    warm_gas_c: float
    drift_c: float
    drift_share: float
    nothing_share: float
    emptied_share: float
    model_share: float
    say_so: float
    latest_share: float
    source: Source


Asked = Literal["into", "out", "level", "air", "seconds", "value"]
Part = Literal["open", "fill", "function"]
Closes = Literal["nut", "sleeve", "washer", "taper", "clamp", "push", "crimp", "latch", "maker"]
"""How a joint seals: metal to metal under a nut, a sleeve on the tube, a washer or ring, on its thread, a
clamped hose, a hose that holds itself, a crimp, a latch, or as the maker of a part says."""


@record
class ProvingStep:
    """One step of a guided run. `part`: with the last joint open, with the line closed, or a proof of
    function. `asks` is what is kept of it; `again` says that it is repeated until nothing changes,
    `by_place` that it is done once at each place. Without a `must` nothing is signed off; `safety` ones stand
    out. `expects` is what is worked out beforehand and compared. One that is done with a joint open says how
    what comes is let come (`lets`) and stopped again (`stops`); `if_fitted` is about a thing that not every
    machine has."""

    id: str
    part: Part
    text: str
    asks: tuple[Asked, ...] = ()
    again: bool = False
    by_place: bool = False
    must: bool = False
    safety: bool = False
    expects: Literal["", "strokes"] = ""
    lets: str = ""
    stops: str = ""
    if_fitted: bool = False

    def __post_init__(self) -> None:
        if self.part == "open" and not (self.lets and self.stops):
            raise ValueError(
                f"The step {self.id} is done with a joint open: say how it is let come and stopped."
            )


@record
class Bleeding:
    """An order in which the wheels or consumers are bled: its name, when it is the one, and the places (none:
    they are typed, as the machine's own manual gives them)."""

    id: str
    name: str
    reason: str
    places: tuple[str, ...]


@record
class HoldOffer:
    """The hold test of a service: with what, at which pressure (kPa above or below the air; None: the
    service's own), which share of it must still stand after how long. `own_pressure` says that the line
    works with gas at that pressure, so that a gas may stand there."""

    kind: HoldKind
    must: bool
    share: Annotated[float, Gt(0)]
    minutes: Annotated[float, Gt(0)]
    text: str
    kpa: float | None = None
    own_pressure: bool = False


@record
class Second:
    """When the second look is due, whichever comes first."""

    km: Annotated[int, Ge(0)] = 0
    hours: Annotated[int, Ge(0)] = 0
    cycles: Annotated[int, Ge(0)] = 0
    days: Annotated[int, Ge(0)] = 0


@record
class ProvingRule:
    """All of it for some services. `flush` is how it is flushed, blank where it is not; `competent` says that
    somebody competent must test it; `balance` that volumes are balanced, `hot` that it is looked at once
    more hot, `orders` the usual orders of bleeding, the first of them where nobody has said which; `watch`
    what its owner is told to watch. `watched` is the id of how its joints are looked at. `relieve` is how
    pressure and heat are let off before a closed joint is touched again, blank where neither stands in it."""

    id: str
    services: tuple[str, ...]
    flush: str
    blow: bool
    steps: tuple[ProvingStep, ...]
    second: Second
    source: Source
    hot: bool
    competent: bool = False
    balance: bool = False
    relieve: str = ""
    orders: tuple[Bleeding, ...] = ()
    watch: tuple[str, ...] = ()
    watched: str = "cloth"
    hold: HoldOffer | None = None


@record
class Ladder:
    """What a weep is answered with, in order, at joints that close in one of some ways."""

    joints: tuple[Closes, ...]
    rungs: tuple[Rung, ...]
    text: dict[Rung, str]
    source: Source


@record
class ClosingRule:
    """How a joint is closed that seals in one of some ways: what is looked at in its `port`, how it is begun
    by hand, how far it is tightened where nothing is published (`always`: in any case), what is done to it
    once more and why (`settles`), what goes on it: as said here, by the shop's answer to a `school`, or what
    hoses are wetted with (`wets`)."""

    closes: tuple[Closes, ...]
    port: str
    start: str
    tight: str
    source: Source
    screwed: bool = False
    always: bool = False
    again: str = ""
    settles: str = ""
    school: str = ""
    applied: str = ""
    why: str = ""
    wets: bool = False


JointState = Literal["open", "tight", "drying", "dry", "wet", "mended"]
"""How a joint stands: `open` until it was tightened, `tight` until it was dried, `drying` until it was looked
at after the wait; `mended` is one that leaked and was nipped or made anew, and has to be looked at again."""


@record
class Watch:
    """How closed joints are looked at: `each` by itself, or all of them by the hold test; how long one is
    left once it was dried (0: not at all). `lead` says how, `look` and `again` what is asked of a joint in
    the first and the second round, `rung` what follows a rung of the ladder. `begin` (blank: nothing is
    wiped first), `good`, `bad` and `early` are what a person says of it, `stands` the words for its states,
    where `look` is a wait that is over; `proved` is what the owner is told of it when it is signed off,
    `owner` what to watch for."""

    id: str
    each: bool
    wait_s: Annotated[float, Ge(0)]
    lead: str
    look: str
    again: str
    rung: str
    begin: str
    good: str
    bad: str
    early: str
    stands: dict[JointState | Literal["look"], str]
    proved: str
    source: Source
    owner: str = ""


@record
class BalanceRule:
    """What may be unexplained of a fill: a share of what went in, or so many ml, whichever is more; a turn
    that takes less than `taken_ml` has stopped taking."""

    share: float
    ml: float
    taken_ml: float
    source: Source


@record
class ThreadRule:
    """How much of a nut's length is thread (share), how many turns short are no more than stiff, and within
    how many turns a thread that binds may be the port's."""

    share: float
    short: float
    near: float
    source: Source


@record
class GasRule:
    """The most that a gas may stand at for a proof, in kPa above the air; a gauge may read `over_share` of
    it."""

    most_kpa: float
    over_share: float
    text: str
    source: Source


@record
class AskedRule:
    """How near a hold test must come to what was asked for: the shares of its pressure and its time, and how
    much more of what was set it may let go (as a share)."""

    pressure_share: float
    time_share: float
    limit_share: float
    source: Source


@record
class WrenchRule:
    """The shop's torque wrench from grip to square, and its crowfoot's offset, in mm."""

    length_mm: Annotated[float, Gt(0)]
    offset_mm: Annotated[float, Ge(0)]
    source: Source


@record
class ProvingRules:
    """Everything about proving that the catalogue says, rules by service."""

    hold: HoldRules
    watches: dict[str, Watch]
    balance: BalanceRule
    thread: ThreadRule
    gas: GasRule
    asked: AskedRule
    wrench: WrenchRule
    by_service: dict[str, ProvingRule]
    ladders: dict[Closes, Ladder]
    closings: dict[Closes, ClosingRule]

    def watch(self, service: str) -> Watch:
        """How the joints of a service are looked at. Raises KeyError for one that the catalogue lacks."""
        return self.watches[self.by_service[service].watched]
