"""What is done while a part is made so that it comes out more exact."""

from __future__ import annotations

from bendrel.core.record import record


@record
class ExactWays:
    """`bend_short`: each bend is pulled a little short, read, and finished by what it lacks. `plane_first`:
    the plane is read before a bend is pulled. `fine_gauge`: angles and planes are read to a tenth of a
    degree. `fit_rounds`: the part is offered to its ports, end B is read, and it is tweaked by that."""

    bend_short: bool = False
    plane_first: bool = False
    fine_gauge: bool = False
    fit_rounds: bool = False
