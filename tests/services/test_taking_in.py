"""Taking a job in: who pays for what, and what comes first on the board."""

from datetime import date

import pytest

from bendrel.core.line.condition import Condition
from bendrel.services.errors import NotFound, Refused
from bendrel.services.job.bookings import BookingDraft
from bendrel.services.job.jobs import JobDraft


def totals(ledger):
    return {total.payer: (total.minutes, total.material_cents) for total in ledger.totals}


def test_the_shops_mistakes_never_reach_the_customers_total(shop):
    job = shop.jobs.create(JobDraft(name="Fire tender"))
    for account, minutes, cents in (("planned", 60, 1000), ("extra", 30, 500), ("own mistake", 25, 410)):
        ledger = shop.bookings.book(
            job.id, BookingDraft(account=account, what="work", minutes=minutes, material_cents=cents)
        )
    assert totals(ledger) == {"customer": (90, 1500), "shop": (25, 410)}
    shop.bookings.strike(ledger.bookings[1].id)
    assert totals(shop.bookings.ledger(job.id))["customer"] == (60, 1000)
    shop.bookings.strike(ledger.bookings[1].id, back=True)
    assert totals(shop.bookings.ledger(job.id))["customer"] == (90, 1500)


def test_bookings_that_make_no_sense_are_refused(shop):
    with pytest.raises(NotFound):
        shop.bookings.book("nowhere", BookingDraft(what="work"))
    with pytest.raises(NotFound):
        shop.bookings.strike("nowhere")
    job = shop.jobs.create(JobDraft(name="Fire tender"))
    with pytest.raises(Refused):
        shop.bookings.book(job.id, BookingDraft(what="  "))


def test_the_board_goes_by_what_happens_next(shop):
    """Off the road before everything, then the nearest promise; in a job, the urgent line first."""
    for name, promised in (("no promise", None), ("later", date(2027, 2, 1)), ("sooner", date(2027, 1, 1))):
        shop.jobs.create(JobDraft(name=name, promised=promised))
    waiting = shop.jobs.create(JobDraft(name="waiting"))
    for name, urgency in (("b", "can wait"), ("a", "off the road"), ("c", "soon")):
        shop.lines.create(waiting.id, name, taken_in=Condition(urgency=urgency))
    board = shop.jobs.board()
    assert [job.name for job in board] == ["waiting", "sooner", "later", "no promise"]
    assert [line.name for line in board[0].lines] == ["a", "c", "b"]


def test_a_parked_job_says_what_it_waits_for_and_stands_last(shop):
    for name in ("parked", "in work"):
        shop.jobs.create(JobDraft(name=name, promised=date(2027, 1, 1)))
    job = next(job for job in shop.jobs.board() if job.name == "parked")
    draft = JobDraft(name="parked", promised=job.promised, parked=" cylinder ordered ", tried="bled twice")
    shop.jobs.change(job.id, job.version, draft)
    last = shop.jobs.board()[-1]
    assert (last.name, last.parked, last.tried) == ("parked", "cylinder ordered", "bled twice")


def test_a_line_is_taken_in_with_its_reason_and_service(shop):
    job = shop.jobs.create(JobDraft(name="Fire tender"))
    taken = Condition(reasons=("brittle",), urgency="soon")
    line = shop.lines.create(job.id, "Vacuum to booster", service="vacuum", taken_in=taken)
    assert (line.document.service, line.document.condition.reasons) == ("vacuum", ("brittle",))
    with pytest.raises(Refused, match="no service “steam”"):
        shop.lines.create(job.id, "Steam", service="steam")
