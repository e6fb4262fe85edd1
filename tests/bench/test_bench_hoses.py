"""Speed of hoses and circuits, for `make bench` only. Aims: a shape 30 ms, a window 300 ms, a moving hose of
41 positions with its window 1.5 s, a circuit of 30 elements cold and hot 50 ms."""

import numpy as np

from bendrel.core.flow.circuit.flowing import flow_of_circuit
from bendrel.core.flow.circuit.joined import net_of, plan_job_line
from bendrel.core.hose.shape.laid import hose_shape
from bendrel.core.hose.shape.moving import over_travel, travel
from bendrel.core.hose.shape.windows import hose_windows, windows_over
from bendrel.core.line.document import JoinedTo, Port
from tests.core.test_circuits import BACK, SOURCE, hose, line, part
from tests.core.test_hose_moving import hinge
from tests.core.test_hose_shape import QUARTER, ends

IN_SPACE = ends((0, 0, 0), (1, 0, 0), (250, 120, 80), (0.3, 1, 0.5), straight=15)


def test_one_hose_in_space(benchmark):
    benchmark(hose_shape.__wrapped__, IN_SPACE, 400.0)


def test_one_flat_hose(benchmark):
    benchmark(hose_shape.__wrapped__, ends(*QUARTER), 340.0)


def test_a_window(benchmark):
    benchmark(hose_windows, IN_SPACE, 75.0, 700.0)


def test_a_moving_hose_of_41_positions_with_its_window(benchmark):
    def look():
        places = travel(IN_SPACE, (hinge((500, 120, 80), (0, 0.2, 1), -15, 15),))
        assert len(places) == 41
        over_travel(places, 450.0)
        return windows_over([place.ends for place in places], 60.0, 700.0)

    assert benchmark.pedantic(look, rounds=5).over


def test_a_circuit_of_30_elements_cold_and_hot(benchmark, kit):
    tees = [part(f"t{k}", "tee") for k in range(6)]
    spans = [hose("h0", 400)]
    for k, tee in enumerate(tees):
        spans += [tee, hose(f"h{k + 1}", 300 + 50 * k)]
    lines = {"m": line("main", *spans, a=SOURCE, b=BACK)}
    for k in range(6):
        pieces = (hose("a", 500), part("f", "filter", loses="0.05 bar"), hose("b", 200 + 100 * k))
        lines[f"b{k}"] = line(f"branch {k}", *pieces, a=Port(on=JoinedTo(line="m", span=f"t{k}")), b=BACK)
    net = net_of([plan_job_line(name, one, kit) for name, one in lines.items()], kit)
    (group,) = net.circuits()
    assert sum(len(one.elements) for one in net.stretches) + len(tees) >= 30
    flow = benchmark(flow_of_circuit, net, kit, group, costs=False)
    assert np.isfinite(flow.hot.total_lpm)
