"""Speed of proving, for `make bench` only. Aims: two hours of a gauge at ten readings a second judged in
300 ms, the stages Fit and Prove of a line answered in 60 ms, a run thinned out for its chart in 30 ms."""

from datetime import date

import numpy as np

from bendrel.core.work.proof.hold import HoldTest, judge_hold
from bendrel.services.job.jobs import JobDraft
from bendrel.services.proof.proof_runs import thinned
from tests.lines import bent, row

TIMES = np.arange(0, 7200, 0.1)
SHOWN = 300 - 0.0005 * TIMES + np.random.default_rng(1).normal(0, 0.4, len(TIMES))


def test_two_hours_of_a_gauge(benchmark, kit):
    held = HoldTest(
        kind="gas", volume_ml=900, times_s=TIMES.tolist(), pressures_kpa=SHOWN.tolist(), threshold_kpa=290
    )
    assert benchmark(judge_hold, held, kit.proving.hold).verdict == "holds"


def test_the_stages_of_a_line(benchmark, shop):
    job = shop.jobs.create(JobDraft(name="Tender"))
    opened = shop.lines.add(job.id, bent(*(row(100, 45) for _ in range(12))))
    today = date(2026, 11, 27)
    assert benchmark(shop.closings.of, opened.document, opened.id, today).steps


def test_a_chart_of_two_hours(benchmark):
    data = np.stack([TIMES, SHOWN, np.full(len(TIMES), 20.0)], axis=1)
    assert len(benchmark(thinned, data, 400)) == 400
