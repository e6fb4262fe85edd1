"""Replace, replace from a separation point, or splice: the arguments for and against."""

from __future__ import annotations

from collections.abc import Callable, Mapping

from bendrel.core.line.condition import Condition, EndState
from bendrel.core.parts.splicing import Argument, Choice
from bendrel.core.record import record

CHOICES: tuple[Choice, ...] = ("replace whole", "replace from a separation point", "splice")


@record
class Facts:
    """What the arguments look at. `ends` are the two old ends by all that is known; `places_mm` are the
    damaged spans along the tube; those further apart than `apart_mm` are separate places."""

    safety_critical: bool
    condition: Condition
    ends: tuple[EndState, EndState]
    places_mm: tuple[tuple[float, float], ...]
    developed_mm: float | None
    apart_mm: float


@record
class Recommendation:
    """The choice with the most for it, every argument that applies, and how the choices stand."""

    choice: Choice
    arguments: tuple[Argument, ...]
    weights: Mapping[Choice, float]


def recommend(facts: Facts, arguments: tuple[Argument, ...]) -> Recommendation:
    """Weigh the arguments that apply to `facts`. Of equals the more thorough choice wins.

    Source: common practice; each argument carries its own source and weight.
    """
    applying = tuple(argument for argument in arguments if _APPLIES[argument.id](facts))
    weights = {choice: sum((a.weight for a in applying if a.choice == choice), 0.0) for choice in CHOICES}
    best = max(CHOICES, key=lambda choice: (weights[choice], -CHOICES.index(choice)))
    return Recommendation(choice=best, arguments=applying, weights=weights)


def _apart(facts: Facts) -> int:
    """How many separate places are damaged."""
    count, reach = 0, float("-inf")
    for start, end in sorted(facts.places_mm):
        if start > reach + facts.apart_mm:
            count += 1
        reach = max(reach, end)
    return count


def _near_one_end(facts: Facts) -> bool:
    """All damage lies in the first or in the last third."""
    if facts.developed_mm is None or not facts.places_mm:
        return False
    third = facts.developed_mm / 3
    return all(end <= third for _, end in facts.places_mm) or all(
        start >= 2 * third for start, _ in facts.places_mm
    )


def _seized_ends(facts: Facts) -> int:
    """How many of the two ends do not come undone; one that nobody tried is not said to be seized."""
    return sum(state in ("seized", "seized in an expensive part") for state in facts.ends)


def _seized(facts: Facts) -> bool:
    return _seized_ends(facts) == 2


def _one_seized(facts: Facts) -> bool:
    return _seized_ends(facts) == 1


def _expensive(facts: Facts) -> bool:
    return "seized in an expensive part" in facts.ends


_APPLIES: Mapping[str, Callable[[Facts], bool]] = {
    "safety_replace": lambda f: f.safety_critical,
    "safety_splice": lambda f: f.safety_critical,
    "many_places": lambda f: _apart(f) > 1,
    "one_place": lambda f: _apart(f) == 1,
    "brittle_all_over": lambda f: "brittle" in f.condition.reasons or f.condition.cause == "age",
    "upgrade": lambda f: "upgrade" in f.condition.reasons,
    "ends_free": lambda f: f.ends == ("comes undone", "comes undone"),
    "ends_seized": _seized,
    "expensive_part": _expensive,
    "one_end_seized_far_damage": lambda f: _one_seized(f) and _near_one_end(f),
    "part_not_to_be_had": lambda f: not f.condition.part_available,
    "route_dangerous": lambda f: "dangerous route" in f.condition.reasons,
    "school_economy": lambda f: f.condition.school == "economy",
    "school_one_piece": lambda f: f.condition.school == "one clean piece",
}
"""When an argument applies; its words, weight and source are in the catalogue."""

ARGUMENT_IDS = frozenset(_APPLIES)
