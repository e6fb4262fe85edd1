"""What flows in the line, how hard and how hot: the service's usual figures, or what was typed."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from bendrel.core.line.document import Line
from bendrel.core.line.resolve import Problem
from bendrel.core.parts.fluid import ATMOSPHERE_KPA, Fluid, head_kpa
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.service import Duty
from bendrel.core.record import record
from bendrel.core.units.lengths import is_blank, length_mm
from bendrel.core.units.notation import Unit, UnitError, parse_length
from bendrel.core.units.quantities import format_pressure, parse_flow, parse_pressure, parse_temperature


@record
class Carried:
    """The duty that the line is judged by, its fluid, and the old line's bore in mm where it was
    measured. `usual_kpa` is what the service usually works at, `usual_hot_c` how hot it usually gets; `own`
    names what was typed rather than usual."""

    duty: Duty
    usual_kpa: float
    usual_hot_c: float
    fluid: Fluid
    old_bore_mm: float | None
    own: tuple[str, ...]


def carried(line: Line, kit: Kit, problems: list[Problem]) -> Carried | None:
    """The duty of `line`; None while nobody has said what it carries. What cannot be read is a problem,
    and the usual figure stands in for it."""
    service = kit.services.get(line.service)
    if service is None or service.duty is None:
        return None
    asked, duty, own = line.carries, service.duty, []

    def read(name: str, text: str, parse: Callable[[str], float]) -> float | None:
        if not text.strip():
            return None
        try:
            value = parse(text)
        except UnitError as error:
            problems.append(Problem(path=f"/carries/{name}", message=str(error)))
            return None
        own.append(name)
        return value

    pressure = read("pressure", asked.pressure, parse_pressure)
    if pressure is not None and duty.vacuum and pressure > ATMOSPHERE_KPA:
        problems.append(Problem(path="/carries/pressure", message=_no_vacuum(asked.pressure, line.unit)))
        own.remove("pressure")
        pressure = None
    if pressure is not None:
        share = duty.test_kpa / duty.working_kpa
        duty = replace(duty, working_kpa=pressure, test_kpa=pressure * share)
    temperature = read("temperature", asked.temperature, parse_temperature)
    if temperature is not None:
        duty = replace(duty, hot_c=temperature)
    flow = read("flow", asked.flow, parse_flow)
    if flow is not None:
        duty = replace(duty, flow_lpm=flow)
    fluid = kit.fluids[duty.fluid]
    if asked.fluid:
        chosen = kit.fluids.get(asked.fluid)
        if chosen is None:
            message = f"The catalogue has no fluid “{asked.fluid}”; choose one that is listed."
            problems.append(Problem(path="/carries/fluid", message=message))
        else:
            fluid = chosen
            own.append("fluid")
    driven = read("drives", asked.drives, lambda text: _drives_kpa(text, fluid, line.unit))
    if driven is not None:
        duty = replace(duty, available_kpa=driven)
    return Carried(
        duty=duty,
        usual_kpa=service.duty.working_kpa,
        usual_hot_c=service.duty.hot_c,
        fluid=fluid,
        old_bore_mm=_old_bore(line, problems),
        own=tuple(own),
    )


_MOST_HEAD_MM = 20_000.0


def _drives_kpa(text: str, fluid: Fluid, unit: Unit) -> float:
    """What drives the flow, from a pressure or from the head of fluid over it. Raises UnitError."""
    try:
        return parse_pressure(text)
    except UnitError:
        pass
    try:
        head_mm = parse_length(text, unit)
    except UnitError:
        head_mm = 0.0
    if not 0 < head_mm <= _MOST_HEAD_MM:
        raise UnitError(f"“{text[:20]}” drives nothing: write a pressure like 20 kPa, or a head like 400 mm.")
    return head_kpa(fluid, head_mm)


def _no_vacuum(text: str, unit: Unit) -> str:
    most = format_pressure(ATMOSPHERE_KPA, unit)
    told = f"“{text[:20]}” is no vacuum: nothing stands more than {most} below the air"
    return f"{told}; type how far below it is."


def _old_bore(line: Line, problems: list[Problem]) -> float | None:
    bore = line.carries.old_bore
    if is_blank(bore):
        return None
    try:
        return length_mm(bore)
    except UnitError as error:
        problems.append(Problem(path="/carries/old_bore", message=str(error)))
        return None
