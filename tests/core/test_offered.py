"""A trial fit as people type it."""

import pytest

from bendrel.core.bend.told.offered import TypedOffer, read_offers
from bendrel.core.line.landed import ByHand
from bendrel.core.line.proving import Proving
from bendrel.core.work.learnt import met_of
from tests.lines import bent, replace, row

BY_HAND = ByHand(mm=0.5, deg=0.5, eye_share=0.3)


@pytest.mark.parametrize("nothing", ["0", "0.0", "0 mm", '0"', "touches", "home"])
def test_nothing_is_nothing_however_it_is_written(nothing):
    (offer,), wrong = read_offers((TypedOffer(along=nothing, off=nothing),), BY_HAND, 4.76)
    assert (offer.along_mm, offer.off_mm, wrong) == (0, 0, ())


@pytest.mark.parametrize("nothing", ["0", "0.0", "0°", "square"])
def test_no_lean_is_none_however_it_is_written(nothing):
    (offer,), wrong = read_offers((TypedOffer(tilt=nothing),), BY_HAND, 4.76)
    assert (offer.tilt_deg, wrong) == (0, ())


def test_too_short_is_said_beside_the_figure_and_not_by_a_sign():
    (offer,), wrong = read_offers((TypedOffer(along="-3"),), BY_HAND, 4.76)
    assert (offer.along_mm, [one.name for one in wrong]) == (None, ["along"])
    (offer,), _ = read_offers((TypedOffer(along="3", short=True),), BY_HAND, 4.76)
    assert offer.along_mm == -3


@pytest.mark.parametrize(("text", "mm"), [("0.0", 0), ("0", 0), ("none", 0), ("2", 2), ("a lot", None)])
def test_a_line_that_met_its_ports_missed_by_nothing(text, mm):
    line = replace(bent(row(100, 90)), proving=Proving(missed=text))
    assert met_of(line).missed_mm == mm
